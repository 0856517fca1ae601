import { undisturbed } from '../../src/server/jobs/job-handler.ts';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import ExcelJS from 'exceljs';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { articles } from '../fixtures/articles.ts';
import { docxBody, docxOf, pdfOf } from '../fixtures/office-files.ts';
import { findBrandBySlug } from '../../src/server/db/brand-repository.ts';
import { listRules } from '../../src/server/db/feed-repository.ts';
import { findJob } from '../../src/server/db/job-repository.ts';
import { gatherIdeas } from '../../src/server/ideas/gather-ideas.ts';
import { feedsHandler } from '../../src/server/ideas/poll-feeds.ts';
import { checkJob } from '../../src/server/ideas/tables/check-table.ts';
import { makeJobKey } from '../../src/server/ideas/tables/make-table.ts';
import { clearQueue, type Answer, type Client, signInAll, startStack, type Stack } from './stack.ts';
import { until } from '../fixtures/programs.ts';

let stack: Stack;
let people: ReadonlyMap<string, Client>;
let site: Server;
let siteOrigin: string;
const base = '/api/brands/gullwick';
const DAY_MS = 86_400_000;
/** What the made-up site answers by path; a path that is missing is not there. */
const pages = new Map<string, { readonly type: string; readonly body: string | Buffer; readonly etag?: string }>();
const asked: { path: string; headers: Readonly<Record<string, string | string[] | undefined>> }[] = [];

beforeAll(async () => {
  site = createServer((request, response) => {
    const path = request.url ?? '/';
    asked.push({ path, headers: request.headers });
    const page = pages.get(path);
    if (!page) return void response.writeHead(404).end();
    if (page.etag !== undefined && request.headers['if-none-match'] === page.etag) return void response.writeHead(304).end();
    response.writeHead(200, { 'content-type': page.type, ...(page.etag === undefined ? {} : { etag: page.etag }) }).end(page.body);
  });
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  siteOrigin = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
  stack = await startStack({ environment: { CONFETTI_TRUSTED_HOSTS: new URL(siteOrigin).host } });
  await clearQueue(stack);
  people = await signInAll(stack.origin, ['ottoline', 'wren', 'caspian', 'tove']);
});
afterAll(async () => {
  await stack.close();
  await new Promise((resolve) => site.close(resolve));
});

const as = (name: string): Client => people.get(name) ?? stack.wren;
const key = (): string => `test-${Math.random().toString(36).slice(2, 12)}`;
async function sendBytes(path: string, bytes: Uint8Array): Promise<Answer> {
  const response = await stack.wren.raw('POST', path, { body: bytes as Uint8Array<ArrayBuffer>, headers: { 'content-type': 'application/octet-stream' } });
  return { status: response.status, body: (await response.json()) as Answer['body'], headers: response.headers };
}
const rows = <Value>(answer: Answer, name: string): readonly Value[] => (answer.body as unknown as Record<string, readonly Value[]>)[name] ?? [];
async function ended(jobKey: string): Promise<string> {
  const state = async (): Promise<string> => (await findJob(stack.services.db, jobKey))?.state ?? 'waiting';
  await until(`the end of ${jobKey}`, async () => !['waiting', 'running'].includes(await state()));
  return state();
}

interface IdeaAnswer {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  readonly source: string;
  readonly day: string | null;
  readonly state: string;
  readonly slotKey: string | null;
  readonly channelIds: readonly string[];
  readonly uses: readonly { readonly kind: string; readonly subjectId: string }[];
}

