import { nanoid } from 'nanoid';
import { endBefore, occurrencesBetween } from '../../core/plan/recurrence.ts';
import { resolveWallTime } from '../../core/time/wall-time.ts';
import type { Brand } from '../db/brand-repository.ts';
import { changeRepeat as write, endRepeat, findRepeat, insertRepeat, listOccurrences, type StoredRepeat } from '../db/repeat-repository.ts';
import { findPost } from '../db/post-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { actOnPost, reschedulePost } from '../post/change-post.ts';
import type { Services } from '../services.ts';
import { makeReal } from './make-real.ts';

/** What is changed of a repeat: which occurrence it is about, how far it reaches, and to when; null leaves out. */
export interface RepeatChange {
  readonly occurrence: string;
  readonly reach: 'this' | 'following' | 'all';
  readonly to: string | null;
}

/** @throws ProblemError 404 for a repeat or an occurrence that there is not; 422 for a moment that cannot be */
export async function changeRepeat(services: Services, brand: Brand, id: string, { occurrence, reach, to }: RepeatChange, nowMs: number): Promise<void> {
  const repeat = await findRepeat(services.db, brand.id, id);
  if (!repeat) throw notFound('repeat');
  if (!isOccurrence(repeat, occurrence)) throw new ProblemError(404, 'not-found', 'This repeat does not come round at that time.');
  if (reach === 'this') return changeOne(services, brand, repeat, occurrence, to, nowMs);
  const { db, clock } = services;
  const machineNowMs = clock.machineNowMs();
  const from = reach === 'all' ? '' : occurrence;
  // Posts that stand for what goes are cancelled; those that are out stay.
  for (const [key, postId] of await listOccurrences(db, repeat.id)) {
    const post = key >= from ? await findPost(db, brand.id, postId) : null;
    if (post) await actOnPost(db, post, 'cancel', { nowMs, machineNowMs });
  }
  await db.transaction(async (trx) => {
    if (reach === 'all' || occurrence <= repeat.start) await endRepeat(trx, brand.id, repeat.id, machineNowMs);
    else await write(trx, brand.id, repeat.id, { ...repeat, rule: endBefore(repeat.rule, occurrence) }, machineNowMs);
    if (to !== null) await insertRepeat(trx, { ...repeat, id: nanoid(12), start: reach === 'all' && repeat.start > to ? `${repeat.start.slice(0, 10)}${to.slice(10)}` : to }, machineNowMs);
  });
  await makeReal(services, brand);
}

function isOccurrence(repeat: StoredRepeat, wall: string): boolean {
  const resolved = resolveWallTime(wall, repeat.zone);
  const atMs = resolved.kind === 'exact' ? resolved.atMs : resolved.kind === 'repeated' ? resolved.earlierMs : resolved.resumesAtMs;
  return occurrencesBetween(repeat, atMs - 86_400_000, atMs + 86_400_000).some(({ key }) => key === wall);
}

async function changeOne(services: Services, brand: Brand, repeat: StoredRepeat, occurrence: string, to: string | null, nowMs: number): Promise<void> {
  const { db, clock } = services;
  const postId = (await listOccurrences(db, repeat.id)).get(occurrence);
  const post = postId === undefined ? null : await findPost(db, brand.id, postId);
  if (to !== null) {
    if (!post) throw new ProblemError(409, 'not-yet', 'This occurrence is further ahead than posts are made. Move it when it is nearer, or change this and those that follow.');
    return reschedulePost(services, brand, post, { kind: 'at', wall: to, repeated: undefined }, nowMs);
  }
  if (post) await actOnPost(db, post, 'cancel', { nowMs, machineNowMs: clock.machineNowMs() });
  await db.transaction((trx) => write(trx, brand.id, repeat.id, { ...repeat, except: [...repeat.except, occurrence] }, clock.machineNowMs()));
}
