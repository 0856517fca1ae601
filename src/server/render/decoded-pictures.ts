import sharp, { type Sharp } from 'sharp';

/** Larger pictures are read anew each time; decoded they would fill the memory of a thread. */
const MOST_PIXELS = 40_000_000;

interface PictureFile {
  readonly filePath: string;
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
 * The last photograph that was asked for, decoded from its second use on: one cut reads the file straight, and the many cuts
 * of a piece share one decoding.
 */
export class DecodedPictures {
  #last: { readonly filePath: string; decoded: Promise<Decoded> | null } | null = null;

  async open({ filePath, widthPx, heightPx }: PictureFile): Promise<Sharp> {
    if (widthPx * heightPx > MOST_PIXELS) return sharp(filePath);
    if (this.#last?.filePath !== filePath) {
      this.#last = { filePath, decoded: null };
      return sharp(filePath);
    }
    this.#last.decoded ??= decode(filePath);
    const { data, ...raw } = await this.#last.decoded;
    return sharp(data, { raw });
  }
}

async function decode(filePath: string): Promise<Decoded> {
  const { data, info } = await sharp(filePath).raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}
