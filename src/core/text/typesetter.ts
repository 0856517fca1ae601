import bidiFactory from 'bidi-js';
import { Blob as FontBlob, Buffer as ShapeBuffer, Direction, Face, Feature, Font, MetricsTag, shape, Variation } from 'harfbuzzjs';
import { LRUCache } from 'lru-cache';
import type { Artwork } from '../artwork/artwork.ts';
import { EMOJI_FONT, EMOJI_METRICS, findEmoji, type EmojiAt } from './emoji.ts';
import type { FontFeature } from './font-features.ts';
import { hyphenateText, SOFT_HYPHEN, type Hyphenate } from './hyphenation.ts';
import type { Language } from '../words/language.ts';
import { OPTICAL_AXIS } from './optical-size.ts';

/** One placed glyph of a run. Lengths are in em; `cluster` is the UTF-16 offset of the text it stands for. */
export interface Glyph {
  readonly id: number;
  readonly cluster: number;
  readonly advanceEm: number;
  readonly dxEm: number;
  readonly dyEm: number;
}

/** Text of one typeface and one bidi level; glyphs are in visual order, left to right. */
export interface GlyphRun {
  readonly fontKey: string;
  readonly level: number;
  readonly start: number;
  readonly end: number;
  readonly glyphs: readonly Glyph[];
}

/** A text shaped once at the size of one em, ready to be broken into lines at any size. */
export interface ShapedText {
  readonly text: string;
  readonly baseLevel: number;
  readonly runs: readonly GlyphRun[];
  /** `offsetsEm[i]` is the advance of all that stands before UTF-16 offset i in reading order. */
  readonly offsetsEm: Float64Array;
  /** How far ink reaches above and below the baseline, in em: accents and ascenders, descenders, marks of any script. */
  readonly inkTopEm: number;
  readonly inkBottomEm: number;
  /** Characters that no typeface at hand can write. */
  readonly missing: readonly string[];
  readonly language: Language | undefined;
  /** Room behind every glyph, in em; the offsets count it. */
  readonly trackingEm: number;
  /** What a line that ends at a soft hyphen shows; null in texts without soft hyphens. */
  readonly hyphen: { readonly fontKey: string; readonly id: number; readonly advanceEm: number } | null;
}

/** Heights of a typeface, in em above (or below, for descent) the baseline. */
export interface FontHeights {
  readonly capEm: number;
  readonly descentEm: number;
}

/** How far the ink of a glyph reaches from its origin, in em; `leftEm` is negative where it begins before it. */
export interface GlyphReach {
  readonly topEm: number;
  readonly bottomEm: number;
  readonly leftEm: number;
  readonly rightEm: number;
}

const NO_REACH: GlyphReach = { topEm: 0, bottomEm: 0, leftEm: 0, rightEm: 0 };
const EMOJI_REACH: GlyphReach = { topEm: EMOJI_METRICS.sizeEm - EMOJI_METRICS.descentEm, bottomEm: EMOJI_METRICS.descentEm, leftEm: 0, rightEm: EMOJI_METRICS.advanceEm };

interface LoadedFont {
  readonly face: Face;
  readonly font: Font;
  /** The ends of its axis of optical sizes; null where it has none. */
  readonly opticalSizes: { readonly min: number; readonly max: number } | null;
  readonly unitsPerEm: number;
  readonly outlines: Map<number, string>;
  readonly reaches: Map<number, GlyphReach>;
  readonly heights: FontHeights;
}

function loadedFont(face: Face, font: Font): LoadedFont {
  const unitsPerEm = face.upem;
  const cap = font.getMetricPosition(MetricsTag.CAP_HEIGHT) ?? unitsPerEm * 0.7;
  const heights = { capEm: cap / unitsPerEm, descentEm: Math.min(DEEPEST_DESCENT_EM, -font.hExtents().descender / unitsPerEm) };
  return { face, font, opticalSizes: face.getAxisInfos()[OPTICAL_AXIS] ?? null, unitsPerEm, outlines: new Map(), reaches: new Map(), heights };
}

