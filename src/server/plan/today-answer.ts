import type { AnswerOf } from '../../contract/contract.ts';
import type { getToday } from '../../contract/today-contracts.ts';
import type { Role } from '../../core/access/access.ts';
import { runwayDays } from '../../core/plan/forecast.ts';
import { addDays } from '../../core/time/day.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { findEndingLicences } from '../db/media-repository.ts';
import { listOutings, type PlannedOuting } from '../db/outing-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { listPlanProblems } from '../db/plan-problem-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { sendNeeds } from '../post/send-needs.ts';
import { learnNeeds } from '../results/learn-needs.ts';
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

const nothing = { pieceId: null, postId: null, deliveryId: null, channelIds: [] as string[], mediaId: null, atMs: null } as const;

/** What of a brand needs a person now, in the order of urgency, and what goes out next. It tells what is so, and nothing else. */
export async function todayAnswer(services: Pick<Services, 'db'>, brand: Brand, person: { readonly id: string; readonly role: Role }, nowMs: number): Promise<Today> {
  const { db } = services;
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const endOfDayMs = seriesClock(brand.zone)(addDays(today, 1), '00:00').atMs;
  const [{ heldSinceMs }, failed, around, entries, problems, channels, sheets, sources, licences] = await Promise.all([
    getPlan(db, brand.id),
    listOutings(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + AHEAD_MS, limit: 200, states: ['failed'] }),
    listOutings(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + AHEAD_MS, limit: 3_000, states: ['in review', 'scheduled', 'held', 'sending', 'by hand'] }),
    listPlanEntries(db, brand.id, { fromMs: nowMs - FAILED_BACK_MS, toMs: nowMs + 2 * DAY_MS, limit: 200 }),
    listPlanProblems(db, brand.id, nowMs),
    listChannels(db, brand.id),
    listSheetsOf(db, brand.id),
    readSources(services, brand, nowMs, nowMs + 2 * AHEAD_MS),
    findEndingLicences(db, brand.id, today, addDays(today, 14)),
  ]);
  const networkNames = new Map(sheets.map(({ key, name }) => [key, name]));
  const nameOf = (channelId: string): string => channels.find(({ id }) => id === channelId)?.name ?? '';
  const needs: Need[] = [...(await sendNeeds(services, brand, person, nowMs)), ...(await learnNeeds(services, brand, person.role, nowMs))];
  for (const each of failed) needs.push({ ...nothing, key: each.id, kind: 'failed', group: 'stopped', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `${each.problem ?? 'It failed.'} It was due ${formatMoment(each.dueMs, brand.zone)}.`, pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelIds: [each.channelId], atMs: each.dueMs });
  if (heldSinceMs !== null) needs.push({ ...nothing, key: 'held', kind: 'held', group: 'stopped', title: 'Everything is held', sentence: `Nothing goes out since ${formatMoment(heldSinceMs, brand.zone)}. ${around.filter(({ state }) => state === 'held').length} posts wait to be let go.` });
  for (const each of around.filter(({ state, dueMs }) => state === 'scheduled' && dueMs < nowMs - STUCK_AFTER_MS)) needs.push({ ...nothing, key: each.id, kind: 'stuck', group: 'stopped', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `${each.problem ?? 'It waits for its turn.'} It was due ${formatMoment(each.dueMs, brand.zone)}.`, pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelIds: [each.channelId], atMs: each.dueMs });
  for (const each of problems) needs.push({ ...nothing, key: `${each.subject} ${each.channelId}`, kind: 'preflight', group: 'waiting', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: `Preflight stops it for ${formatMoment(each.dueMs, brand.zone)}: ${each.sentence}`, pieceId: each.pieceId, channelIds: [each.channelId], atMs: each.dueMs });
  for (const entry of entries) {
    const when = formatMoment(entry.dueMs, brand.zone);
    needs.push({ ...nothing, key: entry.id, kind: 'overdue-draft', group: 'waiting', title: entry.pieceName ?? entry.text, sentence: entry.dueMs <= nowMs ? `${entry.pieceId === null ? 'A placeholder' : 'A draft'} whose time has passed: ${when}.` : `${entry.pieceId === null ? 'Still a placeholder' : 'Still a draft'} for ${when}; it does not go out by itself.`, pieceId: entry.pieceId, channelIds: entry.cuts.map(({ channelId }) => channelId), atMs: entry.dueMs });
  }
  for (const [first, count] of byPost(around.filter(({ hasChanged }) => hasChanged))) needs.push({ ...nothing, key: `changed ${first.postId}`, kind: 'changed', group: 'waiting', title: `${first.pieceName} · piece changed since`, sentence: `The post for ${formatMoment(first.dueMs, brand.zone)}, ${count} ${count === 1 ? 'place' : 'places'}, goes out as it was scheduled.`, pieceId: first.pieceId, postId: first.postId, atMs: first.dueMs });
  const { lanes, fills } = forecastFrom(sources, brand.zone, nowMs, nowMs + 2 * AHEAD_MS);
  // Channels whose first empty slot is the same one stand in one line.
  const dry = new Map<number, string[]>();
  for (const { channelId, dryAtMs } of lanes.values()) if (dryAtMs !== null && (runwayDays({ dryAtMs }, nowMs) ?? Infinity) <= DRY_DAYS) dry.set(dryAtMs, [...(dry.get(dryAtMs) ?? []), channelId]);
  for (const [dryAtMs, ids] of dry) {
    const open = fills.filter(({ channelId, filling, slot }) => ids.includes(channelId) && filling.kind === 'open' && slot.atMs <= dryAtMs + DRY_DAYS * DAY_MS);
    const slots = new Set(open.map(({ slot }) => slot.key)).size;
    const themes = [...new Set(open.flatMap(({ slot }) => sources.plan.themes.find(({ id }) => id === slot.themeId)?.name ?? []))].slice(0, 3);
    const names = ids.map((id) => networkNames.get(channels.find((each) => each.id === id)?.network ?? '') ?? '');
    needs.push({ ...nothing, key: `dry ${dryAtMs}`, kind: 'dry', group: 'soon', title: `${joined(names)} ${names.length === 1 ? 'runs' : 'run'} dry on ${shortMoment(dryAtMs, brand.zone)}`, sentence: `${slots} open ${slots === 1 ? 'slot' : 'slots'} in the week from then${themes.length > 0 ? `; nothing waits for “${themes.join('”, “')}”` : ''}.`, channelIds: ids, atMs: dryAtMs });
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
    days: (await daysIn(sources.plan, today, addDays(today, 13))).map(({ day, name }) => ({ day, name })),
  };
}

/** `Thu 3 Dec, 18:00`. */
const shortMoment = (ms: number, zone: string): string => formatMoment(ms, zone).replace(/ \d{4},/, ',').replace(/ [^ ]+$/, '');

/** `Petalry, Hearthside and Guildrow`. */
function joined(names: readonly string[]): string {
  const each = [...new Set(names)];
  return each.length < 2 ? (each[0] ?? '') : `${each.slice(0, -1).join(', ')} and ${each.at(-1) ?? ''}`;
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
