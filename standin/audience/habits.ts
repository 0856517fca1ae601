/** What a network counts and how its people behave. */
export interface Habits {
  /** Followers of a middling account. */
  readonly followers: number;
  /** Share of the followers that see a post; above 1 where strangers see it too. */
  readonly reach: number;
  /** How often each of them sees it. */
  readonly impressionsEach: number;
  /** Shares of those reached who do this; what is not named, the network does not count. */
  readonly rates: Readonly<Partial<Record<'reactions' | 'comments' | 'shares' | 'saves' | 'clicks', number>>>;
  /** Kinds of reactions and their shares of all. */
  readonly kinds: Readonly<Record<string, number>>;
  /** Hours in which most of the first rush comes. */
  readonly rushHours: number;
  /** Which of these it tells: reach, impressions, what people saw of carousels and of videos. */
  readonly tells: readonly ('reach' | 'impressions' | 'slides' | 'plays' | 'watched')[];
  /** What people can write there, and what an account may do about it. */
  readonly talk: Talk;
}

export interface Talk {
  readonly comments: boolean;
  readonly mentions: boolean;
  readonly messages: boolean;
  readonly hide: boolean;
  readonly remove: boolean;
  readonly maxAnswer: number;
}

const silent: Talk = { comments: false, mentions: false, messages: false, hide: false, remove: false, maxAnswer: 0 };
const open: Talk = { comments: true, mentions: true, messages: true, hide: true, remove: true, maxAnswer: 2200 };
const ONE_KIND = { like: 1 } as const;

export const habits: Readonly<Record<string, Habits>> = {
  petalry: { followers: 3_200, reach: 0.42, impressionsEach: 1.3, rates: { reactions: 0.045, comments: 0.0032, shares: 0.005, saves: 0.009 }, kinds: ONE_KIND, rushHours: 7, tells: ['reach', 'impressions', 'slides', 'plays', 'watched'], talk: open },
  hearthside: { followers: 2_100, reach: 0.36, impressionsEach: 1.4, rates: { reactions: 0.03, comments: 0.0042, shares: 0.006, clicks: 0.012 }, kinds: { like: 0.62, heart: 0.24, laugh: 0.08, wow: 0.06 }, rushHours: 9, tells: ['reach', 'impressions', 'plays', 'watched'], talk: { ...open, maxAnswer: 8000 } },
  quipline: { followers: 1_400, reach: 0.5, impressionsEach: 1.6, rates: { reactions: 0.018, comments: 0.0026, shares: 0.007, clicks: 0.009 }, kinds: ONE_KIND, rushHours: 2.5, tells: ['impressions', 'plays'], talk: { ...open, hide: false, remove: false, maxAnswer: 280 } },
  guildrow: { followers: 900, reach: 0.55, impressionsEach: 1.5, rates: { reactions: 0.028, comments: 0.003, shares: 0.004, saves: 0.004, clicks: 0.02 }, kinds: { like: 0.7, applause: 0.2, insight: 0.1 }, rushHours: 16, tells: ['reach', 'impressions', 'slides', 'plays'], talk: { ...open, messages: false, hide: false, maxAnswer: 1250 } },
  whirlo: { followers: 1_900, reach: 1.6, impressionsEach: 1.2, rates: { reactions: 0.05, comments: 0.002, shares: 0.008, saves: 0.006 }, kinds: ONE_KIND, rushHours: 10, tells: ['reach', 'plays', 'watched'], talk: { ...open, messages: false, maxAnswer: 150 } },
  tackboard: { followers: 1_100, reach: 1.1, impressionsEach: 1.2, rates: { saves: 0.02, comments: 0.0006, clicks: 0.014 }, kinds: {}, rushHours: 60, tells: ['impressions'], talk: { ...open, mentions: false, messages: false, hide: false, maxAnswer: 500 } },
  kerbside: { followers: 0, reach: 0, impressionsEach: 1.4, rates: { clicks: 0.03 }, kinds: {}, rushHours: 30, tells: ['impressions'], talk: { ...silent, messages: true, maxAnswer: 1500 } },
  longhall: { followers: 750, reach: 0.9, impressionsEach: 1.7, rates: { reactions: 0.024, comments: 0.0026 }, kinds: ONE_KIND, rushHours: 30, tells: ['impressions', 'plays', 'watched'], talk: { ...open, mentions: false, messages: false, maxAnswer: 10_000 } },
};

/** People who pass a listing without following it. */
export const PASSERS_BY = 620;
