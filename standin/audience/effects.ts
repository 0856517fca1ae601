/** What kind of thing a post shows. */
export type ShownKind = 'picture' | 'carousel' | 'video' | 'document' | 'text';

/** What of a post its audience responds to. */
export interface Traits {
  readonly kind: ShownKind;
  /** Pictures of a carousel, pages of a document; 1 for the rest. */
  readonly slides: number;
  /** On the clock of the account's audience. */
  readonly hour: number;
  /** 1 is Monday. */
  readonly weekday: number;
  readonly interest: Interest;
  readonly hasFirstComment: boolean;
  /** Whether the account has answered a comment within two hours of publishing. */
  readonly answeredEarly: boolean;
}

export type Interest = keyof typeof interests;

/** What posts are about, as their words show it; the first that matches counts. */
const interestWords = [
  ['skies', /your skies|tag us|line of sky|caught|owners|look up at nine/i],
  ['calm', /flat calm|which kite for which wind|fog|no wind|five winds/i],
  ['lanterns', /lights on the lines|friday, from dusk|lantern/i],
] as const;

export function interestOf(text: string): Interest {
  return interestWords.find(([, words]) => words.test(text))?.[0] ?? 'other';
}

const interests = { skies: 0.28, calm: -0.24, lanterns: 0.1, other: 0 } as const;

/**
 * The true effects, as logarithms of a factor on the rate of engagement. What is not named here has none: length of the
 * text, number of hashtags, faces, words on the picture, the account's network.
 */
export const effects = {
  kind: { picture: 0, carousel: 0.3, video: 0.16, document: 0.1, text: -0.12 },
  /** From so many slides on. */
  manySlides: { from: 6, effect: 0.22 },
  evening: { from: 17, until: 21, effect: 0.24 },
  early: { from: 5, until: 9, effect: -0.22 },
  weekday: { 2: -0.2, 7: 0.24 } as Readonly<Record<number, number>>,
  interests,
  firstComment: 0.18,
  answeredEarly: 0.2,
  /** Standard deviation of what makes each post its own. */
  noise: 0.16,
} as const;

/** The logarithm of the factor by which a post with these traits engages more than a plain one. */
export function engagementEffect({ kind, slides, hour, weekday, interest, hasFirstComment, answeredEarly }: Traits): number {
  const within = ({ from, until, effect }: { readonly from: number; readonly until: number; readonly effect: number }): number => (hour >= from && hour < until ? effect : 0);
  return (
    effects.kind[kind] +
    (kind !== 'video' && slides >= effects.manySlides.from ? effects.manySlides.effect : 0) +
    within(effects.evening) +
    within(effects.early) +
    (effects.weekday[weekday] ?? 0) +
    effects.interests[interest] +
    (hasFirstComment ? effects.firstComment : 0) +
    (answeredEarly ? effects.answeredEarly : 0)
  );
}