describe('the shelf', () => {
  it('gets ideas of several kinds by itself, never more than was set for a week, each with where it comes from', async () => {
    const brand = await findBrandBySlug(stack.services.db, 'gullwick');
    if (!brand) throw new Error('no brand');
    await stack.services.db('ideas').where({ brand_id: brand.id }).whereNull('created_by').delete();
    const nowMs = await stack.services.clock.nowMs();
    const { perWeek } = (await as('wren').ask('GET', `${base}/idea-settings`)).body as unknown as { perWeek: number };
    const came = await gatherIdeas(stack.services, brand, nowMs);
    expect(came).toBeGreaterThan(5);
    expect(came + (await gatherIdeas(stack.services, brand, nowMs + 60_000))).toBeLessThanOrEqual(perWeek);
    const ideas = rows<IdeaAnswer>(await as('wren').ask('GET', `${base}/ideas`), 'items');
    expect(new Set(ideas.map(({ kind }) => kind)).size).toBeGreaterThanOrEqual(3);
    expect(ideas.every(({ source }) => source !== '')).toBe(true);
    expect(ideas.filter(({ kind }) => kind === 'date' || kind === 'gap').every(({ day }) => day !== null)).toBe(true);
  });

  it('keeps a note once for its key, finds it by its words, and sets it aside until a day', async () => {
    const body = { request: key(), title: 'A kite made of old maps', text: 'Ask the museum for lithographs', link: 'gullwickkites.example', mediaId: null, day: null, themeId: null };
    const [first, second] = await Promise.all([as('caspian').ask('POST', `${base}/ideas`, body), as('caspian').ask('POST', `${base}/ideas`, body)]);
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(first.body['id']).toBe(second.body['id']);
    expect(first.body['link']).toBe('https://gullwickkites.example');
    const id = String(first.body['id']);
    const found = async (query: string): Promise<readonly string[]> => rows<IdeaAnswer>(await as('wren').ask('GET', `${base}/ideas?${query}`), 'items').map((idea) => idea.id);
    expect(await found('words=lithogr')).toEqual([id]);
    expect(await found('words=zeppelin')).toEqual([]);
    expect((await as('wren').ask('PATCH', `${base}/ideas/${id}`, { event: 'snooze', until: '2020-01-01' })).status).toBe(422);
    const later = new Date((await stack.services.clock.nowMs()) + 3 * DAY_MS).toISOString().slice(0, 10);
    expect((await as('wren').ask('PATCH', `${base}/ideas/${id}`, { event: 'snooze', until: later })).body).toMatchObject({ state: 'snoozed', snoozedUntil: later });
    expect(await found('words=lithogr')).toEqual([]);
    expect((await as('wren').ask('PATCH', `${base}/ideas/${id}`, { event: 'restore' })).body).toMatchObject({ state: 'open' });
    expect((await as('wren').ask('PATCH', `${base}/ideas/${id}`, { event: 'restore' })).status).toBe(409);
  });

  it('makes a quote piece of a saying in one step, once, and remembers it', async () => {
    const brandId = (await findBrandBySlug(stack.services.db, 'gullwick'))?.id ?? '';
    await stack.services.db('ideas').insert({ id: 'saying-1', brand_id: brandId, kind: 'saying', idea_key: 'saying-test', title: 'You cannot rush glue.', state: 'open', score: 0.5, created_ms: Date.now() });
    const body = { request: key() };
    const made = await as('caspian').ask('POST', `${base}/ideas/saying-1/piece`, body);
    expect(made.status).toBe(201);
    expect((await as('caspian').ask('POST', `${base}/ideas/saying-1/piece`, body)).body).toEqual(made.body);
    const piece = (await as('wren').ask('GET', `${base}/pieces/${String(made.body['pieceId'])}`)).body as unknown as { document: { template: { key: string }; frames: { slots: Record<string, { text: string }> }[] } };
    expect([piece.document.template.key, piece.document.frames[0]?.slots['headline']?.text]).toEqual(['aside', 'You cannot rush glue.']);
    const [idea] = rows<IdeaAnswer>(await as('wren').ask('GET', `${base}/ideas?used=yes&kind=saying`), 'items');
    expect(idea?.uses).toEqual([expect.objectContaining({ kind: 'piece', subjectId: made.body['pieceId'] })]);
  });

  it('puts an idea into the plan as a placeholder, or into the notes of a theme', async () => {
    const gap = rows<IdeaAnswer>(await as('wren').ask('GET', `${base}/ideas?kind=gap`), 'items')[0];
    const note = (await as('wren').ask('POST', `${base}/ideas`, { request: key(), title: 'Something about wind socks', text: '', link: '', mediaId: null, day: null, themeId: null })).body as unknown as IdeaAnswer;
    const channels = rows<{ id: string }>(await as('wren').ask('GET', base), 'channels').map(({ id }) => id);
    const wall = `${new Date((await stack.services.clock.nowMs()) + 9 * DAY_MS).toISOString().slice(0, 10)}T11:20`;
    const plan = { request: key(), ...(gap?.slotKey ? { channelIds: gap.channelIds, slotKey: gap.slotKey, wall: null } : { channelIds: channels.slice(0, 1), wall, slotKey: null }) };
    const placed = await as('wren').ask('POST', `${base}/ideas/${note.id}/placeholder`, plan);
    expect(placed.status).toBe(201);
    // Pressed twice, it is one placeholder.
    const again = await as('wren').ask('POST', `${base}/ideas/${note.id}/placeholder`, plan);
    expect(again.body['entryId']).toBe(placed.body['entryId']);
    expect((await as('caspian').ask('POST', `${base}/ideas/${note.id}/placeholder`, { request: key(), channelIds: channels.slice(0, 1), wall, slotKey: null })).status).toBe(403);
    const { plan: kept } = (await as('wren').ask('GET', `${base}/plan`)).body as unknown as { plan: { themes: { id: string }[] } };
    const themeId = kept.themes[0]?.id ?? '';
    for (let press = 0; press < 2; press += 1) expect((await as('wren').ask('POST', `${base}/ideas/${note.id}/theme-note`, { themeId })).status).toBe(204);
    const after = (await as('wren').ask('GET', `${base}/plan`)).body as unknown as { plan: { themes: { id: string; note?: string }[] } };
    expect(after.plan.themes[0]?.note?.split('wind socks').length).toBe(2);
  });
});

const article = articles[0]?.text ?? '';
const source = (text: string, link = '') => ({ source: { name: 'the article', text, link }, topic: '', kinds: ['graphic', 'carousel'], themeId: null });

interface ProposalAnswer {
  readonly key: string;
  readonly form: string;
  readonly template: string;
  readonly kind: string;
  readonly variant: Readonly<Record<string, unknown>>;
  readonly traces: readonly { readonly text: string; readonly original: string; readonly how: string }[];
  readonly frames: readonly unknown[];
  readonly words: Readonly<Record<string, string>>;
  readonly themeId: string | null;
  readonly why: readonly string[];
}

