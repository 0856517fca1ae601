import { rotatedPiece } from '../../core/plan/rotated-piece.ts';
import { occurrencesBetween } from '../../core/plan/recurrence.ts';
import type { SlotFill } from '../../core/plan/forecast.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import { findBrandById, listChannels, type Brand } from '../db/brand-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { findPiece, type StoredPiece } from '../db/piece-repository.ts';
import { replacePlanProblems, type PlanProblem } from '../db/plan-problem-repository.ts';
import { listPlannedBrands } from '../db/plan-repository.ts';
import { listOccurrences, listRepeats, type StoredRepeat } from '../db/repeat-repository.ts';
import { renderAhead } from '../dispatch/render-ahead.ts';
import { ProblemError } from '../errors.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { schedule, type Origin, type ScheduleRequest } from '../post/schedule.ts';
import type { Services } from '../services.ts';
import { forecastFrom, readSources, type ForecastSources } from './brand-forecast.ts';
import { remind } from './remind.ts';

const KIND = 'plan';
const EVERY_MS = 60_000;
const DAY_MS = 86_400_000;
/** Slots are filled for good so long before they are due; until then a person may change the order at will. */
const PIN_BEFORE_MS = DAY_MS;
/** Repeats stand as posts this far ahead. */
export const HORIZON_MS = 14 * DAY_MS;
/** Posts of one brand that one round makes: the rest comes with the next. */
const MAX_A_ROUND = 200;

export const planJob: NewJob = { key: KIND, kind: KIND, lane: 'plan', payload: {}, maxAttempts: 8 };

type Problem = Omit<PlanProblem, 'pieceName'>;

