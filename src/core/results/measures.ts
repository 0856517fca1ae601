/** What networks count of a post. A measure that a network does not give is missing, never zero. */
export const measures = {
  impressions: { name: 'Impressions', about: 'How often the post was shown.' },
  reach: { name: 'Reach', about: 'How many people saw the post.' },
  reactions: { name: 'Reactions', about: 'Likes and every other kind of reaction.' },
  comments: { name: 'Comments', about: 'Comments of other people.' },
  shares: { name: 'Shares', about: 'How often people passed the post on.' },
  saves: { name: 'Saves', about: 'How often people kept the post.' },
  clicks: { name: 'Clicks', about: 'Clicks on the link of the post.' },
  plays: { name: 'Plays', about: 'How often the video began.' },
} as const satisfies Readonly<Record<string, { readonly name: string; readonly about: string }>>;

export type MeasureKey = keyof typeof measures;

export const measureKeys = Object.keys(measures) as readonly MeasureKey[];

/** What engagement is the sum of. */
export const engagementKeys = ['reactions', 'comments', 'shares', 'saves'] as const satisfies readonly MeasureKey[];

/** Figures of a post by measure; parts of them, as `slide.3` or `watched.50`, stand beside. */
export type Figures = Readonly<Partial<Record<string, number>>>;

/** What the rate of engagement is measured by: a brand's own choice. */
export type RateBase = 'reach' | 'impressions';

/** Reactions, comments, shares and saves together; null where the network counts none of them. */
export function engagementOf(figures: Figures): number | null {
  const counted = engagementKeys.flatMap((key) => figures[key] ?? []);
  return counted.length === 0 ? null : counted.reduce((sum, each) => sum + each, 0);
}

/** A rate, and what it was measured by: where a network gives only the other base, by that. */
export interface Rate {
  readonly rate: number;
  readonly base: RateBase;
}

/** The rate of engagement, in [0, …); null where the network gives neither base, or nobody saw the post yet. */
export function rateOf(figures: Figures, wanted: RateBase): Rate | null {
  const engagement = engagementOf(figures);
  const base = [wanted, wanted === 'reach' ? ('impressions' as const) : ('reach' as const)].find((each) => figures[each] !== undefined);
  const seen = base === undefined ? 0 : (figures[base] ?? 0);
  return engagement === null || base === undefined || seen <= 0 ? null : { rate: engagement / seen, base };
}
