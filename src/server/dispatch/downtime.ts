import type { Clock } from '../clock.ts';
import type { Db } from '../db/connection.ts';

/** A time, by the product's clock, in which nothing was sent because no worker ran. */
export interface Downtime {
  readonly fromMs: number;
  readonly toMs: number;
}

/** Signs of life are written this often; without one for longer than the gap, nothing ran. */
export const SIGN_OF_LIFE_MS = 30_000;
const MAX_GAP_MS = 120_000;
const MAX_KEPT = 50;
const KEY = 'worker-life';

interface Life {
  readonly machineMs: number;
  readonly productMs: number;
  readonly downtimes: readonly Downtime[];
}

async function readLife(db: Db): Promise<Life | null> {
  const row: { value: string } | undefined = await db('settings').where({ key: KEY }).first('value');
  return row ? (JSON.parse(row.value) as Life) : null;
}

/**
 * Notes that a worker runs. Moving the product's clock is no downtime: that is measured by the machine's clock.
 */
export async function noteAlive(db: Db, clock: Clock): Promise<void> {
  const [machineMs, productMs] = [clock.machineNowMs(), await clock.nowMs()];
  const last = await readLife(db);
  const wasDown = last !== null && machineMs - last.machineMs > MAX_GAP_MS;
  const downtimes = [...(last?.downtimes ?? []), ...(wasDown ? [{ fromMs: last.productMs, toMs: productMs }] : [])].slice(-MAX_KEPT);
  await db('settings').insert({ key: KEY, value: JSON.stringify({ machineMs, productMs, downtimes } satisfies Life) }).onConflict('key').merge(['value']);
}

/** The downtime that a moment fell into; null when something ran then. */
export async function downtimeAt(db: Db, atMs: number): Promise<Downtime | null> {
  return (await readLife(db))?.downtimes.findLast(({ fromMs, toMs }) => fromMs < atMs && atMs <= toMs) ?? null;
}
