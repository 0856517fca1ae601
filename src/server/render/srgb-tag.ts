import { crc32 } from 'node:zlib';
import type { Sharp } from 'sharp';

/**
 * Tags that say that pixels are sRGB without carrying a profile: attaching one sends every pixel through a conversion that
 * changes none of them, at a tenth of the time of the whole file.
 */

/** EXIF's ColorSpace 1, for JPEG. @see CIPA DC-008, 4.6.5 */
export function tagJpegAsSrgb(image: Sharp): Sharp {
  return image.withExif({ IFD2: { ColorSpace: '1' } });
}

/** Length of the signature and of the IHDR chunk, which comes first. */
const BEHIND_HEADER = 8 + 25;
const PERCEPTUAL = 0;

/**
 * A PNG file with an sRGB chunk behind its header.
 * @see https://www.w3.org/TR/png-3/#srgb-standard-colour-space
 */
export function tagPngAsSrgb(png: Buffer): Buffer {
  const body = Buffer.from([...Buffer.from('sRGB', 'latin1'), PERCEPTUAL]);
  const chunk = Buffer.alloc(4 + body.length + 4);
  chunk.writeUInt32BE(1, 0);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(body), 4 + body.length);
  return Buffer.concat([png.subarray(0, BEHIND_HEADER), chunk, png.subarray(BEHIND_HEADER)]);
}
