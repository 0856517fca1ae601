import { nanoid } from 'nanoid';
import { noticesOf, type RemindedPost } from '../../core/plan/reminders.ts';
import type { Brand } from '../db/brand-repository.ts';
import { insertNotice, listReminded, pruneNotices } from '../db/notice-repository.ts';
import { listOutings } from '../db/outing-repository.ts';
import { sendLetter } from '../mail/mailer.ts';
import type { Services } from '../services.ts';

const HOUR_MS = 3_600_000;
const MAX_OUTINGS = 2_000;
/** The longest time before a post that somebody may be reminded of it. */
export const MAX_BEFORE_MIN = 1_440;

/** Tells the members of a brand what each wants to hear of, once; answers how many notices that were. A letter that cannot be sent is logged, and the notice stands all the same. */
export async function remind(services: Services, brand: Brand): Promise<number> {
  const { db, clock, settings, log } = services;
  const nowMs = await clock.nowMs();
  const outings = await listOutings(db, brand.id, { fromMs: nowMs - HOUR_MS, toMs: nowMs + MAX_BEFORE_MIN * 60_000, limit: MAX_OUTINGS });
  const posts = new Map<string, RemindedPost>();
  for (const each of outings) {
    const known = posts.get(each.postId);
    posts.set(each.postId, { postId: each.postId, pieceId: each.pieceId, pieceName: each.pieceName, dueMs: each.dueMs, states: [...(known?.states ?? []), each.state], problem: known?.problem ?? each.problem });
  }
  let told = 0;
  for (const { personId, email, settings: wanted } of await listReminded(db, brand.id)) {
    for (const { subject, sentence, pieceId } of noticesOf([...posts.values()], wanted, brand.zone, nowMs)) {
      const path = `/b/${brand.slug}/make/pieces/${pieceId}`;
      if (!(await insertNotice(db, brand.id, personId, { id: nanoid(12), subject, sentence, path }, nowMs, clock.machineNowMs()))) continue;
      told += 1;
      if (!wanted.byMail || settings.smtp === null) continue;
      await sendLetter(settings, { to: email, subject: `${brand.name}: ${sentence}`, text: `${sentence}\n\n${settings.origin ?? ''}${path}\n` }).catch((error: unknown) => log.warn({ err: error, person: personId }, 'a reminder was not mailed'));
    }
  }
  await pruneNotices(db, nowMs);
  return told;
}
