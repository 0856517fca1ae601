/** What a sender asks to be shown. */
export interface Entry {
  readonly network: string;
  readonly handle: string;
  readonly mediaId: string;
  readonly placement: string;
  readonly text: string;
  readonly altText: string;
  readonly title: string;
  readonly link: string;
  readonly firstComment: string;
  /** What follows the first picture of a carousel, in order, as JSON: `[{ mediaId, altText }]`. */
  readonly more: string;
  /** What goes along with a video, as JSON: `{ coverId, coverAtMs, subtitlesId }`, each where there is one. */
  readonly along: string;
  /** What else it says, as JSON: see details.ts. */
  readonly details: string;
  /** What it shows where its files are not kept, as JSON: `{ kind, slides }`. */
  readonly shows: string;
}

/** A video's cover, a picture or a moment of it, and its subtitles. */
export interface Along {
  readonly coverId?: string;
  readonly coverAtMs?: number;
  readonly subtitlesId?: string;
}

export function alongOf({ along }: Pick<Entry, 'along'>): Along {
  return JSON.parse(along) as Along;
}

/** One picture of a post. */
export interface Shown {
  readonly mediaId: string;
  readonly altText: string;
}

/** Pictures with their alt texts, as far as what was sent names any. */
export function readShown(given: unknown): readonly Shown[] {
  if (!Array.isArray(given)) return [];
  return given.flatMap((each: unknown) => (typeof each === 'object' && each !== null && 'mediaId' in each ? [{ mediaId: String(each.mediaId), altText: 'altText' in each ? String(each.altText) : '' }] : []));
}

/** Everything that a post shows, in order. */
export function shownIn({ mediaId, altText, more }: Pick<Entry, 'mediaId' | 'altText' | 'more'>): readonly [Shown, ...Shown[]] {
  return [{ mediaId, altText }, ...(JSON.parse(more) as Shown[])];
}

export interface Draft extends Entry {
  readonly id: string;
  readonly postId: string | null;
}

export interface Post extends Entry {
  readonly id: string;
  readonly name: string;
  readonly publishedMs: number;
}
