import { useEffect, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import type { PaintRequest, WallMessage } from '../../workers/wall-protocol.ts';

export interface WallState {
  readonly reports: ReadonlyMap<string, CutReport>;
  readonly problem: string | null;
  /** Highest request that is painted whole. */
  readonly settledId: number;
}

/** One painting worker with the canvases that show what it paints. */
export class Wall {
  readonly #worker = new Worker(new URL('../../workers/wall-worker.ts', import.meta.url), { type: 'module' });
  readonly #canvases = new Map<string, HTMLCanvasElement>();
  #lastId = 0;
  #started = new Map<number, number>();
  #state: WallState = { reports: new Map(), problem: null, settledId: 0 };

  constructor(readonly onChange: (state: WallState) => void) {
    this.#worker.onmessage = ({ data }: MessageEvent<WallMessage>) => this.#receive(data);
  }

  /** Tells where a cut is shown; null when it no longer is. */
  place(key: string, canvas: HTMLCanvasElement | null): void {
    if (canvas) this.#canvases.set(key, canvas);
    else this.#canvases.delete(key);
  }

  paint(request: Omit<PaintRequest, 'id'>): void {
    this.#lastId += 1;
    this.#started.set(this.#lastId, performance.now());
    this.#worker.postMessage({ ...request, id: this.#lastId } satisfies PaintRequest);
  }

  close(): void {
    this.#worker.terminate();
  }

  #receive(message: WallMessage): void {
    if (message.kind === 'painted') {
      const canvas = this.#canvases.get(message.key);
      if (!canvas) return message.bitmap.close();
      canvas.width = message.bitmap.width;
      canvas.height = message.bitmap.height;
      canvas.getContext('bitmaprenderer')?.transferFromImageBitmap(message.bitmap);
      canvas.dataset['painted'] = String(message.id);
      const reports = new Map(this.#state.reports).set(message.key, message.report);
      this.#set({ ...this.#state, reports, problem: null });
      return;
    }
    if (message.kind === 'failed') return this.#set({ ...this.#state, problem: message.sentence });
    const started = this.#started.get(message.id);
    // From the request to the last cut on the screen: what a person feels while typing.
    if (started !== undefined) performance.measure('wall', { start: started, end: performance.now() });
    for (const id of this.#started.keys()) if (id <= message.id) this.#started.delete(id);
    this.#set({ ...this.#state, settledId: message.id });
  }

  #set(state: WallState): void {
    this.#state = state;
    this.onChange(state);
  }
}

/** A wall for as long as a component is mounted; `request` is painted whenever it changes. */
export function useWall(request: Omit<PaintRequest, 'id'> | null): { readonly wall: Wall | null; readonly state: WallState } {
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
