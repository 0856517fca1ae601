import { resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import { marginPx } from '../compose/cut-frame.ts';
import type { Size } from '../geometry/box.ts';
import { drawMotif } from '../motif/motif.ts';
import type { Scene } from '../scene/scene.ts';

/** Width of the band, as a share of the picture's. */
const BAND_SHARE = 0.6;
const SEED = 7;

/** When, as shares of the transition, the edge between the two shots comes into the picture and leaves it: it runs in the middle of the band. */
export const SWEEP_EDGE = { comes: BAND_SHARE / 2 / (1 + BAND_SHARE), leaves: (1 + BAND_SHARE / 2) / (1 + BAND_SHARE) } as const;

/** The band that sweeps over a picture while one shot takes over from another behind it: scraps in the colours of the brand. */
export function sweepBand(book: BrandBook, { widthPx, heightPx }: Size): Scene {
  const size = { widthPx: 2 * Math.round((widthPx * BAND_SHARE) / 2), heightPx };
  const scheme = resolveScheme(book, book.schemes.find(({ key }) => key === 'bold')?.key ?? book.schemes[0]?.key ?? '');
  const box = { xPx: 0, yPx: 0, ...size };
  const scraps = drawMotif('scraps', box, marginPx({ widthPx, heightPx }), SEED);
  return {
    size,
    nodes: [
      { kind: 'fill', path: `M0 0H${size.widthPx}V${size.heightPx}H0Z`, colour: scheme.ground, alpha: 1 },
      ...scraps.map(({ path, ink }) => ({ kind: 'fill' as const, path, colour: scheme[ink], alpha: 1 })),
    ],
  };
}

/** Where the left edge of the band is: it comes in from the right and leaves to the left. */
export function sweepLeftPx(progress: number, widthPx: number, bandPx: number): number {
  return widthPx - progress * (widthPx + bandPx);
}
