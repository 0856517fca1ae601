import { setTimeout as sleep } from 'node:timers/promises';
import type { Context } from 'hono';

/** Ways in which a stand-in can misbehave, as real services do. */
export const faultKinds = ['down', 'slow', 'busy', 'broken', 'drop-after-publish'] as const;
export type FaultKind = (typeof faultKinds)[number];

/** Which faults are on, for how many requests more; a tester sets them at the switchboard. */
export class Faults {
  readonly #on = new Map<string, { kind: FaultKind; times: number }>();

  set(network: string, kind: FaultKind | 'none', times: number): void {
    if (kind === 'none') this.#on.delete(network);
    else this.#on.set(network, { kind, times });
  }

  current(network: string): { readonly kind: FaultKind; readonly times: number } | null {
    return this.#on.get(network) ?? null;
  }

  /** Uses one of the remaining times of a fault, if it is one of `kinds`; answers it when it strikes. */
  strike(network: string, kinds: readonly FaultKind[]): FaultKind | null {
    const fault = this.#on.get(network);
    if (!fault || !kinds.includes(fault.kind)) return null;
    fault.times -= 1;
    if (fault.times <= 0) this.#on.delete(network);
    return fault.kind;
  }
}

/** Thrown to make the connection break without an answer; the server turns it into a closed socket. */
export class DroppedConnection extends Error {
  override readonly name = 'DroppedConnection';
}

const RETRY_AFTER_S = 2;

/** Faults that strike before a request is looked at. */
export async function strikeEarly(network: string, faults: Faults, slowMs: number, context: Context): Promise<Response | null> {
  const fault: FaultKind | null = faults.strike(network, ['down', 'slow', 'busy', 'broken']);
  switch (fault) {
    case 'down':
      throw new DroppedConnection();
    case 'slow':
      await sleep(slowMs);
      return null;
    case 'busy':
      return context.json({ reason: 'Too many requests.' }, 429, { 'retry-after': String(RETRY_AFTER_S) });
    case 'broken':
      return context.json({ reason: 'Something broke.' }, 500);
    default:
      return null;
  }
}
