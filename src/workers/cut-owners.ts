import type { WantedCut } from './wall-protocol.ts';

/**
 * Which painter has each cut of the newest request. A cut may change hands when the cuts beside it change: what its painter before
 * still sends shows an older state, and what its new painter has painted of it at another time is no longer on the screen.
 */
export class CutOwners {
  #owner: ReadonlyMap<string, number> = new Map();

  /**
   * @param shares the cuts of a request, by painter
   * @returns by painter, the keys of the cuts that it did not have in the request before
   */
  assign(shares: readonly (readonly WantedCut[])[]): readonly (readonly string[])[] {
    const before = this.#owner;
    this.#owner = new Map(shares.flatMap((share, painter) => share.map(({ key }) => [key, painter] as const)));
    return shares.map((share, painter) => share.flatMap(({ key }) => (before.get(key) === painter ? [] : [key])));
  }

  owns(painter: number, key: string): boolean {
    return this.#owner.get(key) === painter;
  }
}
