import type { AnswerOf, QueryOf } from '../../contract/contract.ts';
import type { getLanes } from '../../contract/plan-contracts.ts';
import type { Forecast, SlotFill } from '../../core/plan/forecast.ts';
import { spansIn } from '../../core/plan/days.ts';
import { distinctPosts } from '../../core/plan/rotation.ts';
import { addDays } from '../../core/time/day.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listOutings, type OutingFilter, type PlannedOuting } from '../db/outing-repository.ts';
import { listPlanEntries, type PlanEntry } from '../db/plan-entry-repository.ts';
import type { Services } from '../services.ts';
import { forecastFrom, readSources, toRotation, type ForecastSources } from './brand-forecast.ts';
import { publicDays } from './public-days.ts';

type Lanes = AnswerOf<typeof getLanes>;
type Query = QueryOf<typeof getLanes>;

const DAY_MS = 86_400_000;
/** Runways are told up to this far ahead. */
const RUNWAY_MS = 84 * DAY_MS;
/** One answer holds so many outings: what does not fit is told. */
const MAX_OUTINGS = 6_000;

/** What some days of the plan hold, filtered. */
export async function lanesAnswer(services: Pick<Services, 'db'>, brand: Brand, query: Query, nowMs: number): Promise<Lanes> {
  const clock = seriesClock(brand.zone);
  const lastDay = addDays(query.from, query.days - 1);
  const [fromMs, toMs] = [clock(query.from, '00:00').atMs, clock(addDays(query.from, query.days), '00:00').atMs];
  const filter = filterOf(query, fromMs, toMs);
  const [outings, entries, sources] = await Promise.all([
    isListed(query, 'outings') ? listOutings(services.db, brand.id, filter) : [],
    isListed(query, 'entries') ? listPlanEntries(services.db, brand.id, { fromMs, toMs, limit: MAX_OUTINGS }) : [],
    readSources(services, brand, nowMs, Math.max(toMs, nowMs + RUNWAY_MS)),
  ]);
  const made = forecastFrom(sources, brand.zone, nowMs, Math.max(toMs, nowMs + RUNWAY_MS));
  const channels = filter.channelIds === undefined ? null : new Set(filter.channelIds);
  const isShown = (channelId: string): boolean => channels === null || channels.has(channelId);
  const names = new Map([...sources.waiting, ...sources.rotations].map(({ pieceId, pieceName }) => [pieceId, pieceName]));
  return {
    outings: outings.filter(({ hasChanged }) => query.state !== 'changed' || hasChanged).map(describeOuting),
    isCut: outings.length >= MAX_OUTINGS,
    entries: entries.filter((entry) => matchesEntry(entry, query) && entry.cuts.some(({ channelId }) => isShown(channelId))).map(describeEntry),
    fills: made.fills.filter(({ slot, channelId }) => slot.atMs >= fromMs && slot.atMs < toMs && isShown(channelId)).filter((fill) => matchesFill(fill, query)).map((fill) => describeFill(fill, names)),
    lanes: describeLanes(sources, made).filter(({ channelId }) => isShown(channelId)),
    days: await daysIn(sources.plan, query.from, lastDay),
  };
}

function filterOf(query: Query, fromMs: number, toMs: number): OutingFilter {
  const state = query.state === undefined || query.state === 'draft' || query.state === 'placeholder' || query.state === 'open' || query.state === 'changed' ? undefined : [query.state];
  return { fromMs, toMs, limit: MAX_OUTINGS, channelIds: query.channels?.split(',').filter((each) => each !== ''), states: state, kind: query.kind, themeId: query.theme, campaignId: query.campaign, label: query.label, personId: query.person };
}

/** Whether a filter by state leaves anything of a kind. */
function isListed({ state }: Query, what: 'outings' | 'entries'): boolean {
  const isOfEntries = state === 'draft' || state === 'placeholder';
  return state === undefined || (what === 'entries' ? isOfEntries : !isOfEntries && state !== 'open');
}

function matchesEntry(entry: PlanEntry, { state, kind, theme, campaign, label, person }: Query): boolean {
  if (state === 'draft' && entry.pieceId === null) return false;
  if (state === 'placeholder' && entry.pieceId !== null) return false;
  // Whose it is and how it is labelled is known of posts alone.
  return (kind === undefined || entry.kind === kind) && (theme === undefined || entry.themeId === theme) && (campaign === undefined || entry.campaignId === campaign) && label === undefined && person === undefined;
}

function matchesFill({ slot, filling }: SlotFill, { state, theme, kind, campaign, label, person }: Query): boolean {
  if (kind !== undefined || campaign !== undefined || label !== undefined || person !== undefined) return false;
  return (state === undefined || (state === 'open' && filling.kind === 'open')) && (theme === undefined || slot.themeId === theme);
}

export const describeOuting = ({ id, postId, pieceId, pieceName, kind, channelId, placement, state, dueMs, wall, origin, themeId, campaignId, hasChanged, problem }: PlannedOuting): Lanes['outings'][number] => ({ id, postId, pieceId, pieceName, kind, channelId, placement, state, dueMs, wall, origin, themeId, campaignId, hasChanged, problem: state === 'sent' ? null : problem });

export const describeEntry = ({ id, pieceId, pieceName, text, kind, themeId, campaignId, dueMs, wall, slotKey, revision, cuts }: PlanEntry): Lanes['entries'][number] => ({ id, pieceId, name: pieceName ?? text, kind, themeId, campaignId, dueMs, wall, slotKey, revision, cuts: cuts.map((cut) => ({ ...cut })) });

function describeFill({ slot, channelId, filling }: SlotFill, names: ReadonlyMap<string, string>): Lanes['fills'][number] {
  const pieceId = filling.kind === 'open' ? null : filling.pieceId;
  return { slotKey: slot.key, channelId, atMs: slot.atMs, wall: `${slot.day}T${slot.time}`, themeId: slot.themeId, kind: filling.kind, pieceId, pieceName: pieceId === null ? null : (names.get(pieceId) ?? ''), why: filling.kind === 'open' ? filling.why : null };
}

export function describeLanes(sources: ForecastSources, { lanes }: Pick<Forecast, 'lanes'>): Lanes['lanes'] {
  const rotations = sources.rotations.filter(({ isOn }) => isOn).map(toRotation);
  return sources.channels.map(({ id }) => {
    const lane = lanes.get(id);
    return {
      channelId: id,
      dryAtMs: lane?.dryAtMs ?? null,
      slots: lane?.slots ?? 0,
      open: lane?.open ?? 0,
      waiting: sources.waiting.filter(({ channelId }) => channelId === id).length,
      evergreen: rotations.filter(({ channelIds }) => channelIds.includes(id)).reduce((sum, rotation) => sum + distinctPosts(rotation), 0),
    };
  });
}

/** Holidays, own days and pauses in some days. */
export async function daysIn(plan: ForecastSources['plan'], firstDay: string, lastDay: string): Promise<Lanes['days']> {
  const own = [...spansIn(plan.days, firstDay, lastDay).map((span) => ({ ...span, of: 'own' })), ...spansIn(plan.rota.pauses, firstDay, lastDay).map((span) => ({ ...span, of: 'pause' }))];
  const holidays = await publicDays(plan.countries, firstDay, lastDay);
  return [...holidays.map(({ day, name, of }) => ({ day, until: day, name, of })), ...own.map(({ from, until, name, of }) => ({ day: from, until, name, of }))].toSorted((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
}
