import type { Logger } from 'pino';
import { changesAfter, latestSeq, type Change } from '../db/change-repository.ts';
import type { Db } from '../db/connection.ts';

/** How often the log is looked at while somebody listens: soon enough to feel live. */
const LOOK_EVERY_MS = 250;
const LOOK_AFTER_FAULT_MS = 2_000;
const BATCH = 500;

type Listener = (changes: readonly Change[]) => void;

/** Reads the change log for everybody in this process: one query a look, however many views are open. */
export class ChangeFeed {
  readonly #listeners = new Map<string, Set<Listener>>();
  #seq: number | null = null;
  #timer: NodeJS.Timeout | null = null;
  #isLooking = false;

  constructor(
    readonly db: Db,
    readonly log: Pick<Logger, 'error'>,
  ) {}

  /** Hears of every change of a brand from now on, until the answered function is called. */
  async listen(brandId: string, listener: Listener): Promise<() => void> {
    // What happened before is in what the listener loads.
    this.#seq ??= await latestSeq(this.db);
    const listeners = this.#listeners.get(brandId) ?? new Set();
    this.#listeners.set(brandId, listeners.add(listener));
    this.#lookIn(LOOK_EVERY_MS);
    return () => {
      listeners.delete(listener);
      if (listeners.size === 0 && this.#listeners.get(brandId) === listeners) this.#listeners.delete(brandId);
      if (this.#listeners.size === 0) this.#rest();
    };
  }

  close(): void {
    this.#listeners.clear();
    this.#rest();
  }

  #rest(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    this.#seq = null;
  }

  #lookIn(delayMs: number): void {
    if (this.#timer || this.#isLooking) return;
    this.#timer = setTimeout(() => {
      this.#timer = null;
      this.#isLooking = true;
      this.#look().then(
        () => this.#again(LOOK_EVERY_MS),
        (error: unknown) => {
          // A database that cannot be read for a moment ends no stream: what was missed is in the log.
          this.log.error({ err: error }, 'the change log could not be read');
          this.#again(LOOK_AFTER_FAULT_MS);
        },
      );
    }, delayMs);
  }

  #again(delayMs: number): void {
    this.#isLooking = false;
    if (this.#listeners.size > 0) this.#lookIn(delayMs);
  }

  async #look(): Promise<void> {
    for (;;) {
      const seq = this.#seq;
      if (seq === null) return;
      const changes = await changesAfter(this.db, seq, BATCH);
      const last = changes.at(-1);
      if (!last || this.#seq === null) return;
      this.#seq = last.seq;
      for (const [brandId, listeners] of this.#listeners) {
        const own = changes.filter((change) => change.brandId === brandId);
        if (own.length > 0) for (const listener of listeners) listener(own);
      }
      if (changes.length < BATCH) return;
    }
  }
}
