import type { Cut } from './resolve-cuts.ts';

/** A place of a channel where one of several cuts shows. */
export interface Place<Each extends Cut = Cut> {
  readonly key: string;
  readonly name: string;
  readonly cuts: readonly [Each, ...Each[]];
}

const aspectOf = ({ placement: { exportPx } }: Cut): number => exportPx.width / exportPx.height;

/** Cuts that show in the same place of a channel are alternatives: one of them goes out, or none. */
export function placesOf<Each extends Cut>(cuts: readonly Each[]): readonly Place<Each>[] {
  const places = new Map<string, Place<Each>>();
  for (const cut of cuts) {
    const key = `${cut.channel.id}.${cut.placement.surface}`;
    const known = places.get(key);
    places.set(key, known ? { ...known, cuts: [...known.cuts, cut] } : { key, name: `${cut.channel.name} ${cut.placement.surface}`, cuts: [cut] });
  }
  return [...places.values()];
}

/** What shows more of a carousel goes first; of several shapes the tallest takes most of a reader's screen. */
export function usualCut<Each extends Cut>([first, ...others]: Place<Each>['cuts']): Each {
  return others.reduce((best, cut) => {
    const more = cut.slides.length - best.slides.length;
    return more > 0 || (more === 0 && aspectOf(cut) < aspectOf(best)) ? cut : best;
  }, first);
}
