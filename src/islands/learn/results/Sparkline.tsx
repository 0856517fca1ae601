const [WIDTH, HEIGHT] = [64, 18];

/** A small line of values over time; what it shows stands as figures beside it. */
export function Sparkline({ values }: { readonly values: readonly number[] }) {
  if (values.length < 2) return null;
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const points = values.map((value, index) => `${((index / (values.length - 1)) * WIDTH).toFixed(1)},${(HEIGHT - 2 - ((value - low) / Math.max(1, high - low)) * (HEIGHT - 4)).toFixed(1)}`);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width={WIDTH} height={HEIGHT} aria-hidden className="shrink-0">
      <polyline points={points.join(' ')} fill="none" stroke="var(--c-house)" strokeWidth="1.5" strokeLinejoin="round" />
    </svg>
  );
}
