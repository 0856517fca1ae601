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
