import { normal, share } from './chance.ts';
import { effects, engagementEffect, type Traits } from './effects.ts';
import { PASSERS_BY, habits, type Habits } from './habits.ts';

export type Figures = Readonly<Record<string, number>>;

/** A post as its audience meets it. */
export interface Met {
  readonly network: string;
  readonly handle: string;
  readonly postId: string;
  readonly publishedMs: number;
  /** What its chance is drawn from; its id, unless a tester has given it another one. */
  readonly seed: string;
  readonly traits: Traits;
}

const HOUR_MS = 3_600_000;
/** What comes after the first rush, over days. */
const LATE_SHARE = 0.25;
const LATE_HOURS = 60;

/** The share of all that will ever come that has come by an age, in [0, 1). */
export function growth(ageHours: number, rushHours: number): number {
  if (ageHours <= 0) return 0;
  return (1 - LATE_SHARE) * (1 - Math.exp(-ageHours / rushHours)) + LATE_SHARE * (1 - Math.exp(-ageHours / LATE_HOURS));
}

/** The age in hours at which a share of all has come: `growth` turned around. */
export function ageAt(wanted: number, rushHours: number): number {
  let [low, high] = [0, 24 * 90];
  for (let step = 0; step < 50; step += 1) {
    const middle = (low + high) / 2;
    if (growth(middle, rushHours) < wanted) low = middle;
    else high = middle;
  }
  return high;
}

/** Followers of an account, which differ by account and grow by a seventh of a percent a day. */
export function followersAt(network: string, handle: string, nowMs: number, epochMs: number): number {
  const habit = habits[network];
  if (!habit || habit.followers === 0) return 0;
  const own = Math.exp(normal(`${network} ${handle} followers`) * 0.25);
  const days = Math.max(0, (nowMs - epochMs) / (24 * HOUR_MS));
  return Math.round(habit.followers * own * (1 + days / 700) + Math.sin(days / 3) * 4);
}

/** How many people a post reaches in the end. */
function reachOf({ network, seed, publishedMs, handle }: Met, habit: Habits, epochMs: number): number {
  const public_ = habit.followers === 0 ? PASSERS_BY : followersAt(network, handle, publishedMs, epochMs) * habit.reach;
  return public_ * Math.exp(normal(`${seed} reach`) * 0.3);
}

/** How many times each thing will be done in the end. */
export function finalCounts(met: Met, epochMs: number): Readonly<Record<string, number>> {
  const habit = habits[met.network];
  if (!habit) return {};
  const reach = reachOf(met, habit, epochMs);
  const factor = Math.exp(engagementEffect(met.traits) + normal(`${met.seed} engagement`) * effects.noise);
  const done = Object.fromEntries(Object.entries(habit.rates).map(([name, rate]) => [name, reach * rate * factor]));
  return { reach, impressions: reach * habit.impressionsEach, ...done };
}

/** What a network has counted for a post by a moment. Whole numbers that never shrink. */
export function figuresAt(met: Met, nowMs: number, epochMs: number): Figures {
  const habit = habits[met.network];
  if (!habit) return {};
  const grown = growth((nowMs - met.publishedMs) / HOUR_MS, habit.rushHours);
  const counted = Object.fromEntries(Object.entries(finalCounts(met, epochMs)).map(([name, final]) => [name, Math.floor(final * grown)]));
  const { reach = 0, impressions = 0, ...done } = counted;
  return {
    ...(habit.tells.includes('reach') ? { reach } : {}),
    ...(habit.tells.includes('impressions') ? { impressions } : {}),
    ...done,
    ...reactionKinds(done['reactions'] ?? 0, habit.kinds),
    ...(habit.tells.includes('slides') && met.traits.slides > 1 ? slideFigures(met, reach) : {}),
    ...(met.traits.kind === 'video' ? watchFigures(met, habit, reach) : {}),
  };
}

function reactionKinds(reactions: number, kinds: Habits['kinds']): Figures {
  return Object.keys(kinds).length < 2 ? {} : Object.fromEntries(Object.entries(kinds).map(([kind, part]) => [`reactions.${kind}`, Math.floor(reactions * part)]));
}

/** People who came as far as each slide: fewer from slide to slide, and some stop at one of them. */
function slideFigures({ seed, traits }: Met, reach: number): Figures {
  const stop = 2 + Math.floor(share(`${seed} stop`) * Math.max(1, traits.slides - 2));
  let there = reach;
  return Object.fromEntries(
    Array.from({ length: traits.slides }, (_, index) => {
      if (index > 0) there *= index === stop ? 0.72 : 0.9 + share(`${seed} slide ${index}`) * 0.06;
      return [`slide.${index + 1}`, Math.floor(there)];
    }),
  );
}

function watchFigures({ seed }: Met, habit: Habits, reach: number): Figures {
  const plays = Math.floor(reach * 1.15);
  const hold = 0.55 + share(`${seed} hold`) * 0.25;
  const watched = Object.fromEntries([25, 50, 75, 100].map((part, index) => [`watched.${part}`, Math.floor(plays * hold ** (index + 1))]));
  return { ...(habit.tells.includes('plays') ? { plays } : {}), ...(habit.tells.includes('watched') ? watched : {}) };
}
