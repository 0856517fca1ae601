import { access } from 'node:fs/promises';
import sharp from 'sharp';
import type { MediaStore } from './media-store.ts';

const nameOf = (fitPx: number): string => `${fitPx}.webp`;

/** Where the small copy of a stored picture lies. */
export const smallCopyPath = (store: MediaStore, storedHash: string, fitPx: number): string => store.derivedPathOf(storedHash, nameOf(fitPx));

/**
 * A stored picture as WebP that fits into a square of `fitPx`, made once.
 * @returns the path of the file
 */
export async function pictureDerivative(store: MediaStore, storedHash: string, fitPx: number): Promise<string> {
  const path = smallCopyPath(store, storedHash, fitPx);
  if (await exists(path)) return path;
  const bytes = await sharp(store.pathOf(storedHash)).resize(fitPx, fitPx, { fit: 'inside', withoutEnlargement: true }).webp({ quality: fitPx >= 1280 ? 92 : 82 }).toBuffer();
  return store.keepDerived(storedHash, nameOf(fitPx), bytes);
}

export async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
