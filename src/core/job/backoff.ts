/** First wait, longest wait and number of attempts of a job. */
export const FIRST_WAIT_MS = 2_000;
export const MAX_WAIT_MS = 15 * 60_000;
export const MAX_ATTEMPTS = 8;

/**
 * How long to wait before the next attempt: doubling, capped, spread by half so that many jobs do not come back at once.
 * A network's own wish (Retry-After) is a floor.
 * @param attempt attempts made so far, from 1
 * @param seed a number in [0, 1) that spreads
 * @returns milliseconds
 */
export function backoffMs(attempt: number, seed: number, retryAfterMs: number | null): number {
  const full = Math.min(MAX_WAIT_MS, FIRST_WAIT_MS * 2 ** (attempt - 1));
  return Math.max(retryAfterMs ?? 0, Math.round(full * (0.5 + seed / 2)));
}

/** A number in [0, 1) that differs between jobs and attempts but not between runs. */
export function spreadOf(id: string, attempt: number): number {
  let sum = attempt * 7;
  for (const letter of id) sum = (sum * 31 + letter.charCodeAt(0)) % 1009;
  return sum / 1009;
}
