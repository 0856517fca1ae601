import { mkdtempSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Picture } from '../../src/core/crop/crop-window.ts';
import { readPictureFacts } from '../../src/server/media/picture-facts-of-file.ts';
import type { PictureSource } from '../../src/server/render/canvas-painter.ts';
import type { PictureName } from './fill.ts';

/** A colour that no demo photograph has; the spot of it marks the subject. */
export const SUBJECT_COLOUR = [255, 0, 255] as const;
const SPOT_PX = 40;

export interface CorpusPictures {
  readonly pictures: ReadonlyMap<string, Picture>;
  readonly sources: ReadonlyMap<string, PictureSource>;
}

/** Demo photographs with a spot on their subject, which a person has pointed at; and one that is far too small. */
export async function corpusPictures(): Promise<CorpusPictures> {
  const folder = mkdtempSync(join(tmpdir(), 'confetti-corpus-'));
  const manifest = JSON.parse(await readFile('demo/media/manifest.json', 'utf8')) as { file: string; subject: { x: number; y: number } }[];
  const pictures = new Map<string, Picture>();
  const sources = new Map<string, PictureSource>();
  for (const [name, file, widthPx] of [['photo', 'red-diamond-dunes.jpg', 1500], ['second', 'kite-kits.jpg', 1400], ['tiny', 'windsocks.jpg', 90]] as const satisfies readonly (readonly [PictureName, string, number])[]) {
    const focal = manifest.find((each) => each.file === file)?.subject ?? { x: 0.5, y: 0.5 };
    const resized = await sharp(join('demo/media', file)).resize(widthPx).removeAlpha().toBuffer({ resolveWithObject: true });
    const { width, height } = resized.info;
    const side = Math.max(4, Math.round((SPOT_PX * width) / 1500));
    const spot = { create: { width: side, height: side, channels: 3 as const, background: { r: SUBJECT_COLOUR[0], g: SUBJECT_COLOUR[1], b: SUBJECT_COLOUR[2] } } };
    const path = join(folder, `${name}.png`);
    await sharp(resized.data).composite([{ input: spot, left: Math.round(focal.x * width - side / 2), top: Math.round(focal.y * height - side / 2) }]).png({ compressionLevel: 1 }).toFile(path);
    pictures.set(name, { id: name, widthPx: width, heightPx: height, facts: await readPictureFacts(path), focal, focalBy: 'person' });
    sources.set(name, { filePath: path, widthPx: width, heightPx: height });
  }
  return { pictures, sources };
}

/** Whether the spot on the subject can be seen anywhere in a painted cut: the thin end of a gradient, of about a quarter, may lie over it. */
export function showsSubject(rgba: Buffer): boolean {
  for (let at = 0; at < rgba.length; at += 4) if ((rgba[at] ?? 0) > 190 && (rgba[at + 1] ?? 255) < 90 && (rgba[at + 2] ?? 0) > 190) return true;
  return false;
}