describe('proposals', () => {
  it('are whole pieces of an article, and pieces once they are kept', async () => {
    const proposed = await as('caspian').ask('POST', `${base}/proposals`, { ...source(article, 'https://gullwickkites.example/bowls'), count: 4 });
    expect(proposed.status).toBe(200);
    const proposals = rows<ProposalAnswer>(proposed, 'proposals');
    expect(proposals.length).toBeGreaterThanOrEqual(3);
    for (const { traces } of proposals) for (const { how, original } of traces) if (how === 'whole' || how === 'shortened') expect(article.replaceAll(/\s+/gu, ' ')).toContain(original);
    const body = { request: key(), items: proposals.map((proposal) => ({ proposal, name: '', slotKey: null })), channelIds: [], ideaId: null, series: null };
    const [kept, again] = await Promise.all([as('caspian').ask('POST', `${base}/proposals/keep`, body), as('caspian').ask('POST', `${base}/proposals/keep`, body)]);
    expect([kept.status, again.status], JSON.stringify(kept.body)).toEqual([201, 201]);
    expect(again.body).toEqual(kept.body);
    const [pieceId] = rows<string>(kept, 'pieceIds');
    expect((await as('wren').ask('GET', `${base}/pieces/${pieceId ?? ''}`)).body).toMatchObject({ document: { words: { shared: { link: 'https://gullwickkites.example/bowls' } } } });
  });

  it('change as they are asked, and refuse what could not have been proposed here', async () => {
    const [first] = rows<ProposalAnswer>(await as('caspian').ask('POST', `${base}/proposals`, { ...source(article), count: 1 }), 'proposals');
    if (!first) throw new Error('no proposal');
    const other = (await as('caspian').ask('POST', `${base}/proposals/one`, { ...source(article), key: first.key, variant: { ...first.variant, template: 1 }, takenMedia: [] })).body as unknown as { proposal: ProposalAnswer | null };
    if (other.proposal) expect(other.proposal.key).toBe(first.key);
    const wrong = { request: key(), items: [{ proposal: { ...first, template: 'no-such' }, name: '', slotKey: null }], channelIds: [], ideaId: null, series: null };
    expect((await as('caspian').ask('POST', `${base}/proposals/keep`, wrong)).status).toBe(422);
    const broken = { ...wrong, request: key(), items: [{ proposal: { ...first, frames: [{ id: 'x', slots: { headline: { kind: 'picture', mediaId: 'of-another-brand' } } }] }, name: '', slotKey: null }] };
    expect((await as('caspian').ask('POST', `${base}/proposals/keep`, broken)).status).toBe(422);
  });

  it('of a series stand on the rota’s open slots as drafts, and belong together', async () => {
    const { parts } = (await as('wren').ask('POST', `${base}/proposals/series`, { ...source(article), days: 4, channelIds: [] })).body as unknown as { parts: { does: string; proposal: ProposalAnswer; slot: { key: string; wall: string; channelIds: string[] } | null }[] };
    expect(parts.map(({ does }) => does)).toEqual(['announces', 'tells', 'tells', 'sums-up']);
    const walls = parts.flatMap(({ slot }) => slot?.wall ?? []);
    expect(walls).toEqual(walls.toSorted());
    const kept = await as('wren').ask('POST', `${base}/proposals/keep`, { request: key(), items: parts.map(({ proposal, slot }) => ({ proposal, name: '', slotKey: slot?.key ?? null })), channelIds: [], ideaId: null, series: 'Tea bowls' });
    expect(kept.status).toBe(201);
    const pieceIds = rows<string>(kept, 'pieceIds');
    const { series } = (await as('wren').ask('GET', `${base}/pieces/${pieceIds[1] ?? ''}/series`)).body as unknown as { series: { name: string; pieces: { id: string }[]; entryIds: string[] } };
    expect([series.name, series.pieces.map(({ id }) => id), series.entryIds.length]).toEqual(['Tea bowls', pieceIds, Number(kept.body['planned'])]);
    const moved = await as('wren').ask('POST', `${base}/plan/changes`, { postIds: [], entryIds: series.entryIds, change: { kind: 'shift', days: 2 } });
    expect(moved.body).toMatchObject({ done: series.entryIds.length, problems: [] });
  });

  it('are made of documents and pages: DOCX, PDF, subtitles, an address', async () => {
    expect((await sendBytes(`${base}/idea-sources?name=a.docx`, docxOf(docxBody('The kiln stood cold for nine days.')))).body).toMatchObject({ text: 'The kiln stood cold for nine days.' });
    expect((await sendBytes(`${base}/idea-sources?name=a.pdf`, await pdfOf(['Forty lanterns hung from the', 'rail, and none went out.']))).body).toMatchObject({ text: 'Forty lanterns hung from the rail, and none went out.' });
    const empty = await PDFDocument.create();
    empty.addPage([200, 200]);
    expect(await sendBytes(`${base}/idea-sources?name=scan.pdf`, await empty.save())).toMatchObject({ status: 422, body: { code: 'no-text' } });
    expect((await sendBytes(`${base}/idea-sources?name=v.srt`, Buffer.from('1\n00:00:00,500 --> 00:00:02,000\nIt burns\n\n2\n00:00:02,100 --> 00:00:04,000\nsince four.\n'))).body).toMatchObject({ text: 'It burns since four.' });
    expect((await sendBytes(`${base}/idea-sources?name=x.bin`, Buffer.from([1, 0, 2, 0, 3]))).status).toBe(422);
    pages.set('/article', { type: 'text/html', body: `<html><head><title>Late bowls</title></head><body><article><h1>Late bowls</h1>${'<p>The kiln in Hollow Lane stood cold for nine days in October, and nobody fired anything at all.</p>'.repeat(4)}</article></body></html>` });
    expect((await as('caspian').ask('POST', `${base}/idea-sources/address`, { address: `${siteOrigin}/article` })).body).toMatchObject({ name: 'Late bowls', link: `${siteOrigin}/article` });
    expect((await as('caspian').ask('POST', `${base}/idea-sources/address`, { address: 'http://10.0.0.1/secret' })).status).toBe(422);
  });
});