const bidi = bidiFactory();
/** Descents beyond this share of an em are room for marks that Latin text never uses. */
const DEEPEST_DESCENT_EM = 0.24;
const SHAPED_CACHE_SIZE = 400;
/** Letters and signs that are blank by their nature: the empty Braille pattern and the fillers of Hangul. */
const BLANK_LETTERS: ReadonlySet<number> = new Set([0x2800, 0x115f, 0x1160, 0x3164, 0xffa0]);

/** Shapes text with the typefaces it was given. The only state is what it has loaded and worked out before. */
export class Typesetter {
  readonly #fonts = new Map<string, LoadedFont>();
  readonly #shaped = new LRUCache<string, ShapedText>({ max: SHAPED_CACHE_SIZE });
  readonly #hyphenations = new Map<Language, Hyphenate>();
  readonly #emoji = new Map<string, number>();
  readonly #emojiArt: Artwork[] = [];

  has(fontKey: string): boolean {
    return this.#fonts.has(fontKey);
  }

  /** Adds a typeface from the bytes of a TTF or OTF file. */
  add(fontKey: string, bytes: Uint8Array): void {
    const face = new Face(new FontBlob(bytes));
    for (const key of this.#fonts.keys()) if (key.startsWith(`${fontKey}@`)) this.#fonts.delete(key);
    this.#fonts.set(fontKey, loadedFont(face, new Font(face)));
    this.#shaped.clear();
  }

  /** The key under which a typeface is drawn for a size on its axis of optical sizes; its own key where it has no such axis, or is not there. */
  drawnFor(fontKey: string, opticalSize: number): string {
    const base = this.#fonts.get(fontKey);
    if (!base?.opticalSizes) return fontKey;
    const size = Math.min(base.opticalSizes.max, Math.max(base.opticalSizes.min, opticalSize));
    const key = `${fontKey}@${size}`;
    if (!this.#fonts.has(key)) {
      const font = new Font(base.face);
      font.setVariations([new Variation(OPTICAL_AXIS, size)]);
      this.#fonts.set(key, loadedFont(base.face, font));
    }
    return key;
  }

  canHyphenate(language: Language): boolean {
    return this.#hyphenations.has(language);
  }

  /** Adds the hyphenation of a language. */
  addHyphenation(language: Language, hyphenate: Hyphenate): void {
    this.#hyphenations.set(language, hyphenate);
  }

  /** A text with soft hyphens in its long words; the same text where the hyphenation of its language has not been loaded. */
  hyphenate(text: string, language: Language): string {
    const hyphenate = this.#hyphenations.get(language);
    return hyphenate ? hyphenateText(text, hyphenate) : text;
  }

  hasEmoji(code: string): boolean {
    return this.#emoji.has(code);
  }

  /** Adds the picture of an emoji. */
  addEmoji(code: string, art: Artwork): void {
    if (this.#emoji.has(code)) return;
    this.#emoji.set(code, this.#emojiArt.length);
    this.#emojiArt.push(art);
    this.#shaped.clear();
  }

  /**
   * The picture of an emoji glyph.
   * @throws RangeError when there is none with this id
   */
  emojiArt(id: number): Artwork {
    const art = this.#emojiArt[id];
    if (!art) throw new RangeError(`There is no emoji ${id}`);
    return art;
  }

  heightsOf(fontKey: string): FontHeights {
    return this.#get(fontKey).heights;
  }

  /** Outline of a glyph as SVG path data in em units times 1000, y upwards. */
  outline(fontKey: string, glyphId: number): string {
    const loaded = this.#get(fontKey);
    let path = loaded.outlines.get(glyphId);
    if (path === undefined) {
      path = loaded.font.glyphToPath(glyphId);
      loaded.outlines.set(glyphId, path);
    }
    return path;
  }

  unitsPerEm(fontKey: string): number {
    return this.#get(fontKey).unitsPerEm;
  }

  /** Box of the ink of a text's first glyph, in em, y upwards from the baseline. */
  inkOfFirstGlyph(text: string, fontKey: string): { glyphId: number; leftEm: number; bottomEm: number; widthEm: number; heightEm: number } {
    const loaded = this.#get(fontKey);
    const glyphId = loaded.font.nominalGlyph(text.codePointAt(0) ?? 0x20) ?? 0;
    const extents = loaded.font.glyphExtents(glyphId);
    const em = loaded.unitsPerEm;
    if (!extents) return { glyphId, leftEm: 0, bottomEm: 0, widthEm: 0, heightEm: 0 };
    return {
      glyphId,
      leftEm: extents.xBearing / em,
      bottomEm: (extents.yBearing + extents.height) / em,
      widthEm: extents.width / em,
      heightEm: -extents.height / em,
    };
  }

  /**
   * Shapes one paragraph.
   * @param fontKeys the wanted typeface first, then those that help out
   * @param trackingEm room added behind every glyph
   * @param language what its lines may be broken by; undefined where it is not known
   * @param features what its typefaces are asked for
   */
  shape(text: string, fontKeys: readonly string[], trackingEm: number, language?: Language, features: readonly FontFeature[] = []): ShapedText {
    const cacheKey = `${fontKeys.join(',')}|${trackingEm}|${language ?? ''}|${features.map(({ tag, value, start }) => `${tag}${value}${start ?? ''}`).join()}|${text}`;
    const known = this.#shaped.get(cacheKey);
    if (known) return known;
    const shaped = this.#shapeAfresh(text, fontKeys, trackingEm, language, features);
    this.#shaped.set(cacheKey, shaped);
    return shaped;
  }

  #shapeAfresh(text: string, fontKeys: readonly string[], trackingEm: number, language: Language | undefined, features: readonly FontFeature[]): ShapedText {
    const levels = bidi.getEmbeddingLevels(text);
    const missing = new Set<string>();
    const runs: GlyphRun[] = [];
    for (const item of this.#itemise(text, levels.levels, fontKeys, missing)) {
      runs.push(item.fontKey === EMOJI_FONT ? this.#emojiRun(text, item, trackingEm) : this.#shapeItem(text, item, trackingEm, language, features));
    }
    const advances = new Float64Array(text.length + 1);
    for (const run of runs) for (const glyph of run.glyphs) advances[glyph.cluster + 1] = (advances[glyph.cluster + 1] ?? 0) + glyph.advanceEm;
    for (let index = 1; index < advances.length; index += 1) advances[index] = (advances[index] ?? 0) + (advances[index - 1] ?? 0);
    return { text, baseLevel: levels.paragraphs[0]?.level ?? 0, runs, offsetsEm: advances, ...this.#inkReach(runs), missing: [...missing], language, trackingEm, hyphen: text.includes(SOFT_HYPHEN) ? this.#hyphen(fontKeys[0] ?? '', trackingEm) : null };
  }

  #hyphen(fontKey: string, trackingEm: number): ShapedText['hyphen'] {
    const [glyph] = this.#shapeItem('-', { fontKey, level: 0, start: 0, end: 1 }, trackingEm, undefined, []).glyphs;
    return glyph === undefined ? null : { fontKey, id: glyph.id, advanceEm: glyph.advanceEm };
  }

  #inkReach(runs: readonly GlyphRun[]): { inkTopEm: number; inkBottomEm: number } {
    let [inkTopEm, inkBottomEm] = [0, 0];
    for (const run of runs) {
      for (const glyph of run.glyphs) {
        const reach = this.glyphReach(run.fontKey, glyph.id);
        inkTopEm = Math.max(inkTopEm, reach.topEm + glyph.dyEm);
        inkBottomEm = Math.max(inkBottomEm, reach.bottomEm - glyph.dyEm);
      }
    }
    return { inkTopEm, inkBottomEm };
  }

  /** How far a glyph's ink reaches from its origin. */
  glyphReach(fontKey: string, glyphId: number): GlyphReach {
    if (fontKey === EMOJI_FONT) return EMOJI_REACH;
    const loaded = this.#get(fontKey);
    let reach = loaded.reaches.get(glyphId);
    if (!reach) {
      const extents = loaded.font.glyphExtents(glyphId);
      const em = loaded.unitsPerEm;
      // A glyph's height counts downwards from its top.
      reach = extents ? { topEm: extents.yBearing / em, bottomEm: -(extents.yBearing + extents.height) / em, leftEm: extents.xBearing / em, rightEm: (extents.xBearing + extents.width) / em } : NO_REACH;
      loaded.reaches.set(glyphId, reach);
    }
    return reach;
  }

  /** Cuts a text into stretches of one bidi level that one typeface can write. Marks stay with the character they follow. */
  #itemise(text: string, levels: Uint8Array, fontKeys: readonly string[], missing: Set<string>): readonly Omit<GlyphRun, 'glyphs'>[] {
    const items: { fontKey: string; level: number; start: number; end: number }[] = [];
    const first = fontKeys[0] ?? '';
    const emoji = new Map(findEmoji(text).map((each): [number, EmojiAt] => [each.start, each]));
    for (let offset = 0; offset < text.length; ) {
      const codePoint = text.codePointAt(offset) ?? 0;
      const level = levels[offset] ?? 0;
      const picture = emoji.get(offset);
      if (picture) {
        if (this.#emoji.has(picture.code)) items.push({ fontKey: EMOJI_FONT, level, start: offset, end: picture.end });
        else missing.add(text.slice(picture.start, picture.end));
        // An emoji without a drawing is reported, and takes no room.
        offset = picture.end;
        continue;
      }
      const length = codePoint > 0xffff ? 2 : 1;
      const open = items.at(-1);
      const neutral = /^[\p{M}\p{Z}\p{C}]$/u.test(String.fromCodePoint(codePoint));
      let fontKey = open && neutral && open.fontKey !== EMOJI_FONT ? open.fontKey : fontKeys.find((key) => this.#get(key).font.nominalGlyph(codePoint));
      if (fontKey === undefined) {
        if (!neutral) missing.add(String.fromCodePoint(codePoint));
        fontKey = first;
      } else if (!neutral && !BLANK_LETTERS.has(codePoint) && !this.#isDrawn(fontKey, codePoint)) {
        missing.add(String.fromCodePoint(codePoint));
      }
      if (open && open.fontKey === fontKey && open.level === level && open.end === offset) open.end = offset + length;
      else items.push({ fontKey, level, start: offset, end: offset + length });
      offset += length;
    }
    return items;
  }

  /** Half a typeface names its letters and draws nothing for them. */
  #isDrawn(fontKey: string, codePoint: number): boolean {
    const glyphId = this.#get(fontKey).font.nominalGlyph(codePoint);
    return glyphId !== null && glyphId !== undefined && this.outline(fontKey, glyphId) !== '';
  }

  #emojiRun(text: string, item: Omit<GlyphRun, 'glyphs'>, trackingEm: number): GlyphRun {
    const [emoji] = findEmoji(text.slice(item.start, item.end));
    const id = this.#emoji.get(emoji?.code ?? '') ?? 0;
    return { ...item, glyphs: [{ id, cluster: item.start, advanceEm: EMOJI_METRICS.advanceEm + trackingEm, dxEm: 0, dyEm: 0 }] };
  }

