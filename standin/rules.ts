/** What a stand-in network takes at one place, as the network itself sees it. */
export interface PlaceRule {
  readonly widthPx: number;
  readonly heightPx: number;
  /** How far, as a share, the shape may be off. */
  readonly shapeTolerance: number;
}

/** A stand-in network's own rules. They are kept apart from the sheets that Confetti has of them. */
export interface NetworkRules {
  readonly key: string;
  readonly name: string;
  readonly tint: string;
  readonly manner: 'draft-then-publish' | 'idempotency-key';
  readonly places: Readonly<Record<string, PlaceRule>>;
  readonly maxImageBytes: number;
  readonly mimes: readonly string[];
  /** The length of a text as this network counts it, and its limit. */
  readonly maxText: number;
  readonly countText: (text: string) => number;
  readonly maxHashtags: number | null;
  readonly maxAltText: number;
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });
const characters = (text: string): number => [...graphemes.segment(text)].length;

/** Links count 23; emoji and ideographs count two. */
function weighted(text: string): number {
  const link = /https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]}'’”]/giu;
  const links = text.match(link)?.length ?? 0;
  const wide = /\p{Extended_Pictographic}|\p{Regional_Indicator}|\p{Script=Han}|\p{Script=Hiragana}|\p{Script=Katakana}|\p{Script=Hangul}/u;
  return [...graphemes.segment(text.replace(link, ''))].reduce((sum, { segment }) => sum + (wide.test(segment) ? 2 : 1), links * 23);
}

const place = (widthPx: number, heightPx: number): PlaceRule => ({ widthPx, heightPx, shapeTolerance: 0.01 });
const PICTURES = ['image/jpeg', 'image/png', 'image/webp'] as const;
const MEBIBYTE = 1024 * 1024;

export const networks: readonly NetworkRules[] = [
  {
    key: 'petalry',
    name: 'Petalry',
    tint: '#7a4b8c',
    manner: 'draft-then-publish',
    places: { 'feed-square': place(1080, 1080), 'feed-portrait': place(1080, 1350), story: place(1080, 1920) },
    maxImageBytes: 8 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 2200,
    countText: characters,
    maxHashtags: 30,
    maxAltText: 1000,
  },
  {
    key: 'quipline',
    name: 'Quipline',
    tint: '#2f6b5b',
    manner: 'idempotency-key',
    places: { 'post-wide': place(1600, 900) },
    maxImageBytes: 5 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 280,
    countText: weighted,
    maxHashtags: null,
    maxAltText: 1000,
  },
];

/** Why a post is refused, or null when it is taken. */
export function refusalOf(rules: NetworkRules, post: { readonly placement: string; readonly text: string; readonly altText: string }, media: { readonly widthPx: number; readonly heightPx: number }): string | null {
  const rule = rules.places[post.placement];
  if (!rule) return `${rules.name} has no place called '${post.placement}'.`;
  const wanted = rule.widthPx / rule.heightPx;
  const shape = media.widthPx / media.heightPx;
  if (Math.abs(shape / wanted - 1) > rule.shapeTolerance) return `The picture is ${media.widthPx} × ${media.heightPx}; this place takes ${rule.widthPx}:${rule.heightPx}.`;
  if (media.widthPx < rule.widthPx / 2) return `The picture is only ${media.widthPx} pixels wide.`;
  const length = rules.countText(post.text);
  if (length > rules.maxText) return `The text has ${length} characters; the most is ${rules.maxText}.`;
  const hashtags = post.text.match(/#[\p{L}\p{N}_]+/gu)?.length ?? 0;
  if (rules.maxHashtags !== null && hashtags > rules.maxHashtags) return `The text has ${hashtags} hashtags; the most is ${rules.maxHashtags}.`;
  if (characters(post.altText) > rules.maxAltText) return `The alt text is longer than ${rules.maxAltText} characters.`;
  return null;
}
