import { nanoid } from 'nanoid';
import { entriesFor } from '../../core/ideas/collection/collection.ts';
import { seasonOf, type CollectionEntry } from '../../core/ideas/collection/entry.ts';
import type { Candidate } from '../../core/ideas/idea.ts';
import { chooseIdeas, rankIdeas, type ThemeStanding } from '../../core/ideas/rank-ideas.ts';
import { fillFacts } from '../../core/brand/facts.ts';
import { addDays, dayNumber, mondayOf } from '../../core/time/day.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import { findBrandById, listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { pageConversations } from '../db/conversation-repository.ts';
import { listFreshItems } from '../db/feed-repository.ts';
import { countCame, insertIdea, knownKeys, listBrandsDue, noteGathered, readIdeaSettings, turnTheDay } from '../db/idea-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { listOutings } from '../db/outing-repository.ts';
import { listCompared } from '../db/results-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { forecastFrom, readSources } from '../plan/brand-forecast.ts';
import { daysIn } from '../plan/lanes-answer.ts';
import { daysWorthKnowing } from '../plan/public-days.ts';
import { worksOf, WORKS_HOURS } from '../results/works.ts';
import type { Services } from '../services.ts';
import { networkOf } from '../words/network-knowledge.ts';

const KIND = 'ideas';
const EVERY_MS = 60_000;
const BRANDS_A_ROUND = 10;
const DAY_MS = 86_400_000;
const [DATES_AHEAD, GAPS_AHEAD, FEED_BACK, REPLIES_BACK, QUIET_BACK] = [45, 14, 14, 14, 90];
const MAX_EACH = 40;
const MAX_TRENDS = 3;
/** Shorter than this, a message says too little to make something of. */
const MIN_REPLY = 40;
const MAX_TITLE = 80;

export const ideasJob: NewJob = { key: KIND, kind: KIND, lane: 'ideas', payload: {}, maxAttempts: 8 };

