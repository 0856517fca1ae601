/** A count as people read it at a glance: `940`, `1.4 k`, `18 k`, `2.1 M`. */
export function shortNumber(count: number): string {
  if (count >= 1_000_000) return `${(count / 1_000_000).toFixed(1)} M`;
  if (count >= 10_000) return `${Math.round(count / 1_000)} k`;
  return count >= 1_000 ? `${(count / 1_000).toFixed(1)} k` : String(count);
}