const feedXml = (items: readonly { readonly title: string; readonly guid: string; readonly picture?: string }[]): string =>
  `<?xml version="1.0"?><rss version="2.0"><channel><title>Kite news</title><link>${siteOrigin}/</link>${items.map(({ title, guid, picture }) => `<item><title>${title}</title><link>${siteOrigin}/${guid}</link><guid isPermaLink="false">${guid}</guid><pubDate>${new Date(Date.now() - 3_600_000).toUTCString()}</pubDate><description><![CDATA[<p>About <b>${title}</b>.</p><script>alert(1)</script>]]></description>${picture ? `<enclosure url="${picture}" type="image/png"/>` : ''}</item>`).join('')}</channel></rss>`;

describe('feeds', () => {
  it('are found from the address of a site, read politely, and cleaned of markup', async () => {
    pages.set('/', { type: 'text/html', body: '<html><head><link rel="alternate" type="application/rss+xml" href="/news.xml"></head><body>Hello</body></html>' });
    pages.set('/news.xml', { type: 'application/rss+xml', body: feedXml([{ title: 'A red kite', guid: 'a1' }, { title: 'The same again', guid: 'a1' }]), etag: '"v1"' });
    const added = await as('caspian').ask('POST', `${base}/feeds`, { address: `${siteOrigin}/` });
    expect(added).toMatchObject({ status: 201, body: { name: 'Kite news', address: `${siteOrigin}/news.xml`, items: [{ title: 'A red kite' }] } });
    expect((await as('caspian').ask('POST', `${base}/feeds`, { address: `${siteOrigin}/news.xml` })).status).toBe(409);
    asked.length = 0;
    expect((await as('caspian').ask('POST', `${base}/feeds/${String(added.body['id'])}/poll`, {})).body).toEqual({ fresh: 0 });
    expect(asked.find(({ path }) => path === '/news.xml')?.headers['if-none-match']).toBe('"v1"');
    const summaries: string[] = await stack.services.db('feed_items').pluck('summary');
    expect(summaries.join()).not.toMatch(/<|alert/);
  });

  it.each([
    ['a page without a feed', '/none', 'text/html', '<html><body>Nothing</body></html>', /names no feed/],
    ['entities of its own', '/bomb.xml', 'application/xml', '<?xml version="1.0"?><!DOCTYPE lolz [<!ENTITY lol "lol"><!ENTITY lol2 "&lol;&lol;&lol;&lol;">]><rss version="2.0"><channel><title>&lol2;</title></channel></rss>', /declares entities/],
    ['20 MB', '/large.xml', 'application/xml', Buffer.alloc(20 * 1024 * 1024, 'x'), /larger than 5 MB/],
    ['no feed at all', '/data.xml', 'application/xml', '<something/>', /This is no feed/],
  ])('%s is refused with a sentence', async (_, path, type, body, sentence) => {
    pages.set(path, { type, body });
    const answer = await as('caspian').ask('POST', `${base}/feeds`, { address: `${siteOrigin}${path}` });
    expect(answer.status).toBe(422);
    expect(String(answer.body['title'])).toMatch(sentence);
  });

  it('become drafts by a rule, one at a time and once each, and stop when the feed turns strange', async () => {
    const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#369' } }).png().toBuffer();
    pages.set('/p.png', { type: 'image/png', body: picture });
    pages.set('/rule.xml', { type: 'application/rss+xml', body: feedXml([{ title: 'First of all', guid: 'r1', picture: `${siteOrigin}/p.png` }, { title: 'Second of all', guid: 'r2', picture: `${siteOrigin}/missing.png` }]) });
    const feedId = String((await as('wren').ask('POST', `${base}/feeds`, { address: `${siteOrigin}/rule.xml` })).body['id']);
    const channels = rows<{ id: string; network: string }>(await as('wren').ask('GET', base), 'channels');
    const ruleId = key();
    const settings = { channelIds: [channels.find(({ network }) => network === 'petalry')?.id ?? ''], templateKey: null, caption: '[title]\n\n[summary]\n\n[link]', button: '', themeId: null, everyHours: 0, take: 'backlog', backlog: 2, as: 'draft' };
    expect((await as('caspian').ask('POST', `${base}/feed-rules`, { id: ruleId, feedId, settings, isOn: true })).status).toBe(403);
    expect((await as('wren').ask('POST', `${base}/feed-rules`, { id: ruleId, feedId, settings, isOn: true })).status).toBe(204);
    const handler = feedsHandler(stack.services);
    const round = (): Promise<unknown> => handler.run({} as never, undisturbed);
    await Promise.all([round(), round()]);
    await round();
    const acts = async (): Promise<{ outcome: string; sentence: string; pieceId: string | null }[]> => ((await as('wren').ask('GET', `${base}/feeds`)).body as unknown as { rules: { id: string; acts: { outcome: string; sentence: string; pieceId: string | null }[] }[] }).rules.find(({ id }) => id === ruleId)?.acts ?? [];
    const done = await acts();
    expect(done.map(({ outcome }) => outcome)).toEqual(['made', 'made']);
    expect(done.some(({ sentence }) => sentence.includes('Without its picture'))).toBe(true);
    const entries: number[] = await stack.services.db('plan_entries').whereIn('piece_id', done.flatMap(({ pieceId }) => pieceId ?? [])).pluck('due_ms');
    expect(entries).toHaveLength(2);
    await round();
    expect(await acts()).toHaveLength(2);
    pages.set('/rule.xml', { type: 'application/rss+xml', body: feedXml(Array.from({ length: 60 }, (_, index) => ({ title: `Flood ${index}`, guid: `f${index}` }))) });
    await as('wren').ask('POST', `${base}/feeds/${feedId}/poll`, {});
    await round();
    const brandId = (await findBrandBySlug(stack.services.db, 'gullwick'))?.id ?? '';
    expect((await listRules(stack.services.db, { brandId })).find(({ id }) => id === ruleId)?.stopped).toMatch(/60 new items at once/);
    expect(await acts()).toHaveLength(2);
  });

  it('may be a channel of the brand’s own: what is posted there by hand becomes a draft for others, what Confetti sent does not', async () => {
    const { db } = stack.services;
    const channels = rows<{ id: string; network: string }>(await as('wren').ask('GET', base), 'channels');
    const own = channels.find(({ network }) => network === 'quipline')?.id ?? '';
    const brandId = (await findBrandBySlug(db, 'gullwick'))?.id ?? '';
    const nowMs = await stack.services.clock.nowMs();
    await db('publications').insert({ id: 'by-hand-1', brand_id: brandId, channel_id: own, remote_id: 'hand-1', address: 'https://quipline.example/p/hand-1', published_ms: nowMs, title: 'A gust took the shop sign. We want it back.' });
    expect((await as('tove').ask('POST', `${base}/channel-feeds`, { channelId: own })).status).toBe(403);
    expect((await as('caspian').ask('POST', `${base}/channel-feeds`, { channelId: 'nowhere' })).status).toBe(404);
    const feed = await as('caspian').ask('POST', `${base}/channel-feeds`, { channelId: own });
    expect(feed).toMatchObject({ status: 201, body: { channelId: own } });
    expect((await as('caspian').ask('POST', `${base}/channel-feeds`, { channelId: own })).status).toBe(409);
    const items: { guid: string }[] = await db('feed_items').where({ feed_id: feed.body['id'] }).select('guid');
    const outside: string[] = await db('publications').where({ channel_id: own }).whereNull('delivery_id').whereNot('title', '').pluck('remote_id');
    expect(items.map(({ guid }) => guid).sort()).toEqual(outside.sort());
    const ruleId = key();
    const settings = { channelIds: [channels.find(({ network }) => network === 'hearthside')?.id ?? ''], templateKey: null, caption: '[title]', button: '', themeId: null, everyHours: 0, take: 'newest', backlog: 1, as: 'draft' };
    await as('wren').ask('POST', `${base}/feed-rules`, { id: ruleId, feedId: feed.body['id'], settings, isOn: true });
    await feedsHandler(stack.services).run({} as never, undisturbed);
    const [act] = ((await as('wren').ask('GET', `${base}/feeds`)).body as unknown as { rules: { id: string; acts: { title: string; outcome: string; pieceId: string | null }[] }[] }).rules.find(({ id }) => id === ruleId)?.acts.filter(({ outcome }) => outcome === 'made') ?? [];
    expect(act).toMatchObject({ title: 'A gust took the shop sign. We want it back.' });
    const piece = (await as('wren').ask('GET', `${base}/pieces/${act?.pieceId ?? ''}`)).body as unknown as { document: { words: { shared: { caption: string } } } };
    expect(piece.document.words.shared.caption).toBe('A gust took the shop sign. We want it back.');
    expect(await db('ideas').where({ brand_id: brandId, kind: 'feed' }).where('title', 'like', 'A gust took%').first('id')).toBeUndefined();
  });
});

