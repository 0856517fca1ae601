/** The middle value of some measurements. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
}

/** The value that a share of the measurements does not exceed. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(sorted.length * share) - 1)] ?? Number.NaN;
}

/** Prints one figure; it is `ok` when it does not exceed its target. */
export function printFigure(name: string, value: number, target: number, unit = ''): void {
  process.stdout.write(`figure ${name} ${value.toFixed(2)}${unit} ${target}${unit} ${value <= target ? 'ok' : 'short'}\n`);
}

/** How long a work takes, in milliseconds. */
export async function timed(work: () => Promise<unknown>): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}
