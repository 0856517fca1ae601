import { DateTime } from 'luxon';
import type { ReportBlock } from '../../core/results/report-pages.ts';
import type { Report, ReportPart } from '../../core/results/report.ts';
import type { ReportData } from './gather-report.ts';

/** A picture of a post as it went out, for the report. */
export interface ReportPicture {
  readonly pictureId: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

const SHOWN_BEST = 6;
const SHOWN_EFFECTS = 12;
const SHOWN_LINKS = 20;

/** A report's parts as blocks to be set. `pictures`: by the id of the post. */
export function reportBlocks(report: Report, brandName: string, data: ReportData, pictures: ReadonlyMap<string, ReportPicture>): readonly ReportBlock[] {
  return [{ kind: 'title', title: report.name, line: `${brandName}, ${spanWords(data.from, data.until)}, beside ${spanWords(data.overview.besideFrom, data.overview.besideUntil)}` }, ...report.parts.flatMap((part) => blocksOf[part](data, pictures))];
}

const dayWords = (day: string): string => DateTime.fromISO(day, { zone: 'UTC', locale: 'en-GB' }).toFormat('d LLL yyyy');
/** `2 to 29 Nov 2026`, with months and years where they differ. */
function spanWords(from: string, until: string): string {
  const [first, last] = [DateTime.fromISO(from, { zone: 'UTC', locale: 'en-GB' }), DateTime.fromISO(until, { zone: 'UTC', locale: 'en-GB' })];
  return `${first.toFormat(first.year !== last.year ? 'd LLL yyyy' : first.month !== last.month ? 'd LLL' : 'd')} to ${last.toFormat('d LLL yyyy')}`;
}
const whole = new Intl.NumberFormat('en-GB');
const count = (value: number | null): string => (value === null ? '—' : whole.format(Math.round(value)));
const rate = (value: number | null): string => (value === null ? '—' : `${(value * 100).toFixed(1)}%`);
const signed = (value: number): string => `${value > 0 ? '+' : value < 0 ? '−' : ''}${Math.abs(Math.round(value * 100))}%`;
const change = (now: number | null, before: number | null, show: (value: number | null) => string): string => (now === null || before === null || before === 0 ? '' : `${signed(now / before - 1)} from ${show(before)}`);
const hours = (ms: number): string => (ms < 3_600_000 ? `${Math.max(1, Math.round(ms / 60_000))} min` : `${(ms / 3_600_000).toFixed(1)} h`);

const blocksOf: Readonly<Record<ReportPart, (data: ReportData, pictures: ReadonlyMap<string, ReportPicture>) => readonly ReportBlock[]>> = {
  totals: ({ overview: { now, beside }, rateBase }) => [
    {
      kind: 'figures',
      figures: [
        { name: 'Posts', value: count(now.posts), change: change(now.posts, beside.posts, count) },
        { name: 'Reach', value: count(now.reach), change: change(now.reach, beside.reach, count) },
        { name: 'Engagement', value: count(now.engagement), change: change(now.engagement, beside.engagement, count) },
        { name: `Rate by ${rateBase}`, value: rate(now.rate), change: change(now.rate, beside.rate, rate) },
        { name: 'Clicks', value: count(now.clicks), change: change(now.clicks, beside.clicks, count) },
        { name: 'Followers', value: count(now.followers), change: change(now.followers, beside.followers, count) },
      ],
    },
  ],
  followers({ overview: { days } }) {
    const known = days.flatMap(({ followers }) => followers ?? []);
    if (known.length < 2) return [{ kind: 'heading', text: 'Followers', about: 'The networks have told none for these days.' }];
    return [{ kind: 'heading', text: 'Followers', about: 'Of all accounts, day by day' }, { kind: 'line', points: days.map(({ followers }) => followers), labels: days.map(({ day }) => dayWords(day)), low: count(Math.min(...known)), high: count(Math.max(...known)) }];
  },
  accounts: ({ overview: { accounts }, channelName }) => [
    { kind: 'heading', text: 'Accounts', about: '' },
    { kind: 'table', head: ['Account', 'Posts', 'Reach', 'Engagement', 'Rate', 'Followers'], rows: accounts.filter(({ now }) => now.posts > 0 || now.followers !== null).map(({ channelId, now }) => [channelName(channelId), count(now.posts), count(now.reach), count(now.engagement), rate(now.rate), count(now.followers)]) },
  ],
  best({ posts, channelName }, pictures) {
    const best = posts.filter((post) => post.rate !== null).slice(0, SHOWN_BEST);
    if (best.length === 0) return [{ kind: 'heading', text: 'Best posts', about: 'No post of these days has figures.' }];
    return [
      { kind: 'heading', text: 'Best posts', about: 'By rate of engagement' },
      { kind: 'pictures', pictures: best.map((post) => ({ ...(pictures.get(post.id) ?? { pictureId: '', widthPx: 1, heightPx: 1 }), title: post.title, line: `${rate(post.rate)} · ${channelName(post.channelId)}` })) },
    ];
  },
  works({ effects, comparedPosts }) {
    if (effects.length === 0) return [{ kind: 'heading', text: 'What works', about: `No difference in ${comparedPosts} posts of a year is clear enough to name.` }];
    return [
      { kind: 'heading', text: 'What works', about: `Engagement against the average of ${comparedPosts} posts of a year, three days after sending, with the 90% interval. These are differences, not causes.` },
      { kind: 'bars', bars: effects.slice(0, SHOWN_EFFECTS).map(({ name, effect, low, high }) => ({ name, value: signed(effect), low, middle: effect, high })) },
    ];
  },
  replies: ({ answers }) => [
    { kind: 'heading', text: 'Replies', about: answers.length === 0 ? 'Nobody was answered in these days.' : 'How long the first answer took' },
    ...(answers.length === 0 ? [] : [{ kind: 'table' as const, head: ['Account', 'Half within', '9 of 10 within', 'Answers'], rows: answers.map(({ name, medianMs, ninetiethMs, count: answered }) => [name, hours(medianMs), hours(ninetiethMs), count(answered)]) }]),
  ],
  links: ({ links }) => [
    { kind: 'heading', text: 'Links', about: links.length === 0 ? 'No short link was clicked in these days.' : 'Clicks of people; bots apart' },
    ...(links.length === 0 ? [] : [{ kind: 'table' as const, head: ['Leads to', 'Clicks', 'Bots'], rows: links.toSorted((a, b) => b.people - a.people).slice(0, SHOWN_LINKS).map(({ target, people, bots }) => [target.replace(/^https?:\/\//, ''), count(people), count(bots)]) }]),
  ],
};
