import { create, type Font } from 'fontkit';
import { decompress } from 'wawoff2';
import { ProblemError } from '../errors.ts';

/** A typeface file as it is kept: TTF or OTF, whatever it came as. */
export interface ImportedTypeface {
  readonly bytes: Uint8Array;
  readonly family: string;
  readonly weight: number;
}

/** Larger files are collections for whole scripts; the shelf has those. */
export const MAX_TYPEFACE_BYTES = 12 * 1024 * 1024;
const MIN_GLYPHS = 20;
const REGULAR_WEIGHT = 400;

type Container = 'sfnt' | 'woff2';

/** What the first bytes say; names and media types are not asked. */
function containerOf(bytes: Uint8Array): Container | null {
  const tag = Buffer.from(bytes.subarray(0, 4)).toString('latin1');
  if (tag === 'wOF2') return 'woff2';
  return tag === '\u0000\u0001\u0000\u0000' || tag === 'OTTO' || tag === 'true' ? 'sfnt' : null;
}

/**
 * Checks a typeface file by reading it: its kind, its tables, the letters it has, and that an outline can be taken.
 * @throws ProblemError saying what is wrong with the file
 */
export async function importTypeface(bytes: Uint8Array, name: string): Promise<ImportedTypeface> {
  const container = containerOf(bytes);
  if (!container) throw new ProblemError(415, 'not-a-typeface', `“${name}” is no TTF, OTF or WOFF2 file.`);
  const damaged = (reason: unknown): ProblemError => new ProblemError(422, 'damaged-typeface', `“${name}” is damaged and cannot be read. Get a whole copy and import it again.`, { reason: reason instanceof Error ? reason.message : String(reason) });
  let plain: Uint8Array;
  let font: Font;
  try {
    plain = container === 'woff2' ? await decompress(Buffer.from(bytes)) : bytes;
    const read = create(Buffer.from(plain));
    if (!('numGlyphs' in read)) throw new TypeError('a collection');
    font = read;
    // Reading an outline touches the tables that a broken download is missing.
    font.glyphForCodePoint(0x41).path.toSVG();
  } catch (error) {
    throw damaged(error);
  }
  if (font.numGlyphs < MIN_GLYPHS || !(font.hasGlyphForCodePoint(0x41) || font.hasGlyphForCodePoint(0x61))) {
    throw new ProblemError(422, 'no-letters', `“${name}” has no letters to write with: it looks like a set of icons.`);
  }
  const weight = (font as Font & { readonly 'OS/2'?: { readonly usWeightClass?: number } })['OS/2']?.usWeightClass ?? REGULAR_WEIGHT;
  return { bytes: plain, family: (font.familyName || name.replace(/\.\w+$/, '')).slice(0, 80), weight: Math.min(1000, Math.max(1, Math.round(weight))) };
}
