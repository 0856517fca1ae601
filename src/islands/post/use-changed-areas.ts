import { useQuery } from '@tanstack/react-query';
import { changedAreas, type ChangedArea } from '../../core/crop/changed-areas.ts';
import type { Raster } from '../../core/crop/picture-facts.ts';

/** Wide enough to tell words apart, small enough to compare at once. */
const WIDTH_PX = 240;

/** Where two pictures of one shape differ. */
export interface Compared {
  readonly areas: readonly ChangedArea[];
  /** Width by height. */
  readonly ratio: number;
}

/** Where one picture differs from another, as soon as both are there; null until then, and where one cannot be loaded or they are of different shapes. */
export function useChangedAreas(before: string, now: string): Compared | null {
  const { data } = useQuery({ queryKey: ['changed-areas', before, now], queryFn: ({ signal }) => compare(before, now, signal), retry: false });
  return data ?? null;
}

async function compare(before: string, now: string, signal: AbortSignal): Promise<Compared | null> {
  const [first, second] = await Promise.all([load(before, signal), load(now, signal)]);
  const heightPx = Math.round((WIDTH_PX * second.height) / second.width);
  if (Math.abs((WIDTH_PX * first.height) / first.width - heightPx) > 2) return null;
  return { areas: changedAreas(rasterOf(first, heightPx), rasterOf(second, heightPx)), ratio: WIDTH_PX / heightPx };
}

async function load(address: string, signal: AbortSignal): Promise<ImageBitmap> {
  const response = await fetch(address, { signal });
  if (!response.ok) throw new Error('The picture cannot be loaded.');
  return createImageBitmap(await response.blob());
}

function rasterOf(bitmap: ImageBitmap, heightPx: number): Raster {
  const context = new OffscreenCanvas(WIDTH_PX, heightPx).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('Pictures cannot be compared in this browser.');
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, WIDTH_PX, heightPx);
  bitmap.close();
  return { widthPx: WIDTH_PX, heightPx, rgba: context.getImageData(0, 0, WIDTH_PX, heightPx).data };
}
