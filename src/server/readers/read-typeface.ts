import { create, type Font } from 'fontkit';
import { decompress } from 'wawoff2';
import { ProblemError } from '../errors.ts';

/** A typeface file as it is kept: TTF or OTF, whatever it came as. */
export interface ImportedTypeface {
  readonly bytes: Uint8Array;
  readonly family: string;
  readonly weight: number;
}

const MIN_GLYPHS = 20;
const REGULAR_WEIGHT = 400;
const TABLE_RECORD_BYTES = 16;
const FIRST_RECORD_AT = 12;

type Container = 'sfnt' | 'woff2';

/** What the first bytes say; names and media types are not asked. */
function containerOf(bytes: Uint8Array): Container | null {
  const tag = Buffer.from(bytes.subarray(0, 4)).toString('latin1');
  if (tag === 'wOF2') return 'woff2';
  return tag === '\u0000\u0001\u0000\u0000' || tag === 'OTTO' || tag === 'true' ? 'sfnt' : null;
}

/**
 * Checks a typeface file by reading it whole: its kind, that every table lies inside the file, and every single outline. Half a
 * download has its first letters, and words set in it would vanish one by one.
 * @throws ProblemError saying what is wrong with the file
 */
export async function readTypeface(bytes: Uint8Array, name: string): Promise<ImportedTypeface> {
  const container = containerOf(bytes);
  if (!container) throw new ProblemError(415, 'not-a-typeface', `“${name}” is no TTF, OTF or WOFF2 file.`);
  const damaged = (): ProblemError => new ProblemError(422, 'damaged-typeface', `“${name}” is damaged and cannot be read. Get a whole copy and import it again.`);
  const plain = await plainOf(bytes, container, damaged);
  requireWholeTables(plain, damaged);
  requireFewPoints(plain, damaged);
  const font = openFont(plain, damaged);
  if (font.numGlyphs < MIN_GLYPHS || !(font.hasGlyphForCodePoint(0x41) || font.hasGlyphForCodePoint(0x61))) {
    throw new ProblemError(422, 'no-letters', `“${name}” has no letters to write with: it looks like a set of icons.`);
  }
  requireOutlines(font, damaged);
  const weight = (font as Font & { readonly 'OS/2'?: { readonly usWeightClass?: number } })['OS/2']?.usWeightClass ?? REGULAR_WEIGHT;
  return { bytes: plain, family: (font.familyName || name.replace(/\.\w+$/, '')).slice(0, 80), weight: Math.min(1000, Math.max(1, Math.round(weight))) };
}

async function plainOf(bytes: Uint8Array, container: Container, damaged: () => ProblemError): Promise<Uint8Array> {
  if (container === 'sfnt') return bytes;
  try {
    const plain = await decompress(Buffer.from(bytes));
    if (plain.length === 0) throw damaged();
    return plain;
  } catch {
    throw damaged();
  }
}

/**
 * Every table of the directory lies inside the file.
 * @see https://learn.microsoft.com/typography/opentype/spec/otff#table-directory
 */
function requireWholeTables(bytes: Uint8Array, damaged: () => ProblemError): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < FIRST_RECORD_AT) throw damaged();
  const tables = view.getUint16(4);
  if (tables === 0 || FIRST_RECORD_AT + tables * TABLE_RECORD_BYTES > bytes.length) throw damaged();
  for (let index = 0; index < tables; index += 1) {
    const at = FIRST_RECORD_AT + index * TABLE_RECORD_BYTES;
    if (view.getUint32(at + 8) + view.getUint32(at + 12) > bytes.length) throw damaged();
  }
}

/** No letter has as many. A damaged count would be read to its end again in every glyph that is put together from it. */
const MAX_POINTS = 10_000;
const LOCATION_FORMAT_AT = 50;
const CONTOUR_ENDS_AT = 10;

