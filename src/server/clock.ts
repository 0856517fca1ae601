import type { Db } from './db/connection.ts';
import { readClockOffsetMs } from './db/clock-repository.ts';

/** The two clocks: the product's, which the demo can move, and the machine's, by which leases and waits are measured. */
export interface Clock {
  nowMs(): Promise<number>;
  machineNowMs(): number;
}

export function productClock(db: Db): Clock {
  return {
    nowMs: async () => Date.now() + (await readClockOffsetMs(db)),
    machineNowMs: () => Date.now(),
  };
}
