import { access } from 'node:fs/promises';
import sharp from 'sharp';
import type { MediaStore } from './media-store.ts';

/**
 * A stored picture as WebP that fits into a square of `fitPx`, made once.
 * @returns the path of the file
 */
export async function pictureDerivative(store: MediaStore, storedHash: string, fitPx: number): Promise<string> {
  const name = `${fitPx}.webp`;
  const path = store.derivedPathOf(storedHash, name);
  if (await exists(path)) return path;
  const bytes = await sharp(store.pathOf(storedHash)).resize(fitPx, fitPx, { fit: 'inside', withoutEnlargement: true }).webp({ quality: fitPx >= 1280 ? 92 : 82 }).toBuffer();
  return store.keepDerived(storedHash, name, bytes);
}

export async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
