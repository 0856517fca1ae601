import type { AnswerOf } from '../../contract/contract.ts';
import type { getToday } from '../../contract/today-contracts.ts';
import { runwayDays } from '../../core/plan/forecast.ts';
import { addDays } from '../../core/time/day.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findEndingLicences } from '../db/media-repository.ts';
import { listOutings, type PlannedOuting } from '../db/outing-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { listPlanProblems } from '../db/plan-problem-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import type { Services } from '../services.ts';
import { forecastFrom, readSources } from './brand-forecast.ts';
import { daysIn } from './lanes-answer.ts';

type Today = AnswerOf<typeof getToday>;
type Need = Today['needs'][number];

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** Failed posts stay a person's business for so long. */
const FAILED_BACK_MS = 14 * DAY_MS;
const AHEAD_MS = 14 * DAY_MS;
/** Due so long ago and not out: something keeps it. */
const STUCK_AFTER_MS = 10 * 60_000;
const DRY_DAYS = 7;
const MAX_NEEDS = 60;
const MAX_NEXT = 8;

const nothing = { pieceId: null, postId: null, deliveryId: null, channelId: null, mediaId: null, atMs: null } as const;

/** What of a brand needs a person now, in the order of urgency, and what goes out next. It tells what is so, and nothing else. */
export async function todayAnswer(services: Pick<Services, 'db'>, brand: Brand, nowMs: number): Promise<Today> {
  const { db } = services;
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const endOfDayMs = seriesClock(brand.zone)(addDays(today, 1), '00:00').atMs;
  const [{ heldSinceMs }, failed, around, entries, problems, channels, sources, licences] = await Promise.all([
    getPlan(db, brand.id),
    listOutings(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + AHEAD_MS, limit: 200, states: ['failed'] }),
    listOutings(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + AHEAD_MS, limit: 3_000, states: ['scheduled', 'held', 'sending'] }),
    listPlanEntries(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + 2 * DAY_MS, limit: 200 }),
    listPlanProblems(db, brand.id, nowMs),
    listChannels(db, brand.id),
    readSources(services, brand, nowMs, nowMs + 2 * AHEAD_MS),
    findEndingLicences(db, brand.id, today, addDays(today, 14)),
  ]);
  const nameOf = (channelId: string): string => channels.find(({ id }) => id === channelId)?.name ?? '';
  const needs: Need[] = [];
  for (const each of failed) needs.push({ ...nothing, key: each.id, kind: 'failed', group: 'stopped', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `${each.problem ?? 'It failed.'} It was due ${formatMoment(each.dueMs, brand.zone)}.`, pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelId: each.channelId, atMs: each.dueMs });
  if (heldSinceMs !== null) needs.push({ ...nothing, key: 'held', kind: 'held', group: 'stopped', title: 'Everything is held', sentence: `Nothing goes out since ${formatMoment(heldSinceMs, brand.zone)}. ${around.filter(({ state }) => state === 'held').length} posts wait to be let go.` });
  for (const each of around.filter(({ state, dueMs }) => state === 'scheduled' && dueMs < nowMs - STUCK_AFTER_MS)) needs.push({ ...nothing, key: each.id, kind: 'stuck', group: 'stopped', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `${each.problem ?? 'It waits for its turn.'} It was due ${formatMoment(each.dueMs, brand.zone)}.`, pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelId: each.channelId, atMs: each.dueMs });
  for (const each of problems) needs.push({ ...nothing, key: `${each.subject} ${each.channelId}`, kind: 'preflight', group: 'waiting', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `Preflight stops it for ${formatMoment(each.dueMs, brand.zone)}: ${each.sentence}`, pieceId: each.pieceId, channelId: each.channelId, atMs: each.dueMs });
  for (const entry of entries) {
    const when = formatMoment(entry.dueMs, brand.zone);
    needs.push({ ...nothing, key: entry.id, kind: 'overdue-draft', group: 'waiting', title: entry.pieceName ?? entry.text, sentence: entry.dueMs <= nowMs ? `${entry.pieceId === null ? 'A placeholder' : 'A draft'} whose time has passed: ${when}.` : `${entry.pieceId === null ? 'Still a placeholder' : 'Still a draft'} for ${when}; it does not go out by itself.`, pieceId: entry.pieceId, channelId: entry.cuts[0]?.channelId ?? null, atMs: entry.dueMs });
  }
  for (const [first, count] of byPost(around.filter(({ hasChanged }) => hasChanged))) needs.push({ ...nothing, key: `changed ${first.postId}`, kind: 'changed', group: 'waiting', title: `${first.pieceName} · piece changed since`, sentence: `The post for ${formatMoment(first.dueMs, brand.zone)}, ${count} ${count === 1 ? 'place' : 'places'}, goes out as it was scheduled.`, pieceId: first.pieceId, postId: first.postId, atMs: first.dueMs });
  const { lanes, fills } = forecastFrom(sources, brand.zone, nowMs, nowMs + 2 * AHEAD_MS);
  for (const channel of channels) {
    const lane = lanes.get(channel.id);
    const days = lane ? runwayDays(lane, nowMs) : null;
    if (!lane || days === null || days > DRY_DAYS || lane.dryAtMs === null) continue;
    const open = fills.filter(({ channelId, filling, slot }) => channelId === channel.id && filling.kind === 'open' && slot.atMs < nowMs + DRY_DAYS * DAY_MS);
    const themes = [...new Set(open.flatMap(({ slot }) => sources.plan.themes.find(({ id }) => id === slot.themeId)?.name ?? []))].slice(0, 3);
    needs.push({ ...nothing, key: `dry ${channel.id}`, kind: 'dry', group: 'soon', title: `${channel.name} runs dry ${days === 0 ? 'today' : `on ${formatMoment(lane.dryAtMs, brand.zone).split(',')[0] ?? ''}`}`, sentence: `${open.length} open ${open.length === 1 ? 'slot' : 'slots'} in seven days${themes.length > 0 ? `, nothing waits for “${themes.join('”, “')}”` : ''}.`, channelId: channel.id, atMs: lane.dryAtMs });
  }
  for (const { id, name, lastDay, posts } of licences) needs.push({ ...nothing, key: `licence ${id}`, kind: 'licence', group: 'soon', title: `The licence of “${name}” ends`, sentence: `${lastDay} is its last day. ${posts} scheduled ${posts === 1 ? 'post shows' : 'posts show'} it later than that.`, mediaId: id, atMs: Date.parse(lastDay) });
  const order = { stopped: 0, waiting: 1, soon: 2 } as const;
  const sorted = needs.toSorted((a, b) => order[a.group] - order[b.group] || (a.atMs ?? 0) - (b.atMs ?? 0));
  const ahead = byPost(around.filter(({ state, dueMs }) => state === 'scheduled' && dueMs > nowMs - HOUR_MS));
  return {
    needs: sorted.slice(0, MAX_NEEDS),
    more: Math.max(0, sorted.length - MAX_NEEDS),
    next: ahead.slice(0, MAX_NEXT).map(([first, channelsOut]) => ({ postId: first.postId, pieceId: first.pieceId, pieceName: first.pieceName, dueMs: first.dueMs, day: first.wall.slice(0, 10), channels: channelsOut, channelId: first.channelId, kind: first.kind })),
    outToday: ahead.filter(([{ dueMs }]) => dueMs < endOfDayMs).length,
    days: daysIn(sources.plan, today, addDays(today, 13)).map(({ day, name }) => ({ day, name })),
  };
}

/** The first outing of each post with the number of its channels, the earliest first. */
function byPost(outings: readonly PlannedOuting[]): readonly (readonly [PlannedOuting, number])[] {
  const posts = new Map<string, { readonly first: PlannedOuting; readonly channels: Set<string> }>();
  for (const outing of outings) {
    const known = posts.get(outing.postId);
    if (known) known.channels.add(outing.channelId);
    else posts.set(outing.postId, { first: outing, channels: new Set([outing.channelId]) });
  }
  return [...posts.values()].map(({ first, channels }) => [first, channels.size] as const);
}
