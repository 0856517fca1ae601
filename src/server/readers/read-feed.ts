import { parseFeed } from 'feedsmith';
import { parseHTML } from 'linkedom';
import type { FeedItem } from '../../core/ideas/feed-rule.ts';
import { guessLanguage } from '../../core/write/guess-language.ts';
import { ProblemError } from '../errors.ts';

export interface ReadFeed {
  readonly title: string;
  /** Each once, the newest first. */
  readonly items: readonly FeedItem[];
}

const MAX_ITEMS = 200;
const [MAX_TITLE, MAX_SUMMARY, MAX_ADDRESS, MAX_GUID] = [200, 1_200, 1_500, 500];

/** What the four kinds of feeds call the same thing. */
interface AnyItem {
  readonly title?: unknown;
  readonly link?: unknown;
  readonly url?: unknown;
  readonly external_url?: unknown;
  readonly links?: readonly { readonly href?: string; readonly rel?: string }[];
  readonly guid?: { readonly value?: string };
  readonly id?: unknown;
  readonly description?: unknown;
  readonly summary?: unknown;
  readonly content?: unknown;
  readonly content_html?: unknown;
  readonly content_text?: unknown;
  readonly image?: unknown;
  readonly pubDate?: unknown;
  readonly published?: unknown;
  readonly updated?: unknown;
  readonly date_published?: unknown;
  readonly dc?: { readonly date?: unknown };
  readonly enclosures?: readonly { readonly url?: string; readonly type?: string }[];
  readonly attachments?: readonly { readonly url?: string; readonly mime_type?: string }[];
  readonly media?: { readonly contents?: readonly { readonly url?: string; readonly type?: string; readonly medium?: string }[]; readonly thumbnails?: readonly { readonly url?: string }[] };
}

/**
 * Reads RSS, RDF, Atom or JSON Feed. Markup of descriptions becomes text; items of one identifier are one.
 * @param nowMs the moment of an item that names none
 * @throws ProblemError 422 when it is no feed
 */
export function readFeed(text: string, address: string, nowMs: number): ReadFeed {
  // A feed has no need of entities of its own; those that have them mean harm.
  if (/<!ENTITY/iu.test(text.slice(0, 200_000))) throw new ProblemError(422, 'not-a-feed', 'This feed declares entities of its own, so it is not read.');
  let feed: { readonly title?: unknown; readonly items?: readonly AnyItem[]; readonly entries?: readonly AnyItem[] };
  try {
    ({ feed } = parseFeed(text) as { feed: typeof feed });
  } catch {
    throw new ProblemError(422, 'not-a-feed', 'This is no feed. RSS, Atom and JSON Feed are read.');
  }
  const seen = new Set<string>();
  const items = (feed.items ?? feed.entries ?? []).slice(0, MAX_ITEMS).flatMap((item): readonly FeedItem[] => {
    const read = itemOf(item, address, nowMs);
    if (!read || seen.has(read.guid)) return [];
    seen.add(read.guid);
    return [read];
  });
  return { title: plain(feed.title).slice(0, MAX_TITLE), items: items.toSorted((a, b) => b.publishedMs - a.publishedMs) };
}

function itemOf(item: AnyItem, address: string, nowMs: number): FeedItem | null {
  const html = [item.description, item.summary, item.content_html, item.content].map(markup).find((each) => each !== '') ?? '';
  const [title, link] = [plain(item.title).slice(0, MAX_TITLE), whole(linkOf(item), address)];
  const summary = (html === '' ? plain(item.content_text) : plain(html)).slice(0, MAX_SUMMARY);
  if (title === '' && summary === '') return null;
  const guid = (textOf(item.guid?.value) || textOf(item.id) || link || title).slice(0, MAX_GUID);
  const moment = [item.pubDate, item.published, item.date_published, item.updated, item.dc?.date].map((each) => (each instanceof Date ? each.getTime() : Date.parse(textOf(each)))).find((ms) => Number.isFinite(ms)) ?? nowMs;
  return { guid, title: title || summary.slice(0, 80), link, summary, picture: whole(pictureOf(item, html), address), language: guessLanguage(`${title}. ${summary}`), publishedMs: Math.min(moment, nowMs) };
}

const textOf = (value: unknown): string => (typeof value === 'string' ? value.trim() : '');

function markup(value: unknown): string {
  if (typeof value === 'string') return value;
  if (typeof value === 'object' && value !== null) {
    const known = value as { readonly value?: unknown; readonly encoded?: unknown };
    return textOf(known.value) || textOf(known.encoded);
  }
  return '';
}

function linkOf({ link, url, external_url, links }: AnyItem): string {
  return textOf(link) || textOf(url) || textOf(external_url) || (links?.find(({ rel }) => rel === undefined || rel === 'alternate')?.href ?? '');
}

function pictureOf({ image, enclosures, attachments, media }: AnyItem, html: string): string {
  const named = textOf(image) || (enclosures?.find(({ type }) => type?.startsWith('image/'))?.url ?? '') || (attachments?.find(({ mime_type }) => mime_type?.startsWith('image/'))?.url ?? '') || (media?.contents?.find(({ type, medium, url }) => type?.startsWith('image/') || medium === 'image' || /\.(?:jpe?g|png|webp)$/iu.test(url ?? ''))?.url ?? '') || (media?.thumbnails?.[0]?.url ?? '');
  if (named !== '' || !html.includes('<img')) return named;
  return parseHTML(`<body>${html}</body>`).document.querySelector('img')?.getAttribute('src') ?? '';
}

/** The text of markup: tags, scripts and styles gone. */
function plain(value: unknown): string {
  const html = markup(value);
  if (!/[<&]/u.test(html)) return html.replace(/\s+/gu, ' ').trim();
  const { document } = parseHTML(`<!doctype html><html><body>${html}</body></html>`);
  for (const element of document.querySelectorAll('script,style,iframe,object')) element.remove();
  return (document.body.textContent ?? '').replace(/\s+/gu, ' ').trim();
}

function whole(address: string, base: string): string {
  if (address === '' || !URL.canParse(address, base)) return '';
  const url = new URL(address, base);
  return url.protocol === 'https:' || url.protocol === 'http:' ? url.href.slice(0, MAX_ADDRESS) : '';
}

/** Addresses of feeds that a page names. */
export function feedsOfPage(html: string, address: string): readonly string[] {
  const { document } = parseHTML(html);
  return [...document.querySelectorAll('link[rel~="alternate"]')].filter((element) => /(?:rss|atom)\+xml|feed\+json/iu.test(element.getAttribute('type') ?? '')).map((element) => whole(element.getAttribute('href') ?? '', address)).filter((each) => each !== '');
}