/** Turns what the plan foresees into posts, once each, however often it runs. What preflight stops stays in the plan, with the reason. */
export function planHandler(services: Services): JobHandler {
  return {
    async run() {
      for (const brandId of await listPlannedBrands(services.db)) {
        const brand = await findBrandById(services.db, brandId);
        if (!brand) continue;
        await makeReal(services, brand);
        await remind(services, brand);
        await renderAhead(services, brand.id, await services.clock.nowMs());
      }
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}

/** One round for one brand; answers how many posts it made. */
export async function makeReal(services: Services, brand: Brand): Promise<number> {
  const nowMs = await services.clock.nowMs();
  const problems: Problem[] = [];
  let made = 0;
  const attempt = async (subject: Omit<Problem, 'sentence'>, make: () => Promise<unknown>): Promise<void> => {
    if (made >= MAX_A_ROUND) return;
    try {
      await make();
      made += 1;
    } catch (error) {
      // Another process, or a person, has filled the slot a moment before.
      if (error instanceof ProblemError && (error.code === 'slot-taken' || error.code === 'already-scheduled')) return;
      if (!(error instanceof ProblemError)) throw error;
      problems.push({ ...subject, sentence: error.sentence });
    }
  };
  for (const repeat of await listRepeats(services.db, brand.id)) await makeOccurrences(services, brand, repeat, nowMs, attempt);
  const sources = await readSources(services, brand, nowMs, nowMs + PIN_BEFORE_MS);
  const { fills } = forecastFrom(sources, brand.zone, nowMs, nowMs + PIN_BEFORE_MS);
  for (const group of togetherOut(fills)) {
    const [{ slot, channelId, filling }] = group;
    if (filling.kind === 'open') continue;
    await attempt({ subject: slot.key, channelId, pieceId: filling.pieceId, dueMs: slot.atMs }, () => fillSlot(services, brand, sources, group, nowMs));
  }
  await replacePlanProblems(services.db, brand.id, problems, services.clock.machineNowMs());
  return made;
}

type Group = readonly [SlotFill, ...SlotFill[]];

/** Channels on which a slot holds the same piece, in the same turn, get one post. */
function togetherOut(fills: readonly SlotFill[]): readonly Group[] {
  const groups = new Map<string, Group>();
  for (const fill of fills) {
    const { slot, filling } = fill;
    if (filling.kind === 'open') continue;
    const key = `${slot.key} ${filling.pieceId} ${filling.kind === 'rotation' ? `${filling.pair.wording} ${filling.pair.picture}` : ''}`;
    const known = groups.get(key);
    groups.set(key, known ? [...known, fill] : [fill]);
  }
  return [...groups.values()];
}

async function fillSlot(services: Services, brand: Brand, sources: ForecastSources, group: Group, nowMs: number): Promise<void> {
  const [{ slot, filling }] = group;
  if (filling.kind === 'open') return;
  const piece = await findPiece(services.db, brand.id, filling.pieceId);
  if (!piece) return;
  const channelIds = group.map(({ channelId }) => channelId);
  const when = { kind: 'at' as const, wall: `${slot.day}T${slot.time}`, ...(slot.change === 'first' ? { repeated: 'earlier' as const } : {}) };
  if (filling.kind === 'waiting') {
    const entries = sources.waiting.filter(({ id }) => group.some((fill) => fill.filling.kind === 'waiting' && fill.filling.entryId === id));
    await scheduleAs(services, brand, piece, { cuts: entries.map(({ channelId, placement }) => ({ channelId, placement })), when }, entries[0]?.addedBy ?? '', nowMs, { kind: 'slot', slotKey: slot.key, queueIds: entries.map(({ id }) => id) });
    return;
  }
  const rotation = sources.rotations.find(({ pieceId }) => pieceId === piece.id);
  if (!rotation) return;
  const cuts = rotation.settings.cuts.filter(({ channelId }) => channelIds.includes(channelId));
  await scheduleAs(services, brand, piece, { cuts, when }, rotation.createdBy, nowMs, { kind: 'rotation', slotKey: slot.key, turn: { pair: filling.pair, document: rotatedPiece(piece.document, filling.pair) } });
}

async function makeOccurrences(services: Services, brand: Brand, repeat: StoredRepeat, nowMs: number, attempt: (subject: Omit<Problem, 'sentence'>, make: () => Promise<unknown>) => Promise<void>): Promise<void> {
  const piece = await findPiece(services.db, brand.id, repeat.pieceId);
  if (!piece) return;
  const stands = await listOccurrences(services.db, repeat.id);
  for (const { key, atMs, change } of occurrencesBetween(repeat, nowMs + 1, nowMs + HORIZON_MS)) {
    if (stands.has(key)) continue;
    // A time that clocks leave out that day comes later by the jump, as was agreed for the series.
    const when = { kind: 'at' as const, wall: change === 'moved' ? wallTimeOf(atMs, brand.zone) : key, ...(change === 'first' ? { repeated: 'earlier' as const } : {}) };
    await attempt({ subject: `${repeat.id}@${key}`, channelId: repeat.cuts[0]?.channelId ?? '', pieceId: piece.id, dueMs: atMs }, () => scheduleAs(services, brand, piece, { cuts: repeat.cuts, when }, repeat.createdBy, nowMs, { kind: 'repeat', repeat: { id: repeat.id, occurrence: key } }));
  }
}

async function scheduleAs(services: Services, brand: Brand, piece: StoredPiece, order: Pick<ScheduleRequest, 'when'> & { readonly cuts: readonly { readonly channelId: string; readonly placement: string }[] }, personId: string, nowMs: number, origin: Origin): Promise<void> {
  // Skips channels that are disconnected; the post still goes to the others.
  const channels = await listChannels(services.db, brand.id);
  const cuts = order.cuts.filter(({ channelId }) => channels.some(({ id, state }) => id === channelId && state !== 'ended'));
  if (cuts.length === 0) throw new ProblemError(422, 'no-cut', 'None of its channels is connected any more, or this piece has no cut there.');
  await schedule(services, brand, piece, { revision: piece.revision, cuts: cuts.map((cut) => ({ ...cut, when: undefined })), when: order.when, again: true }, { personId, maySend: true }, nowMs, origin);
  services.log.info({ piece: piece.id, at: formatMoment(nowMs, brand.zone), origin: origin.kind }, 'the plan made a post');
}
