import { gammaln } from 'simple-statistics';

/** One of the versions that are tried against each other: how many saw it, and how many did something. */
export interface Arm {
  readonly id: string;
  readonly seen: number;
  readonly engaged: number;
  readonly posts: number;
}

export interface ArmStanding {
  readonly id: string;
  /** The mean of its rate, and the 90% interval. */
  readonly rate: number;
  readonly low: number;
  readonly high: number;
  /** The chance that it is the best, in [0, 1]. */
  readonly leads: number;
  /** What is lost on average by keeping it, as a share of its rate. */
  readonly loss: number;
}

export interface ExperimentStanding {
  readonly arms: readonly ArmStanding[];
  readonly leader: string;
  /** The loss of the leader is small enough to keep it. */
  readonly isDecided: boolean;
  /** Posts that are still wanted, as far as the figures so far tell; 0 when it is decided. */
  readonly postsWanted: number;
}

/** An experiment ends when keeping the leader loses less than this share of its rate on average. */
export const MAX_LOSS = 0.02;
/** No version is kept before each has had so many posts. */
export const MIN_POSTS_EACH = 3;
/** Points on which the distributions are laid out. */
const GRID = 400;
/** Spread that posts of one version have beside chance, as a share of their rate squared: people are not drawn one by one. */
const POST_SPREAD = 0.2 ** 2;
const MAX_POSTS_WANTED = 200;

/**
 * Compares versions by their rates, each a beta distribution. What posts differ by beyond chance makes the counts worth less.
 * The rule holds however often one looks: a decision by expected loss does not depend on when it is taken.
 * @see Gelman et al., Bayesian Data Analysis (2013), ch. 2.4
 * @throws RangeError with fewer than two arms
 */
export function compareArms(arms: readonly Arm[]): ExperimentStanding {
  if (arms.length < 2) throw new RangeError('An experiment has at least two versions');
  const shapes = arms.map(shapeOf);
  const top = Math.max(...shapes.map(({ a, b }) => Math.min(1, a / (a + b) + 6 * deviation(a, b))));
  const points = Array.from({ length: GRID }, (_, index) => ((index + 0.5) / GRID) * top);
  const densities = shapes.map(({ a, b }) => normalised(points.map((x) => Math.exp(logBeta(x, a, b)))));
  const below = densities.map((density) => {
    let sum = 0;
    return density.map((each) => (sum += each) - each / 2);
  });
  const standings = arms.map(({ id }, index): ArmStanding => {
    const density = densities[index] ?? [];
    const { a, b } = shapes[index] ?? { a: 1, b: 1 };
    const others = below.filter((_, other) => other !== index);
    const leads = density.reduce((sum, each, at) => sum + each * others.reduce((product, cumulated) => product * (cumulated[at] ?? 0), 1), 0);
    return { id, rate: a / (a + b), low: quantile(points, density, 0.05), high: quantile(points, density, 0.95), leads, loss: lossOf(index, points, densities, below) / (a / (a + b)) };
  });
  const leader = standings.reduce((best, each) => (each.loss < best.loss ? each : best));
  const isDecided = leader.loss < MAX_LOSS && arms.every(({ posts }) => posts >= MIN_POSTS_EACH);
  return { arms: standings, leader: leader.id, isDecided, postsWanted: isDecided ? 0 : Math.max(postsWanted(arms, leader.loss), arms.reduce((sum, { posts }) => sum + Math.max(0, MIN_POSTS_EACH - posts), 0)) };
}

function shapeOf({ seen, engaged, posts }: Arm): { readonly a: number; readonly b: number } {
  const rate = (engaged + 0.5) / (seen + 1);
  // The variance of the mean rate: chance, and what posts differ by.
  const variance = (rate * (1 - rate)) / Math.max(1, seen) + (POST_SPREAD * rate ** 2) / Math.max(1, posts);
  const worth = Math.max(2, (rate * (1 - rate)) / variance - 1);
  return { a: rate * worth, b: (1 - rate) * worth };
}

const deviation = (a: number, b: number): number => Math.sqrt((a * b) / ((a + b) ** 2 * (a + b + 1)));

const logBeta = (x: number, a: number, b: number): number => (a - 1) * Math.log(x) + (b - 1) * Math.log1p(-x) + gammaln(a + b) - gammaln(a) - gammaln(b);

function normalised(values: readonly number[]): readonly number[] {
  const total = values.reduce((sum, each) => sum + each, 0);
  return values.map((each) => each / total);
}

function quantile(points: readonly number[], density: readonly number[], share: number): number {
  let sum = 0;
  for (const [index, each] of density.entries()) {
    sum += each;
    if (sum >= share) return points[index] ?? 0;
  }
  return points.at(-1) ?? 0;
}

/** What is lost on average by keeping one arm: how far the best of the others lies above it, where it does. */
function lossOf(index: number, points: readonly number[], densities: readonly (readonly number[])[], below: readonly (readonly number[])[]): number {
  const own = densities[index] ?? [];
  const others = below.filter((_, other) => other !== index);
  const bestBelow = points.map((_, at) => others.reduce((product, cumulated) => product * (cumulated[at] ?? 0), 1));
  // E[max(best - own, 0)] is the integral over x of P(best > x) P(own < x).
  let [sum, ownBelow] = [0, 0];
  for (const [at, each] of own.entries()) {
    sum += (1 - (bestBelow[at] ?? 0)) * (ownBelow + each / 2);
    ownBelow += each;
  }
  return sum * ((points[1] ?? 0) - (points[0] ?? 0));
}

/** The loss falls about with the root of the posts. */
function postsWanted(arms: readonly Arm[], loss: number): number {
  const posts = arms.reduce((sum, each) => sum + each.posts, 0);
  return Math.min(MAX_POSTS_WANTED, Math.max(1, Math.ceil(Math.max(2, posts) * ((loss / MAX_LOSS) ** 2 - 1))));
}
