import { DateTime } from 'luxon';
import { addDays } from '../../core/time/day.ts';
import { answerTimes } from '../../core/replies/answer-times.ts';
import { levelName } from '../../core/results/features.ts';
import { measureKeys, measures, type RateBase } from '../../core/results/measures.ts';
import type { Report } from '../../core/results/report.ts';
import { listChannelsEver, type Brand } from '../db/brand-repository.ts';
import { listAnswered } from '../db/conversation-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { pagePublications, type ResultsFilter } from '../db/results-repository.ts';
import { listLinks, sumClicks } from '../db/short-link-repository.ts';
import { listTemplates } from '../db/template-repository.ts';
import { momentsOf, overviewOf, periodsOf } from '../results/overview.ts';
import { postRows } from '../results/post-rows.ts';
import { worksOf } from '../results/works.ts';
import type { Services } from '../services.ts';

/** Posts that a report lists, the best first. */
const MAX_POSTS = 1_000;
const MAX_LINKS = 200;
const MAX_ANSWERED = 20_000;

/** All that a report is made of, whatever its form. */
export type ReportData = Awaited<ReturnType<typeof gatherReport>>;

/** Gathers the figures of a report: of the days before today, beside as many before them. */
export async function gatherReport(services: Pick<Services, 'db' | 'clock'>, brand: Brand, report: Report, nowMs: number) {
  const { db } = services;
  const today = DateTime.fromMillis(nowMs, { zone: brand.zone }).toISODate() ?? '';
  const [until, from] = [addDays(today, -1), addDays(today, -report.days)];
  const { rateBase } = await readLearnSettings(db, brand.id);
  const filter = { channelIds: report.channels.length === 0 ? undefined : report.channels, themeId: report.themeId ?? undefined };
  const overview = await overviewOf(services, brand, periodsOf(from, until, 'before'), filter, rateBase);
  const whole: ResultsFilter = { ...filter, ...momentsOf(from, until, brand.zone) };
  const posts = await postRows(db, brand.id, await pagePublications(db, brand.id, whole, { sort: 'rate', descending: true, base: rateBase, offset: 0, limit: MAX_POSTS }), rateBase);
  const names = new Map([...(await listTemplates(db, brand.id)).map(({ key, name }): [string, string] => [key, name]), ...(await getPlan(db, brand.id)).plan.themes.map(({ id, name }): [string, string] => [id, name])]);
  // A few weeks say little of what works: that is of a year, for the same channels and theme.
  const { works, outcomes } = await worksOf(services, brand, rateBase, { ...filter, ...momentsOf(addDays(today, -365), until, brand.zone) }, nowMs);
  const channels = new Map((await listChannelsEver(db, brand.id)).map(({ id, name }) => [id, name]));
  const answered = (await listAnswered(db, brand.id, whole.fromMs, MAX_ANSWERED)).filter(({ channelId }) => report.channels.length === 0 || report.channels.includes(channelId));
  const clicks = new Map((await sumClicks(db, brand.id, { from, until }, 'link_clicks.code')).map((each) => [each.key, each]));
  return {
    from,
    until,
    rateBase: rateBase satisfies RateBase,
    overview,
    posts,
    channelName: (id: string): string => channels.get(id) ?? 'A channel of before',
    themeName: (id: string | null): string => (id === null ? '' : (names.get(id) ?? id)),
    effects: works.effects.filter(({ says }) => says === 'more' || says === 'less').map((effect) => ({ ...effect, name: `Posts ${levelName(effect.family, effect.level, names)}` })),
    comparedPosts: outcomes.length,
    answers: answerTimes(answered, 'channel', brand.zone).map((each) => ({ ...each, name: channels.get(each.key) ?? '' })),
    links: (await listLinks(db, brand.id, MAX_LINKS)).map(({ code, target }) => ({ code, target, people: clicks.get(code)?.people ?? 0, bots: clicks.get(code)?.bots ?? 0 })).filter(({ people }) => people > 0),
  };
}

/** Every figure of the posts as rows of a table, with its head. */
export function postTable(data: ReportData, zone: string): { readonly head: readonly string[]; readonly rows: readonly (readonly (string | number | null)[])[] } {
  return {
    head: ['Published', 'Post', 'Channel', 'Format', 'Slides', 'Theme', ...measureKeys.map((key) => measures[key].name), 'Engagement', 'Rate', 'Rate by', 'Address'],
    rows: data.posts.map((post) => [DateTime.fromMillis(post.publishedMs, { zone }).toFormat('yyyy-MM-dd HH:mm'), post.title, data.channelName(post.channelId), post.format ?? '', post.slides, data.themeName(post.themeId), ...measureKeys.map((key) => post.figures[key] ?? null), post.engagement, post.rate, post.rateBase ?? '', post.address]),
  };
}
