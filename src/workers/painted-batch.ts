import type { CutReport } from '../core/compose/report.ts';
import type { PaintedCut, PaintedPixels, WallMessage, WantedCut } from './wall-protocol.ts';

/** Cuts that come out the same. */
export type AlikeCuts = readonly [WantedCut, ...WantedCut[]];

/** Cuts that arrive together cost the page one frame instead of one each; but nobody waits longer than this for the first. */
const MAX_BATCH_MS = 40;

/** Painted cuts on their way to the page. */
export class Batch {
  #cuts: PaintedCut[] = [];
  #sentMs = performance.now();

  constructor(readonly requestId: number) {}

  /** @param pixels given away with the batch, once for all cuts that are alike */
  add(alike: AlikeCuts, pixels: PaintedPixels | null, report: CutReport, settled: boolean): void {
    for (const { key } of alike) this.#cuts.push({ key, pixels, report, settled });
  }

  isOld(): boolean {
    return performance.now() - this.#sentMs > MAX_BATCH_MS;
  }

  send(): void {
    const cuts = this.#cuts;
    this.#cuts = [];
    this.#sentMs = performance.now();
    if (cuts.length > 0) self.postMessage({ kind: 'painted', id: this.requestId, cuts } satisfies WallMessage, { transfer: [...new Set(cuts.flatMap(({ pixels }) => (pixels ? [pixels.image.data.buffer] : [])))] });
  }
}
