import sharp, { type Sharp } from 'sharp';

/** Larger pictures are read anew each time; decoded they would fill the memory of a thread. */
const MAX_PIXELS = 40_000_000;
/**
 * Smaller copies that are made where they are of use. A JPEG is decoded at a half, a quarter or an eighth of its size for a
 * fraction of the work; sharp does so from these factors on.
 */
const LEVELS = [12, 6, 3] as const;
const WHOLE = 1;
/** How much of scaling down is left to do on a copy at least: it is the resampler that makes it sharp. */
const MIN_REST = 1.25;

interface PictureFile {
  readonly filePath: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A picture ready to be cropped: its pixels may be fewer than its file's, by the same factor in both directions. */
export interface OpenPicture {
  readonly image: Sharp;
  readonly widthPx: number;
  readonly heightPx: number;
}

interface Decoded {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 2 | 3 | 4;
}

/**
 * The last photograph that was asked for, decoded: the many cuts of a piece show the same one, and decoding is what costs. What is
 * scaled far down is taken from a smaller copy, as most of the work of scaling is in reading pixels. The whole is only kept from
 * the second use on: one cut alone reads the file straight through.
 */
export class DecodedPictures {
  #last: { readonly filePath: string; readonly levels: Map<number, Promise<Decoded>> } | null = null;

  /** @param shrink pixels of the file that become one pixel, in the direction where they are fewer */
  async open({ filePath, widthPx, heightPx }: PictureFile, shrink: number): Promise<OpenPicture> {
    if (widthPx * heightPx > MAX_PIXELS) return { image: sharp(filePath), widthPx, heightPx };
    const level = LEVELS.find((factor) => shrink >= factor * MIN_REST) ?? WHOLE;
    const isFirst = this.#last?.filePath !== filePath;
    if (isFirst || !this.#last) this.#last = { filePath, levels: new Map() };
    if (isFirst && level === WHOLE) return { image: sharp(filePath), widthPx, heightPx };
    const decoding = this.#last.levels.get(level) ?? decode(filePath, { widthPx, heightPx }, level);
    this.#last.levels.set(level, decoding);
    const { data, ...raw } = await decoding;
    return { image: sharp(data, { raw }), widthPx: raw.width, heightPx: raw.height };
  }
}

/** The pixels of a file at a part of its size. */
async function decode(filePath: string, { widthPx, heightPx }: Pick<PictureFile, 'widthPx' | 'heightPx'>, level: number): Promise<Decoded> {
  const image = sharp(filePath);
  if (level > WHOLE) image.resize(Math.floor(widthPx / level), Math.floor(heightPx / level), { fit: 'fill', kernel: 'lanczos3' });
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}