interface TableAnswer {
  readonly table: { readonly id: string; readonly mapping: Readonly<Record<string, number>>; readonly settings: Readonly<Record<string, unknown>>; readonly ambiguous: readonly string[]; readonly counts: Readonly<Record<string, number>> };
  readonly known: number;
  readonly fresh: number;
}

const ahead = async (days: number): Promise<string> => new Date((await stack.services.clock.nowMs()) + days * DAY_MS).toISOString().slice(0, 10);
async function upload(text: string | Uint8Array, name = 'posts.csv'): Promise<TableAnswer> {
  const answer = await sendBytes(`${base}/post-tables?name=${encodeURIComponent(name)}`, typeof text === 'string' ? Buffer.from(text) : text);
  expect(answer.status, JSON.stringify(answer.body)).toBe(201);
  return answer.body as unknown as TableAnswer;
}

describe('a table of posts', () => {
  const line = async (days: number, headline: string, caption: string): Promise<string> => `${await ahead(days)};09:40;Petalry;"${headline}";"${caption}"`;

  it('is read, its faults stand in their cells, and a mended cell is right at once', async () => {
    const { table } = await upload(['Datum;Uhrzeit;Kanal;Überschrift;Text', await line(20, 'Sixty lanterns', 'One tide table.'), `31.02.2027;12:00;Petalry;Ein Tag, den es nicht gibt;Text`, `${await ahead(21)};25:10;Petaly;Zu spät;Text`].join('\r\n'), 'faults.csv');
    expect(table.mapping).toEqual({ date: 0, time: 1, channels: 2, headline: 3, caption: 4 });
    expect(table.counts).toMatchObject({ rows: 3, faulty: 2 });
    const list = rows<{ number: number; faults: { field: string; fix: { value: string } | null }[] }>(await as('wren').ask('GET', `${base}/post-tables/${table.id}/rows`), 'rows');
    expect(list.map(({ faults }) => faults.map(({ field }) => field))).toEqual([[], ['date'], ['time', 'channels']]);
    const mended = await as('wren').ask('PATCH', `${base}/post-tables/${table.id}/rows/3`, { cells: { time: '18 Uhr', channels: 'Petalry' } });
    expect(mended.body).toMatchObject({ number: 3, wall: `${await ahead(21)}T18:00` });
    expect((mended.body as unknown as { faults: { severity: string }[] }).faults.filter(({ severity }) => severity === 'stops')).toEqual([]);
  });

  it('is checked with the reports of its cuts, made as drafts, and updated by a second upload without doubling', async () => {
    const text = async (caption: string): Promise<string> => ['Date;Time;Channels;Headline;Caption', await line(25, 'Kites with long tails', caption), await line(26, 'A reel that never jams', 'Wound by hand.')].join('\n');
    const { table } = await upload(await text('Five metres of tail.'), 'twice.csv');
    await as('wren').ask('POST', `${base}/post-tables/${table.id}/check`, {});
    expect(await ended(checkJob(table.id, '').key)).toBe('done');
    expect((await as('caspian').ask('POST', `${base}/post-tables/${table.id}/make`, { schedule: true })).status).toBe(403);
    await as('caspian').ask('POST', `${base}/post-tables/${table.id}/make`, { schedule: false });
    expect(await ended(makeJobKey(table.id))).toBe('done');
    const made = rows<{ pieceId: string | null; isChanged: boolean }>(await as('wren').ask('GET', `${base}/post-tables/${table.id}/rows`), 'rows');
    const pieceIds = made.map(({ pieceId }) => pieceId ?? '');
    expect(new Set(pieceIds).size).toBe(2);
    expect(await stack.services.db('plan_entries').whereIn('piece_id', pieceIds).pluck('wall')).toHaveLength(2);
    const second = await upload(await text('Six metres of tail.'), 'twice.csv');
    expect([second.table.id, second.known, second.fresh]).toEqual([table.id, 2, 0]);
    const after = rows<{ pieceId: string | null; isChanged: boolean }>(await as('wren').ask('GET', `${base}/post-tables/${table.id}/rows`), 'rows');
    expect(after.map(({ pieceId, isChanged }) => [pieceId, isChanged])).toEqual([[pieceIds[0], true], [pieceIds[1], false]]);
    await as('caspian').ask('POST', `${base}/post-tables/${table.id}/make`, { schedule: false });
    expect(await ended(makeJobKey(table.id))).toBe('done');
    expect((await as('wren').ask('GET', `${base}/pieces/${pieceIds[0] ?? ''}`)).body).toMatchObject({ document: { words: { shared: { caption: 'Six metres of tail.' } } } });
    expect(await stack.services.db('plan_entries').whereIn('piece_id', pieceIds).pluck('wall')).toHaveLength(2);
  });

  it('is scheduled when a person says so, and a row a channel is one post', async () => {
    const { table } = await upload(['Key,Date,Time,Channels,Headline,Caption', `k1,${await ahead(27)},10:10,Petalry,One kite,For petalry`, `k1,${await ahead(27)},10:10,Hearthside,One kite,For hearthside`].join('\n'), 'together.csv');
    await as('wren').ask('POST', `${base}/post-tables/${table.id}/make`, { schedule: true });
    expect(await ended(makeJobKey(table.id))).toBe('done');
    const list = rows<{ pieceId: string | null; faults: { sentence: string }[] }>(await as('wren').ask('GET', `${base}/post-tables/${table.id}/rows`), 'rows');
    expect(list[0]?.pieceId).toBe(list[1]?.pieceId);
    const document = ((await as('wren').ask('GET', `${base}/pieces/${list[0]?.pieceId ?? ''}`)).body as unknown as { document: { words: { shared: { caption: string }; own: Record<string, { caption?: string }> } } }).document;
    expect([document.words.shared.caption, Object.values(document.words.own).map(({ caption }) => caption)]).toEqual(['For petalry', ['For hearthside']]);
  });

  it('asks once about dates that can be read in two ways', async () => {
    const { table } = await upload('Date,Headline\n3/12/2027,A kite\n4/12/2027,Another kite', 'ambiguous.csv');
    expect(table.ambiguous).toEqual(['3/12/2027', '4/12/2027']);
    const said = await as('wren').ask('PATCH', `${base}/post-tables/${table.id}`, { mapping: table.mapping, settings: { ...table.settings, order: 'day-first' } });
    expect(said.body).toMatchObject({ ambiguous: [], counts: { faulty: 0 } });
    expect(await ended(checkJob(table.id, '').key)).toBe('done');
    // The next table with these columns is read the same way.
    expect((await upload('Date,Headline\n5/12/2027,A third kite', 'other.csv')).table.settings['order']).toBe('day-first');
  });

  it('comes from a spreadsheet too, with its dates, and from a pasted one', async () => {
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Posts');
    sheet.addRow(['Date', 'Headline', 'Caption']);
    sheet.addRow([new Date(`${await ahead(40)}T00:00:00Z`), 'From a sheet', { formula: '1+1', result: 2 }]);
    const { table } = await upload(new Uint8Array(await workbook.xlsx.writeBuffer()), 'sheet.xlsx');
    const [row] = rows<{ wall: string; cells: Record<string, string> }>(await as('wren').ask('GET', `${base}/post-tables/${table.id}/rows`), 'rows');
    expect([row?.wall, row?.cells['caption']]).toEqual([`${await ahead(40)}T09:00`, '2']);
    expect((await as('wren').ask('POST', `${base}/post-tables/paste`, { name: 'pasted', text: `Headline\tCaption\nPasted\tYes` })).status).toBe(201);
  });

  it('that is stopped half-way leaves nothing half made', async () => {
    const lines = await Promise.all(Array.from({ length: 120 }, (_, index) => line(30 + (index % 20), `Kite number ${index}`, `Caption ${index}`)));
    const { table } = await upload(['Date;Time;Channels;Headline;Caption', ...lines].join('\n'), 'stopped.csv');
    const before = Number((await stack.services.db('pieces').where({ shelf: 'use' }).count({ count: '*' }).first())?.['count'] ?? 0);
    await as('wren').ask('POST', `${base}/post-tables/${table.id}/make`, { schedule: false });
    const made = async (): Promise<number> => Number((await stack.services.db('post_table_rows').where({ table_id: table.id }).whereNotNull('piece_id').count({ count: '*' }).first())?.['count'] ?? 0);
    await until('the first pieces', async () => (await made()) > 2);
    await as('wren').ask('POST', `${base}/post-tables/${table.id}/cancel`, {});
    await until('taking them back', async () => (await made()) === 0);
    expect(Number((await stack.services.db('pieces').where({ shelf: 'use' }).count({ count: '*' }).first())?.['count'] ?? 0)).toBe(before);
  });

  it.each([
    ['50,000 rows', `A;B\n${'x;y\n'.repeat(50_000)}`, /50,000 rows; at most 5,000/],
    ['no rows', 'Date;Headline', /no rows/],
    ['bytes of something else', Buffer.from([0, 1, 2, 0, 5, 0]), /no table/],
  ])('of %s is refused with a sentence', async (_, bytes, sentence) => {
    const answer = await sendBytes(`${base}/post-tables?name=bad.csv`, typeof bytes === 'string' ? Buffer.from(bytes) : bytes);
    expect(answer.status).toBe(422);
    expect(String(answer.body['title'])).toMatch(sentence);
  });

  it('can be downloaded to fill in, with the brand’s channels', async () => {
    const csv = await (await stack.wren.raw('GET', `${base}/post-table-form?as=csv`)).text();
    expect(csv).toContain('Channels');
    const workbook = new ExcelJS.Workbook();
    await workbook.xlsx.load(await (await stack.wren.raw('GET', `${base}/post-table-form?as=xlsx`)).arrayBuffer());
    expect(workbook.worksheets[0]?.getCell('A1').value).toBe('Key');
  });
});

