import { LRUCache } from 'lru-cache';

export interface Surface {
  readonly canvas: OffscreenCanvas;
  readonly context: OffscreenCanvasRenderingContext2D;
}

/** Canvases that are painted on again and again, one a use and size: a new one for every cut costs more than painting it. */
const surfaces = new LRUCache<string, Surface>({ max: 40 });

export function surfaceOf(use: string, width: number, height: number): Surface {
  const key = `${use} ${width}x${height}`;
  const known = surfaces.get(key);
  if (known) return known;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { alpha: false, willReadFrequently: true });
  if (!context) throw new Error('This browser has no canvas for workers');
  const surface = { canvas, context };
  surfaces.set(key, surface);
  return surface;
}
