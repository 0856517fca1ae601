import { fileTypeFromFile, type FileTypeResult } from 'file-type';
import sharp, { type Sharp } from 'sharp';
import { MAX_PICTURE_PIXELS } from '../../contract/media-contracts.ts';
import type { PictureFacts } from '../../core/crop/picture-facts.ts';
import { ProblemError } from '../errors.ts';
import { readPictureFacts } from './picture-facts-of-file.ts';
import { takenDayOf } from './taken-day.ts';
import { whereItBelongs } from './where-it-belongs.ts';

/** A picture as it is kept: upright, without metadata, in sRGB. */
export interface ImportedPicture {
  readonly bytes: Buffer;
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly facts: PictureFacts;
  /** The day that its metadata says it was taken; null: they do not. */
  readonly takenDay: string | null;
}

const kinds: Readonly<Record<string, (image: Sharp) => Sharp>> = {
  'image/jpeg': (image) => image.jpeg({ quality: 95, chromaSubsampling: '4:4:4' }),
  'image/png': (image) => image.png({ compressionLevel: 6 }),
  'image/webp': (image) => image.webp({ quality: 95 }),
};

/** Sides shorter than this are of no use in any placement. */
const MIN_SIDE_PX = 16;

/**
 * Reads a picture file by its bytes, whatever its name says: checks it, turns it upright by its EXIF orientation, leaves
 * all metadata (location among it) behind and takes its facts.
 * @throws ProblemError saying what is wrong with the file
 */
export async function importPicture(path: string, name: string): Promise<ImportedPicture> {
  const type = await fileTypeFromFile(path);
  const encode = type ? kinds[type.mime] : undefined;
  if (!type || !encode) {
    const found = type ? `inside it is ${kindInWords(type)}` : 'its bytes are of no kind known here';
    const place = whereItBelongs(name);
    throw new ProblemError(415, 'not-a-picture', `“${name}” is not a JPEG, PNG or WebP picture, a clip or a sound: ${found}.${place === null ? '' : ` ${place}`}`);
  }
  await checkSize(path, name);
  try {
    const { data, info } = await encode(open(path).rotate().toColourspace('srgb')).toBuffer({ resolveWithObject: true });
    return { bytes: data, mime: type.mime, widthPx: info.width, heightPx: info.height, facts: await readPictureFacts(data), takenDay: await takenDayOf(path) };
  } catch (error) {
    throw new ProblemError(422, 'damaged-picture', `“${name}” is damaged or cut off and cannot be read to its end. Get a whole copy and import it again.`, { reason: reasonOf(error) });
  }
}

/** A kind of file by the word that people have for it. */
const words: Readonly<Record<string, string>> = {
  'application/x-msdownload': 'a program',
  'application/x-elf': 'a program',
  'application/x-mach-binary': 'a program',
  'application/zip': 'an archive',
  'application/gzip': 'an archive',
  'application/x-7z-compressed': 'an archive',
};

function kindInWords({ mime, ext }: FileTypeResult): string {
  const format = ext.toUpperCase();
  return words[mime] ?? (mime.startsWith('image/') ? `a picture of the kind ${format}, which has to be saved as another one first` : `a file of the kind ${format}`);
}

async function checkSize(path: string, name: string): Promise<void> {
  const { width, height } = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch((error: unknown) => {
      throw new ProblemError(422, 'damaged-picture', `“${name}” is damaged: not even its size can be read.`, { reason: reasonOf(error) });
    });
  if (width * height > MAX_PICTURE_PIXELS) {
    const megapixels = (pixels: number): string => `${Math.round(pixels / 1_000_000)} megapixels`;
    throw new ProblemError(422, 'too-many-pixels', `“${name}” is ${width} × ${height}, ${megapixels(width * height)}. The most that can be used is ${megapixels(MAX_PICTURE_PIXELS)}: make it smaller first.`);
  }
  if (Math.min(width, height) < MIN_SIDE_PX) {
    throw new ProblemError(422, 'too-small', `“${name}” is only ${width} × ${height} pixels. No placement can use that.`);
  }
}

function open(path: string): Sharp {
  return sharp(path, { failOn: 'truncated', limitInputPixels: MAX_PICTURE_PIXELS });
}

function reasonOf(error: unknown): string {
  return error instanceof Error ? error.message.replaceAll(/\/\S+/g, '…') : String(error);
}
