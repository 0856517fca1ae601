/** An item of a feed. */
export interface FeedItem {
  readonly guid: string;
  readonly title: string;
  readonly link: string;
  readonly summary: string;
  /** Address of its picture; empty: it has none. */
  readonly picture: string;
  readonly language: string | null;
  readonly publishedMs: number;
}

/** What becomes of new items of a feed. */
export interface FeedRule {
  readonly channelIds: readonly string[];
  /** Null: the one that suits an item with or without a picture. */
  readonly templateKey: string | null;
  /** With `[title]`, `[summary]`, `[link]` and the brand’s facts. */
  readonly caption: string;
  /** The key of a button of the network’s; empty: none. */
  readonly button: string;
  readonly themeId: string | null;
  /** At most one in so many hours. */
  readonly everyHours: number;
  /** The newest alone, or what is there already from the oldest on. */
  readonly take: 'newest' | 'backlog';
  /** Of what is there already, so many at most. */
  readonly backlog: number;
  /** For a person to look at, or into the queue of its channels. */
  readonly as: 'draft' | 'queue';
}

export type FeedDecision =
  | { readonly kind: 'make'; readonly item: FeedItem; /** Older ones that are passed over for it. */ readonly passed: readonly FeedItem[] }
  | { readonly kind: 'wait' }
  /** The feed has turned strange: a person is asked. */
  | { readonly kind: 'stop'; readonly sentence: string };

const HOUR_MS = 3_600_000;
/** More new items than this at one reading are no ordinary day. */
const MAX_AT_ONCE = 20;
/** So many earlier items tell what is usual. */
const MIN_KNOWN = 5;
const MOST = 0.8;

/**
 * What a rule does with a feed now.
 * @param fresh items that no decision was taken on, the newest first
 * @param earlier items before those, by which it is told what is usual
 */
export function decideFeed({ rule, fresh, earlier, isFirst, lastMs, nowMs }: { readonly rule: Pick<FeedRule, 'everyHours' | 'take' | 'backlog'>; readonly fresh: readonly FeedItem[]; readonly earlier: readonly FeedItem[]; readonly isFirst: boolean; readonly lastMs: number | null; readonly nowMs: number }): FeedDecision {
  if (fresh.length === 0) return { kind: 'wait' };
  const strange = isFirst ? null : strangenessOf(fresh, earlier);
  if (strange !== null) return { kind: 'stop', sentence: strange };
  if (lastMs !== null && nowMs - lastMs < rule.everyHours * HOUR_MS) return { kind: 'wait' };
  const newest = fresh.toSorted((a, b) => b.publishedMs - a.publishedMs);
  if (rule.take === 'newest') {
    const [item, ...passed] = newest;
    return item ? { kind: 'make', item, passed } : { kind: 'wait' };
  }
  const kept = isFirst ? newest.slice(0, Math.max(1, rule.backlog)) : newest;
  const item = kept.at(-1);
  return item ? { kind: 'make', item, passed: newest.slice(kept.length) } : { kind: 'wait' };
}

/** What is strange about new items, in a sentence; null: nothing is. */
function strangenessOf(fresh: readonly FeedItem[], earlier: readonly FeedItem[]): string | null {
  if (fresh.length > MAX_AT_ONCE) return `The feed has ${fresh.length} new items at once. Look whether they are meant to go out.`;
  if (earlier.length < MIN_KNOWN) return null;
  const languages = earlier.flatMap(({ language }) => language ?? []);
  const usual = languages.toSorted((a, b) => languages.filter((each) => each === b).length - languages.filter((each) => each === a).length)[0];
  const share = languages.filter((each) => each === usual).length / Math.max(1, languages.length);
  const other = fresh.find(({ language }) => language !== null && language !== usual);
  if (usual !== undefined && other && languages.length >= MIN_KNOWN && share >= MOST) return `“${other.title}” is in another language than the feed was.`;
  const pictured = earlier.filter(({ picture }) => picture !== '').length / earlier.length;
  if (pictured >= MOST && fresh.length > 1 && fresh.every(({ picture }) => picture === '')) return 'The new items have no pictures, as the feed had before.';
  return null;
}

/** How long until a feed is read again: sooner where something new comes often, seldom where nothing does or it fails. */
export function nextPollMs({ hasNew, failures, sinceNewMs }: { readonly hasNew: boolean; readonly failures: number; readonly sinceNewMs: number }): number {
  if (failures > 0) return Math.min(24 * HOUR_MS, HOUR_MS * 2 ** Math.min(failures, 5));
  if (hasNew) return HOUR_MS / 2;
  return Math.max(HOUR_MS / 2, Math.min(6 * HOUR_MS, sinceNewMs / 24));
}