/**
 * No TrueType outline claims more points than a letter can have; typefaces of another kind have no such table.
 * @see https://learn.microsoft.com/typography/opentype/spec/glyf
 */
function requireFewPoints(bytes: Uint8Array, damaged: () => ProblemError): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tables = new Map(Array.from({ length: view.getUint16(4) }, (_, index) => {
    const at = FIRST_RECORD_AT + index * TABLE_RECORD_BYTES;
    return [Buffer.from(bytes.subarray(at, at + 4)).toString('latin1'), { at: view.getUint32(at + 8), length: view.getUint32(at + 12) }] as const;
  }));
  const [glyf, loca, head] = ['glyf', 'loca', 'head'].map((tag) => tables.get(tag));
  if (!glyf || !loca || !head || head.length <= LOCATION_FORMAT_AT + 1) return;
  const isLong = view.getInt16(head.at + LOCATION_FORMAT_AT) !== 0;
  const startOf = (glyph: number): number => glyf.at + (isLong ? view.getUint32(loca.at + glyph * 4) : view.getUint16(loca.at + glyph * 2) * 2);
  for (let glyph = 0; glyph + 1 < Math.floor(loca.length / (isLong ? 4 : 2)); glyph += 1) {
    const at = startOf(glyph);
    if (startOf(glyph + 1) === at) continue;
    const contours = at + CONTOUR_ENDS_AT <= bytes.length ? view.getInt16(at) : 0;
    const lastEndAt = at + CONTOUR_ENDS_AT + (contours - 1) * 2;
    if (contours > 0 && (lastEndAt + 2 > bytes.length || view.getUint16(lastEndAt) >= MAX_POINTS)) throw damaged();
  }
}

function openFont(bytes: Uint8Array, damaged: () => ProblemError): Font {
  try {
    const font = create(Buffer.from(bytes));
    if (!('numGlyphs' in font)) throw new TypeError('a collection');
    // Names and measures are read late; a broken table says so here.
    for (const value of [font.unitsPerEm, font.ascent, font.descent]) if (!Number.isFinite(value) || Math.abs(value) > 65_535) throw new TypeError('no measures');
    if (font.unitsPerEm < 16) throw new TypeError('no measures');
    void font.familyName;
    void font.characterSet.length;
    return font;
  } catch {
    throw damaged();
  }
}

/** What is written with ink in every script; spaces and fillers are none of it. */
const INKED = /^[\p{L}\p{N}\p{P}\p{S}]$/u;
const BLANK: ReadonlySet<number> = new Set([0x2800, 0x115f, 0x1160, 0x3164, 0xffa0]);
/** A few signs are blank in sound typefaces; a tenth of all is a hole. */
const MAX_BLANK_SHARE = 0.1;

function requireOutlines(font: Font, damaged: () => ProblemError): void {
  try {
    const inked = font.characterSet.filter((codePoint) => INKED.test(String.fromCodePoint(codePoint)) && !BLANK.has(codePoint));
    const isBlank = (codePoint: number): boolean => font.glyphForCodePoint(codePoint).path.commands.length === 0;
    const basic = inked.filter((codePoint) => codePoint > 0x20 && codePoint < 0x7f);
    if (basic.some(isBlank) || inked.filter(isBlank).length > inked.length * MAX_BLANK_SHARE) throw new TypeError('letters without outlines');
    const offsets = (font as Font & { readonly loca?: { readonly offsets: readonly number[] } }).loca?.offsets;
    for (let id = 0; id < font.numGlyphs; id += 1) {
      // A glyph without an outline that stands last has its place behind the end of the table.
      if (offsets && offsets[id] === offsets[id + 1]) continue;
      const glyph = font.getGlyph(id);
      if (!Number.isFinite(glyph.advanceWidth)) throw new TypeError('no width');
      for (const { args } of glyph.path.commands) if (args.some((value) => !Number.isFinite(value))) throw new TypeError('no outline');
    }
  } catch {
    throw damaged();
  }
}
