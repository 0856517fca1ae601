/** What is usual for posts of a channel and format, from posts that came before. */
export type Usual =
  | { readonly kind: 'usual'; readonly low: number; readonly middle: number; readonly high: number; readonly count: number }
  /** There are not enough earlier posts to say. */
  | { readonly kind: 'too-few'; readonly count: number };

export const MIN_FOR_USUAL = 8;
const HALF_LIFE_DAYS = 90;

/** One earlier post: its value at the age that is compared, and how many days before it was published. */
export interface EarlierValue {
  readonly value: number;
  readonly daysBefore: number;
}

/** The 10th, 50th and 90th percentile of earlier posts; a post weighs half as much for every 90 days that it is older. */
export function usualOf(earlier: readonly EarlierValue[]): Usual {
  if (earlier.length < MIN_FOR_USUAL) return { kind: 'too-few', count: earlier.length };
  const weighted = earlier.map(({ value, daysBefore }) => ({ value, weight: 0.5 ** (daysBefore / HALF_LIFE_DAYS) })).toSorted((a, b) => a.value - b.value);
  return { kind: 'usual', low: percentile(weighted, 0.1), middle: percentile(weighted, 0.5), high: percentile(weighted, 0.9), count: earlier.length };
}

/** Where a value stands in what is usual. */
export function standingOf(value: number, usual: Usual): 'above' | 'within' | 'below' | null {
  if (usual.kind === 'too-few') return null;
  if (value > usual.high) return 'above';
  return value < usual.low ? 'below' : 'within';
}

/** A weighted percentile, between the middles of the weights; equal weights give Hazen's definition. */
function percentile(sorted: readonly { readonly value: number; readonly weight: number }[], share: number): number {
  const total = sorted.reduce((sum, { weight }) => sum + weight, 0);
  let passed = 0;
  let before: { readonly value: number; readonly at: number } | null = null;
  for (const { value, weight } of sorted) {
    const at = (passed + weight / 2) / total;
    if (at >= share) return before === null ? value : before.value + ((value - before.value) * (share - before.at)) / (at - before.at);
    before = { value, at };
    passed += weight;
  }
  return before?.value ?? 0;
}