describe('a plan for open slots', () => {
  it('says why each stands where it stands, and is taken once', async () => {
    for (const template of ['aside', 'tally', 'bill', 'thanks']) await as('caspian').ask('POST', `${base}/pieces`, { template });
    const proposed = await as('wren').ask('POST', `${base}/plan/proposal`, { days: 28, channelIds: [], without: [] });
    expect(proposed.status).toBe(200);
    const placings = rows<{ slotKey: string; channelIds: string[]; candidate: { id: string; kind: string }; why: string[]; next: { id: string }[] }>(proposed, 'placings');
    expect(placings.length).toBeGreaterThan(2);
    expect(placings.every(({ why }) => why.length > 0)).toBe(true);
    const [first] = placings;
    const without = (await as('wren').ask('POST', `${base}/plan/proposal`, { days: 28, channelIds: [], without: [first?.candidate.id ?? ''] })).body as unknown as { placings: { candidate: { id: string } }[] };
    expect(without.placings.some(({ candidate }) => candidate.id === first?.candidate.id)).toBe(false);
    const body = { request: key(), items: placings.slice(0, 3).map(({ slotKey, channelIds, candidate }) => ({ slotKey, channelIds, candidateId: candidate.id })) };
    expect((await as('caspian').ask('POST', `${base}/plan/proposal/take`, body)).status).toBe(403);
    const taken = await as('wren').ask('POST', `${base}/plan/proposal/take`, body);
    expect(Number(taken.body['drafts']) + Number(taken.body['placeholders'])).toBe(body.items.length);
    expect((await as('wren').ask('POST', `${base}/plan/proposal/take`, body)).body).toEqual(taken.body);
    const second = await as('wren').ask('POST', `${base}/plan/proposal/take`, { ...body, request: key() });
    expect(second.body).toMatchObject({ drafts: 0, placeholders: 0 });
  });
});

