import type { CutReport } from '../core/compose/report.ts';
import type { PaintedCut, WallMessage, WantedCut } from './wall-protocol.ts';

/** Cuts that come out the same. */
export type AlikeCuts = readonly [WantedCut, ...WantedCut[]];

/** Cuts that arrive together cost the page one frame instead of one each; but nobody waits longer than this for the first. */
const MAX_BATCH_MS = 40;

/** Painted cuts on their way to the page. */
export class Batch {
  #cuts: PaintedCut[] = [];
  #sentMs = performance.now();

  constructor(readonly requestId: number) {}

  /** @param pixels given away with the batch; cuts that are alike get copies */
  add(alike: AlikeCuts, pixels: ImageData | null, report: CutReport, settled: boolean): void {
    alike.forEach(({ key }, index) => this.#cuts.push({ key, pixels: index === 0 || !pixels ? pixels : new ImageData(pixels.data.slice(), pixels.width, pixels.height), report, settled }));
  }

  isOld(): boolean {
    return performance.now() - this.#sentMs > MAX_BATCH_MS;
  }

  send(): void {
    const cuts = this.#cuts;
    this.#cuts = [];
    this.#sentMs = performance.now();
    if (cuts.length > 0) self.postMessage({ kind: 'painted', id: this.requestId, cuts } satisfies WallMessage, { transfer: cuts.flatMap(({ pixels }) => (pixels ? [pixels.data.buffer] : [])) });
  }
}
