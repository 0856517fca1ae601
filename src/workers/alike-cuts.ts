import type { WantedCut } from './wall-protocol.ts';

/**
 * Shares cuts out among painters. The slides of one run stay together, as they are fitted together, and so do runs that come out the
 * same, as they are painted once: several networks take the same sizes. The same cuts always go to the same painter.
 */
export function shareOut(cuts: readonly WantedCut[], painters: number): readonly (readonly WantedCut[])[] {
  const runs = new Map<string, WantedCut[]>();
  for (const cut of cuts) runs.set(cut.run, [...(runs.get(cut.run) ?? []), cut]);
  const groups = new Map<string, WantedCut[][]>();
  for (const run of runs.values()) {
    const key = likenessOf(run);
    groups.set(key, [...(groups.get(key) ?? []), run]);
  }
  const shared = [...groups.values()].map((group) => group.flat());
  return Array.from({ length: painters }, (_, painter) => shared.filter((_, index) => index % painters === painter).flat());
}

/** Runs of one likeness show the same slides at the same size. */
function likenessOf(run: readonly WantedCut[]): string {
  return JSON.stringify(run.map(({ placement: { exportPx, safePercent }, template, frame, adjustment, scale }) => [exportPx, safePercent, template.key, frame.id, adjustment, scale]));
}