/** Looks after the shelves once a day each; it comes round for ever. */
export function ideasHandler(services: Services): JobHandler {
  return {
    async run() {
      const nowMs = await services.clock.nowMs();
      for (const brandId of await listBrandsDue(services.db, nowMs, BRANDS_A_ROUND)) {
        const brand = await findBrandById(services.db, brandId);
        if (brand) await gatherIdeas(services, brand, nowMs);
      }
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}

/** Puts what fits best on a brand’s shelf, no more than it wants a week; answers how many came. */
export async function gatherIdeas(services: Services, brand: Brand, nowMs: number): Promise<number> {
  const { db, clock } = services;
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  await turnTheDay(db, brand.id, today);
  const settings = await readIdeaSettings(db, brand.id);
  const candidates = (await allCandidates(services, brand, today, settings.revivalDays, nowMs)).filter(({ kind }) => settings.kinds.includes(kind));
  const known = await knownKeys(db, brand.id, candidates.map(({ key }) => key));
  const weekBeganMs = seriesClock(brand.zone)(mondayOf(today), '00:00').atMs;
  const ranked = rankIdeas(candidates.filter(({ key }) => !known.has(key)), await themeStandings(services, brand, today, nowMs), today, Math.floor(dayNumber(mondayOf(today)) / 7));
  const chosen = chooseIdeas(ranked, settings, await countCame(db, brand.id, weekBeganMs));
  let came = 0;
  for (const { candidate, score, why } of chosen) {
    const isNew = await db.transaction((trx) => insertIdea(trx, brand.id, { ...candidate, id: nanoid(12), score, why: [...why, ...(candidate.details['why'] === undefined ? [] : [String(candidate.details['why'])])], createdBy: null, createdMs: nowMs }, clock.machineNowMs()));
    if (isNew) came += 1;
  }
  await noteGathered(db, brand.id, seriesClock(brand.zone)(addDays(today, 1), '05:00').atMs);
  return came;
}

/** A candidate with what is usual filled in. */
const made = (given: Pick<Candidate, 'key' | 'kind' | 'title'> & Partial<Candidate>): Candidate => ({ text: '', link: '', pictureUrl: '', mediaId: null, day: null, themeId: null, source: '', didWell: 0, details: {}, ...given });

async function allCandidates(services: Services, brand: Brand, today: string, revivalDays: number, nowMs: number): Promise<readonly Candidate[]> {
  const lists = await Promise.all([dates(services, brand, today, nowMs), gaps(services, brand, nowMs), feedItems(services, brand, nowMs), trends(services, brand, today), revivals(services, brand, revivalDays, nowMs), replies(services, brand, nowMs)]);
  return [...lists.flat(), ...collected(brand, today)];
}

async function dates(services: Services, brand: Brand, today: string, nowMs: number): Promise<readonly Candidate[]> {
  const { plan } = await readSources(services, brand, nowMs, nowMs + DAY_MS);
  const last = addDays(today, DATES_AHEAD);
  const own = (await daysIn(plan, today, last)).filter(({ of }) => of !== 'pause').map(({ day, name, of }) => made({ key: `date ${day} ${name}`, kind: 'date', title: name, day: day < today ? today : day, source: of === 'own' ? 'A day of the brand’s own' : `Public holiday, ${of}`, details: { weight: of === 'own' ? 1 : 0.8 } }));
  const worth = (await daysWorthKnowing(plan.countries, today, last)).map(({ day, name, of }) => made({ key: `date ${day} ${name}`, kind: 'date', title: name, day, source: `A day worth knowing, ${of}` }));
  return [...own, ...worth].slice(0, MAX_EACH);
}

async function gaps(services: Services, brand: Brand, nowMs: number): Promise<readonly Candidate[]> {
  const untilMs = nowMs + GAPS_AHEAD * DAY_MS;
  const sources = await readSources(services, brand, nowMs, untilMs);
  const { fills } = forecastFrom(sources, brand.zone, nowMs, untilMs);
  const slots = new Map<string, { atMs: number; day: string; themeId: string | null; channelIds: string[] }>();
  for (const { slot, channelId, filling } of fills) {
    if (filling.kind !== 'open' || filling.why !== 'nothing-waits') continue;
    const known = slots.get(slot.key) ?? { atMs: slot.atMs, day: slot.day, themeId: slot.themeId, channelIds: [] };
    known.channelIds.push(channelId);
    slots.set(slot.key, known);
  }
  const nameOf = (themeId: string | null): string => sources.plan.themes.find(({ id }) => id === themeId)?.name ?? '';
  return [...slots].slice(0, MAX_EACH).map(([slotKey, { atMs, day, themeId, channelIds }]) => made({ key: `gap ${slotKey}`, kind: 'gap', title: `Nothing for ${formatMoment(atMs, brand.zone).replace(/ \d{4},/u, ',').replace(/ [^ ]+$/u, '')}${themeId === null ? '' : `: ${nameOf(themeId)}`}`, day, themeId, source: 'An open slot of the rota', details: { slotKey, channelIds } }));
}

async function feedItems({ db }: Services, brand: Brand, nowMs: number): Promise<readonly Candidate[]> {
  return (await listFreshItems(db, brand.id, nowMs - FEED_BACK * DAY_MS, MAX_EACH)).map((item) => made({ key: `feed ${item.feedId} ${item.guid}`.slice(0, 500), kind: 'feed', title: item.title, text: item.summary, link: item.link, pictureUrl: item.picture, source: item.feedName }));
}

async function trends(services: Services, brand: Brand, today: string): Promise<readonly Candidate[]> {
  const [channels, sheets] = [await listChannels(services.db, brand.id), await listSheetsOf(services.db, brand.id)];
  const first = [...new Map(channels.filter(({ state }) => state !== 'ended').map((channel) => [channel.network, channel])).values()];
  const lists = await Promise.all(
    first.map(async ({ id, network }) => {
      const { tags } = (await (await networkOf(services, brand, id))?.trends(null)) ?? { tags: [] };
      const name = sheets.find(({ key }) => key === network)?.name ?? network;
      return tags.slice(0, MAX_TRENDS).map(({ tag, reach }) => made({ key: `trend ${network} ${tag.toLowerCase()} ${mondayOf(today)}`, kind: 'trend', title: tag, source: `Rising on ${name}`, details: { why: `${reach.toLocaleString('en-GB')} people a month see it on ${name}.` } }));
    }),
  );
  return lists.flat();
}

/** Posts that did well and are old enough to come again. */
export async function revivals(services: Services, brand: Brand, revivalDays: number, nowMs: number): Promise<readonly Candidate[]> {
  const { rateBase } = await readLearnSettings(services.db, brand.id);
  const compared = await listCompared(services.db, brand.id, { channelIds: null, sinceMs: nowMs - 365 * DAY_MS, limit: 2_000 });
  const rated = compared.flatMap((publication) => {
    const aged = publication.aged[WORKS_HOURS];
    const seen = aged ? (rateBase === 'reach' ? (aged.reach ?? aged.impressions) : (aged.impressions ?? aged.reach)) : null;
    return aged && seen !== null && seen > 0 && publication.pieceId !== null ? [{ publication, pieceId: publication.pieceId, rate: aged.engagement / seen }] : [];
  });
  // Against the middle of its own channel: some channels engage more than others.
  const middles = new Map<string, number>();
  for (const { publication } of rated) {
    if (middles.has(publication.channelId)) continue;
    const rates = rated.filter((each) => each.publication.channelId === publication.channelId).map(({ rate }) => rate).toSorted((a, b) => a - b);
    middles.set(publication.channelId, rates[Math.floor(rates.length / 2)] ?? 0);
  }
  const best = new Map<string, { name: string; themeId: string | null; lift: number; lastMs: number }>();
  for (const { publication, pieceId, rate } of rated) {
    const middle = middles.get(publication.channelId) ?? 0;
    const known = best.get(pieceId) ?? { name: publication.title, themeId: publication.themeId, lift: -1, lastMs: 0 };
    best.set(pieceId, { ...known, lift: Math.max(known.lift, middle > 0 ? rate / middle - 1 : 0), lastMs: Math.max(known.lastMs, Number(publication.publishedMs)) });
  }
  return [...best]
    .filter(([, { lift, lastMs }]) => lift > 0.15 && lastMs < nowMs - revivalDays * DAY_MS)
    .toSorted(([, a], [, b]) => b.lift - a.lift)
    .slice(0, MAX_EACH)
    .map(([pieceId, { name, themeId, lift, lastMs }]) => made({ key: `revival ${pieceId} ${new Date(lastMs).toISOString().slice(0, 7)}`, kind: 'revival', title: name, themeId, didWell: Math.min(1, lift), source: `Out ${formatMoment(lastMs, brand.zone).split(',')[0] ?? ''}`, details: { pieceId } }));
}

/** The first words of a message, as a title. */
function titleOf(said: string): string {
  const space = said.lastIndexOf(' ', MAX_TITLE);
  return said.length <= MAX_TITLE ? said : `${said.slice(0, space > 0 ? space : MAX_TITLE)}…`;
}

async function replies({ db }: Services, brand: Brand, nowMs: number): Promise<readonly Candidate[]> {
  const { isWorthAPost } = await import('../../core/replies/worth-a-post.ts');
  const page = await pageConversations(db, brand.id, { state: null, channelIds: null, kind: null, assignedTo: null, label: null, words: [], beforeMs: null, after: null, limit: 100 });
  return page
    .filter(({ snippet, lastMs, state }) => state !== 'apart' && isWorthAPost(snippet, brand.book.language ?? 'en') && Number(lastMs) > nowMs - REPLIES_BACK * DAY_MS && snippet.length >= MIN_REPLY)
    .toSorted((a, b) => b.authorFollowers - a.authorFollowers)
    // The same question of two people is one idea.
    .filter(({ snippet }, index, all) => all.findIndex((each) => each.snippet.toLowerCase() === snippet.toLowerCase()) === index)
    .slice(0, 8)
    .map((each) => made({ key: `reply ${each.id}`, kind: 'reply', title: titleOf(each.snippet), text: each.snippet, source: `${each.authorName}, ${each.kind}`, details: { conversationId: each.id, why: each.snippet.includes('?') ? 'Others may have the same question.' : 'Kind words make a quote.' } }));
}

/** Prompts and sayings that the season and the brand’s facts allow. Sayings are English and become quotes as they are: no brand gets them that writes something else. */
function collected({ book, zone }: Brand, today: string): readonly Candidate[] {
  const season = seasonOf(today, /^(?:Australia|Antarctica|Pacific\/Auckland|America\/(?:Sao_Paulo|Buenos_Aires|Argentina|Santiago|Montevideo|Asuncion|La_Paz|Lima)|Africa\/(?:Johannesburg|Maputo|Harare|Windhoek|Gaborone))/u.test(zone));
  return entriesFor(book.facts, season).filter(({ kind }) => kind !== 'saying' || (book.language ?? 'en') === 'en').map((entry) => made({ key: entry.id, kind: entry.kind, title: entry.filled, source: entry.kind === 'saying' ? 'The collection of sayings' : 'The collection of prompts', details: { category: entry.category satisfies CollectionEntry['category'], ...(entry.season === undefined ? {} : { why: `It is for ${entry.season}.` }) } }));
}

/** How each theme stands: in the rota, in what was out and is planned, in the results. */
export async function themeStandings(services: Services, brand: Brand, today: string, nowMs: number): Promise<readonly ThemeStanding[]> {
  const [{ plan }, outings, { rateBase }] = [await readSources(services, brand, nowMs, nowMs + DAY_MS), await listOutings(services.db, brand.id, { fromMs: nowMs - QUIET_BACK * DAY_MS, toMs: nowMs + GAPS_AHEAD * DAY_MS, limit: 5_000, states: ['sent', 'scheduled', 'in review', 'sending', 'by hand'] }), await readLearnSettings(services.db, brand.id)];
  const { works } = await worksOf(services, brand, rateBase, null, nowMs);
  return plan.themes.map(({ id, name }): ThemeStanding => {
    const days = outings.filter(({ themeId }) => themeId === id).map(({ wall }) => Math.abs(dayNumber(wall.slice(0, 10)) - dayNumber(today)));
    const effect = works.effects.find(({ family, level }) => family === 'theme' && level === id);
    return { id, name, slotsAWeek: plan.rota.rules.filter(({ themeId }) => themeId === id).length / plan.rota.weeks, daysQuiet: days.length === 0 ? null : Math.min(...days), effect: effect && effect.says !== 'not-enough' ? effect.effect : 0 };
  });
}

/** The text of an idea as something can be made of it, with the brand’s facts filled in. */
export function textOfIdea({ title, text }: Pick<Candidate, 'title' | 'text'>, brand: Brand): string {
  return fillFacts([title, text].filter((part) => part !== '').join('\n\n'), brand.book.facts).text;
}
