import { useEffect, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import { shareOut } from '../../workers/alike-cuts.ts';
import { CutOwners } from '../../workers/cut-owners.ts';
import type { ClipPicture, PaintedCut, PainterMessage, PaintRequest, WallContent, WallMessage } from '../../workers/wall-protocol.ts';

export interface WallState {
  readonly reports: ReadonlyMap<string, CutReport>;
  readonly problem: string | null;
  /** Highest request that is painted whole. */
  readonly settledId: number;
}

/** What a wall is to show. */
export interface WallRequest extends Pick<PaintRequest, 'cuts' | 'ghosts' | 'isWrittenIn'> {
  /** Posted to the workers when the reference changes. */
  readonly content: WallContent;
}

/** A worker that paints, and the last request that it has painted whole. */
interface Painter {
  readonly worker: Worker;
  doneId: number;
}

/** While cuts are being painted, listeners get the reports this often, in milliseconds: each time the page renders. */
const TELL_EVERY_MS = 120;

/** One core is left to the page, which draws what is typed and shows what is painted: a painter more than that makes each of them slower. */
const MAX_PAINTERS = 2;

/** Painting workers with the canvases that show what they paint. The cuts of a request are shared out among them. */
export class Wall {
  readonly #painters: Painter[] = [];
  readonly #owners = new CutOwners();
  readonly #canvases = new Map<string, HTMLCanvasElement>();
  #lastId = 0;
  readonly #started = new Map<number, number>();
  #reports: ReadonlyMap<string, CutReport> = new Map();
  #settledId = 0;
  #told: number | null = null;
  #telling: ReturnType<typeof setTimeout> | undefined;
  #repaint: number | null = null;
  #lastRequest: WallRequest | null = null;
  #content: WallContent | null = null;

  constructor(readonly onChange: (state: WallState) => void) {
    // The first painter starts to load its engines before there is anything to paint.
    this.#addPainter();
  }

  #addPainter(): void {
    const painter: Painter = { worker: new Worker(new URL('../../workers/wall-worker.ts', import.meta.url), { type: 'module' }), doneId: this.#settledId };
    painter.worker.onmessage = ({ data }: MessageEvent<WallMessage>) => this.#receive(data, painter);
    this.#painters.push(painter);
    if (this.#content) tellPainter(painter, { kind: 'content', content: this.#content });
  }

  /** Tells where a cut is shown; null when it no longer is. */
  place(key: string, canvas: HTMLCanvasElement | null): void {
    if (!canvas) {
      this.#canvases.delete(key);
      return;
    }
    this.#canvases.set(key, canvas);
    // A canvas that comes later than the request it belongs to would stay empty.
    this.#repaint ??= requestAnimationFrame(() => {
      this.#repaint = null;
      if (this.#lastRequest) this.paint(this.#lastRequest, true);
    });
  }

  /**
   * Asks for what a request shows. The one that was asked for last is not asked for again.
   * @param isAgain whether cuts that have not changed are sent as well
   * @param clipPictures what clips show now, a copy a painter; they are given away
   */
  paint(request: WallRequest, isAgain = false, clipPictures: readonly (readonly ClipPicture[])[] = []): void {
    if (request === this.#lastRequest && !isAgain && clipPictures.length === 0) return;
    const { cuts, content, ...how } = request;
    this.#lastRequest = request;
    this.#lastId += 1;
    this.#started.set(this.#lastId, performance.now());
    const most = Math.min(MAX_PAINTERS, navigator.hardwareConcurrency - 1);
    while (this.#painters.length < most && cuts.length > this.#painters.length) this.#addPainter();
    if (content !== this.#content) {
      this.#content = content;
      for (const painter of this.#painters) tellPainter(painter, { kind: 'content', content });
    }
    const shares = shareOut(cuts, this.#painters.length);
    const taken = this.#owners.assign(shares);
    this.#painters.forEach((painter, index) => {
      const own = clipPictures[index] ?? [];
      tellPainter(painter, { kind: 'paint', ...how, cuts: shares[index] ?? [], id: this.#lastId, again: isAgain ? 'all' : (taken[index] ?? []), ...(own.length > 0 ? { clipPictures: own } : {}) }, own.map(({ bitmap }) => bitmap));
    });
  }

  get painterCount(): number {
    return this.#painters.length;
  }

  /** Whether something that was asked for is not painted yet. */
  get isBusy(): boolean {
    return this.#settledId < this.#lastId;
  }

  close(): void {
    for (const frame of [this.#told, this.#repaint]) if (frame !== null) cancelAnimationFrame(frame);
    clearTimeout(this.#telling);
    for (const { worker } of this.#painters) worker.terminate();
  }

  #receive(message: WallMessage, painter: Painter): void {
    if (message.kind === 'painted') {
      const index = this.#painters.indexOf(painter);
      const current = message.cuts.filter(({ key }) => this.#owners.owns(index, key));
      this.#reports = new Map([...this.#reports, ...current.map(({ key, report }) => [key, report] as const)]);
      for (const cut of current) this.#show(cut, message.id);
      this.#telling ??= setTimeout(() => this.#tellSoon(), TELL_EVERY_MS);
      return;
    }
    if (message.kind === 'failed') return this.onChange({ reports: this.#reports, problem: message.sentence, settledId: this.#settledId });
    painter.doneId = message.id;
    const settledId = Math.min(...this.#painters.map(({ doneId }) => doneId));
    if (settledId === this.#settledId) return;
    this.#settledId = settledId;
    const started = this.#started.get(settledId);
    // From the request to the last cut on the screen: what a person feels while typing.
    if (started !== undefined) performance.measure('wall', { start: started, end: performance.now() });
    for (const id of this.#started.keys()) if (id <= settledId) this.#started.delete(id);
    this.#tellSoon();
  }

  #show({ key, pixels, settled }: PaintedCut, id: number): void {
    const canvas = this.#canvases.get(key);
    // What is not shown is checked all the same.
    if (!canvas || !pixels) return;
    const { image, xPx, yPx, whole } = pixels;
    const isPart = image.width < whole.widthPx || image.height < whole.heightPx;
    // A canvas that came after the whole cut was painted is asked for by itself.
    if (isPart && canvas.dataset['painted'] === undefined) return;
    // Setting even the same size would clear the canvas and lay the page out anew.
    if (canvas.width !== whole.widthPx) canvas.width = whole.widthPx;
    if (canvas.height !== whole.heightPx) canvas.height = whole.heightPx;
    canvas.getContext('2d', { alpha: false, willReadFrequently: true })?.putImageData(image, xPx, yPx);
    canvas.dataset['painted'] = String(id);
    canvas.dataset['settled'] = String(settled);
  }

  /** Passes the reports on once a frame, so that the page renders once for several cuts. */
  #tellSoon(): void {
    clearTimeout(this.#telling);
    this.#telling = undefined;
    this.#told ??= requestAnimationFrame(() => {
      this.#told = null;
      this.onChange({ reports: this.#reports, problem: null, settledId: this.#settledId });
    });
  }
}

function tellPainter({ worker }: Painter, message: PainterMessage, given: readonly Transferable[] = []): void {
  worker.postMessage(message, [...given]);
}

/** A wall for as long as a component is mounted; `request` is painted whenever it changes. */
export function useWall(request: WallRequest | null): { readonly wall: Wall | null; readonly state: WallState } {
  const [wall, setWall] = useState<Wall | null>(null);
  const [state, setState] = useState<WallState>({ reports: new Map(), problem: null, settledId: 0 });
  useEffect(() => {
    const made = new Wall(setState);
    setWall(made);
    return () => made.close();
  }, []);
  useEffect(() => {
    if (wall && request && request.cuts.length > 0) wall.paint(request);
  }, [wall, request]);
  return { wall, state };
}