describe('many files, boilerplates, a quick post', () => {
  async function pictures(count: number): Promise<readonly string[]> {
    const ids: string[] = [];
    for (let index = 0; index < count; index += 1) {
      const bytes = await sharp({ create: { width: index % 2 === 0 ? 1200 : 700, height: index % 2 === 0 ? 700 : 1200, channels: 3, background: { r: 40 * index, g: 90, b: 120 } } }).jpeg().withExif({ IFD2: { DateTimeOriginal: '2026:08:02 10:00:00' } }).toBuffer();
      ids.push(String((await stack.wren.upload('gullwick', `red-tail_${index}.jpg`, bytes)).body['id']));
    }
    return ids;
  }

  it('become a piece each, with captions by a pattern, spread over the queue, once', async () => {
    const mediaIds = await pictures(4);
    const body = { request: key(), mediaIds, as: 'each', templates: ['band', 'headland', 'arch'], caption: '[number]. [name], [date]', themeId: null, channelIds: [], spread: 'queue' };
    const made = await as('wren').ask('POST', `${base}/pieces/from-files`, body);
    expect(made.body).toMatchObject({ planned: 4, notes: [] });
    expect((await as('wren').ask('POST', `${base}/pieces/from-files`, body)).body).toEqual(made.body);
    const [pieceId] = rows<string>(made, 'pieceIds');
    expect((await as('wren').ask('GET', `${base}/pieces/${pieceId ?? ''}`)).body).toMatchObject({ document: { words: { shared: { caption: '1. Red tail 0, 2 August 2026' } } } });
    const carousel = await as('wren').ask('POST', `${base}/pieces/from-files`, { ...body, request: key(), as: 'carousel', templates: ['sheaf'], spread: 'none' });
    expect(rows<string>(carousel, 'pieceIds')).toHaveLength(1);
    expect((await as('wren').ask('POST', `${base}/pieces/from-files`, { ...body, request: key(), as: 'video', spread: 'none' })).status).toBe(422);
  });

  it('a boilerplate asks for its fill-ins and begins a piece at its usual time', async () => {
    const piece = (await as('wren').ask('POST', `${base}/pieces`, { template: 'aside' })).body as unknown as { id: string; revision: number };
    await as('wren').ask('PATCH', `${base}/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: 'Wind: [force]' } }, { op: 'replace', path: '/words/shared/caption', value: 'From the [direction], {site}' }] });
    const kept = await as('caspian').ask('POST', `${base}/boilerplates`, { pieceId: piece.id, name: 'Wind report', usual: { weekday: 3, time: '08:00' } });
    expect(kept.body).toMatchObject({ asks: ['force', 'direction'] });
    const begun = await as('wren').ask('POST', `${base}/boilerplates/${String(kept.body['id'])}/pieces`, { request: key(), values: [{ name: 'force', value: '5' }, { name: 'direction', value: 'west' }], plan: true });
    expect(begun.status).toBe(201);
    expect(begun.body['dueMs']).toEqual(expect.any(Number));
    expect((await as('wren').ask('GET', `${base}/pieces/${String(begun.body['pieceId'])}`)).body).toMatchObject({ document: { words: { shared: { caption: 'From the west, {site}' } } } });
  });

  it('a quick post goes into the next slot, or is kept with the reason why it does not', async () => {
    const channels = rows<{ id: string; network: string }>(await as('wren').ask('GET', base), 'channels');
    const petalry = channels.find(({ network }) => network === 'petalry')?.id ?? '';
    const body = { request: key(), words: 'The door is open until nine tonight.', mediaId: null, channelIds: [petalry], when: 'next-slot' };
    const posted = await as('wren').ask('POST', `${base}/quick-posts`, body);
    expect(posted.status).toBe(201);
    expect((await as('wren').ask('POST', `${base}/quick-posts`, body)).body).toEqual(posted.body);
    if (posted.body['kind'] === 'piece') expect(posted.body['sentence']).toEqual(expect.any(String));
    expect((await as('caspian').ask('POST', `${base}/quick-posts`, { ...body, request: key() })).status).toBe(403);
    expect((await as('caspian').ask('POST', `${base}/quick-posts`, { ...body, request: key(), when: 'draft' })).body).toMatchObject({ kind: 'piece' });
  });
});