  #shapeItem(text: string, item: Omit<GlyphRun, 'glyphs'>, trackingEm: number, language: Language | undefined, features: readonly FontFeature[]): GlyphRun {
    const { font, unitsPerEm } = this.#get(item.fontKey);
    const buffer = new ShapeBuffer();
    buffer.addText(text, item.start, item.end - item.start);
    buffer.guessSegmentProperties();
    if (language !== undefined) buffer.setLanguage(language);
    buffer.setDirection(item.level % 2 === 1 ? Direction.RTL : Direction.LTR);
    shape(font, buffer, features.map(({ tag, value, start, end }) => new Feature(tag, value, start, end)));
    // A soft hyphen shows, and takes room, at a line's end alone.
    const shown = buffer.getGlyphInfosAndPositions().filter((glyph) => text[glyph.cluster] !== SOFT_HYPHEN);
    const glyphs = shown.map(
      (glyph): Glyph => ({
        id: glyph.codepoint,
        cluster: glyph.cluster,
        advanceEm: (glyph.xAdvance ?? 0) / unitsPerEm + trackingEm,
        dxEm: (glyph.xOffset ?? 0) / unitsPerEm,
        dyEm: (glyph.yOffset ?? 0) / unitsPerEm,
      }),
    );
    return { ...item, glyphs };
  }

  #get(fontKey: string): LoadedFont {
    const loaded = this.#fonts.get(fontKey);
    if (!loaded) throw new RangeError(`The typeface '${fontKey}' has not been loaded`);
    return loaded;
  }
}
