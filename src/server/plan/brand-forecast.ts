import { forecast, type Fixed, type Forecast, type LaneRules } from '../../core/plan/forecast.ts';
import type { Plan } from '../../core/plan/plan.ts';
import { slotsOf, type Slot } from '../../core/plan/rota-slots.ts';
import type { Rotation } from '../../core/plan/rotation.ts';
import { addDays } from '../../core/time/day.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { listChannels, listSheetsOf, type Brand, type Channel } from '../db/brand-repository.ts';
import { listOutings, mediaOfPosts } from '../db/outing-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { listQueue, type QueueEntry } from '../db/queue-repository.ts';
import { listRotations, listRuns, type StoredRotation } from '../db/rotation-repository.ts';
import { listTakenSlots } from '../db/slot-repository.ts';
import type { Services } from '../services.ts';

/** All that a forecast of a brand is made from, as it is now. */
export interface ForecastSources {
  readonly plan: Plan;
  readonly channels: readonly Channel[];
  readonly lanes: readonly LaneRules[];
  readonly waiting: readonly QueueEntry[];
  readonly rotations: readonly StoredRotation[];
  readonly runs: Awaited<ReturnType<typeof listRuns>>;
  readonly fixed: readonly Fixed[];
}

const DAY_MS = 86_400_000;
/** Posts of so long ago still count for what the queue keeps apart. */
const LOOK_BACK_MS = 30 * DAY_MS;
/** Runs of so many days ago decide which pair of a rotation is next. */
const RUNS_BACK_DAYS = 730;
/** More outings than this are not looked at. */
const MAX_OUTINGS = 50_000;

/** The pace of each channel, as its network sheet says it. */
export function lanesOf(channels: readonly Channel[], sheets: readonly NetworkSheet[]): readonly LaneRules[] {
  const byKey = new Map(sheets.map((sheet) => [sheet.key, sheet.pace]));
  return channels.map(({ id, network }) => ({ id, dailyMax: byKey.get(network)?.dailyMax ?? 25, leastGapMin: byKey.get(network)?.leastGapMin ?? 0 }));
}

export async function readSources({ db }: Pick<Services, 'db'>, brand: Brand, nowMs: number, untilMs: number): Promise<ForecastSources> {
  const [{ plan }, channels, sheets, waiting, rotations, outings, entries, taken] = await Promise.all([
    getPlan(db, brand.id),
    listChannels(db, brand.id),
    listSheetsOf(db, brand.id),
    listQueue(db, brand.id),
    listRotations(db, brand.id),
    listOutings(db, brand.id, { fromMs: nowMs - LOOK_BACK_MS, toMs: untilMs, limit: MAX_OUTINGS }),
    listPlanEntries(db, brand.id, { fromMs: nowMs, toMs: untilMs, limit: MAX_OUTINGS }),
    listTakenSlots(db, brand.id),
  ]);
  const runs = rotations.length === 0 ? [] : await listRuns(db, brand.id, addDays(wallTimeOf(nowMs, brand.zone).slice(0, 10), -RUNS_BACK_DAYS));
  const media = plan.apart.picture === 0 ? new Map<string, readonly string[]>() : await mediaOfPosts(db, brand.id, nowMs - LOOK_BACK_MS, untilMs);
  const slotsOfHolder = new Map<string, string[]>();
  for (const [key, holder] of taken) {
    const [slotKey = '', channelId = ''] = key.split(' ');
    const name = `${'postId' in holder ? holder.postId : holder.entryId} ${channelId}`;
    slotsOfHolder.set(name, [...(slotsOfHolder.get(name) ?? []), slotKey]);
  }
  const slotOf = (holder: string, channelId: string): string | null => slotsOfHolder.get(`${holder} ${channelId}`)?.[0] ?? null;
  const fixed: Fixed[] = [
    ...outings.filter(({ state }) => state !== 'failed').map((each) => ({ channelId: each.channelId, atMs: each.dueMs, day: each.wall.slice(0, 10), slotKey: slotOf(each.postId, each.channelId), themeId: each.themeId, template: each.template, mediaIds: media.get(each.postId) ?? [] })),
    ...entries.flatMap((entry) => entry.cuts.map(({ channelId }) => ({ channelId, atMs: entry.dueMs, day: entry.wall.slice(0, 10), slotKey: slotOf(entry.id, channelId), themeId: entry.themeId, template: null, mediaIds: [] }))),
  ];
  // A slot that is taken by a post at another moment stays taken.
  const known = new Set(fixed.map(({ slotKey, channelId }) => `${slotKey ?? ''} ${channelId}`));
  const others = [...taken.keys()].filter((key) => !known.has(key)).map((key): Fixed => ({ channelId: key.split(' ')[1] ?? '', atMs: -Infinity, day: '', slotKey: key.split(' ')[0] ?? null, themeId: null, template: null, mediaIds: [] }));
  return { plan, channels, lanes: lanesOf(channels, sheets), waiting, rotations, runs, fixed: [...others, ...fixed] };
}

export function toRotation({ pieceId, themeId, template, settings: { cuts, ...settings } }: StoredRotation): Rotation {
  return { pieceId, themeId, template, channelIds: [...new Set(cuts.map(({ channelId }) => channelId))], ...settings };
}

export interface BrandForecast extends Forecast {
  readonly slots: readonly Slot[];
}

/** What goes out from now until a moment, by a plan that may be another one than the brand's. */
export function forecastFrom(sources: ForecastSources, zone: string, nowMs: number, untilMs: number, plan: Plan = sources.plan): BrandForecast {
  const slots = slotsOf(plan, zone, nowMs, untilMs);
  const rotations = sources.rotations.filter(({ isOn }) => isOn).map(toRotation);
  return { slots, ...forecast({ plan, slots, channels: sources.lanes, waiting: sources.waiting, rotations, runs: sources.runs, fixed: sources.fixed }) };
}
