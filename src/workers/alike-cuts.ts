import type { WantedCut } from './wall-protocol.ts';

export type AlikeCuts = readonly [WantedCut, ...WantedCut[]];

/** Cuts that come out the same, to the pixel, are composed and painted once: several networks take the same sizes. */
export function groupAlike(cuts: readonly WantedCut[]): readonly AlikeCuts[] {
  const groups = new Map<string, [WantedCut, ...WantedCut[]]>();
  const numbers = new Map<unknown, number>();
  const numberOf = (value: unknown): number => numbers.get(value) ?? numbers.set(value, numbers.size).size - 1;
  for (const cut of cuts) {
    const { exportPx, safePercent } = cut.placement;
    // Templates and frames are shared by reference within one request.
    const key = JSON.stringify([exportPx, safePercent, cut.adjustment, cut.scale, numberOf(cut.template), numberOf(cut.frame)]);
    const group = groups.get(key);
    if (group) group.push(cut);
    else groups.set(key, [cut]);
  }
  return [...groups.values()];
}

/** Shares cuts out among painters; what is alike stays together, and the same cuts always go to the same painter. */
export function shareOut(cuts: readonly WantedCut[], painters: number): readonly (readonly WantedCut[])[] {
  const groups = groupAlike(cuts);
  return Array.from({ length: painters }, (_, painter) => groups.filter((_, index) => index % painters === painter).flat());
}
