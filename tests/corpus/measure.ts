import { createCanvas, Path2D, type SKRSContext2D } from '@napi-rs/canvas';
import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { contrastOfLuminances, luminanceOfLinear, srgbToLinear } from '../../src/core/colour/contrast.ts';
import type { CutReport, PlacedText } from '../../src/core/compose/report.ts';
import type { Placement } from '../../src/core/network/network-sheet.ts';
import { paint } from '../../src/core/scene/paint.ts';
import type { ArtworkNode, GlyphsNode, Scene } from '../../src/core/scene/scene.ts';
import type { Typesetter } from '../../src/core/text/typesetter.ts';
import type { PaintedCut } from '../../src/server/render/canvas-painter.ts';
import { avoidableLoneWord, brokenWord } from './line-rules.ts';

export type ViolationKind = 'contrast' | 'size' | 'safe-zone' | 'overlap' | 'subject' | 'unnamed-overflow' | 'broken-word' | 'lone-word' | 'one-word-line' | 'parted-number';

export interface Violation {
  readonly kind: ViolationKind;
  readonly what: string;
}

export interface MeasureInput {
  readonly scene: Scene;
  readonly report: CutReport;
  /** The cut as the server paints it. */
  readonly painted: PaintedCut;
  readonly placement: Placement;
  readonly book: BrandBook;
  readonly language: string;
  readonly typesetter: Typesetter;
  /** Roles of the slots that are labels: their floor is lower. */
  readonly labelSlots: ReadonlySet<string>;
}

/** WCAG's large text as it is seen on a phone: from 66 px, or 52 px in a bold weight, at 1080 wide. */
const LARGE_PX = 66;
const LARGE_BOLD_PX = 52;
const [MIN_TEXT, MIN_LARGE] = [4.5, 3];
const [MIN_READING_PX, MIN_LABEL_PX] = [32, 26];
/** Ink is where a glyph covers a pixel whole; around it lies what it is read against. */
const INK_FROM = 250;
const NEAR_PX = 6;
/** Single pixels of noise are not what a text is read against: the darkest and lightest few in a hundred are left out. */
const NOISE_SHARE = 0.04;
/** Of boxes with more pixels than this every fourth is enough. */
const LARGE_BOX_PX = 40_000;
const EDGE_TOLERANCE_PX = 1.5;

/** Measures one cut from its pixels; an overflow that the report names excuses what follows from it. */
export function measureCut(input: MeasureInput): readonly Violation[] {
  const { scene, report } = input;
  const overflows = report.texts.some((text) => text.kind === 'overflows');
  const texts = scene.nodes.filter((node): node is GlyphsNode => node.kind === 'glyphs' && node.slot !== undefined);
  const marks = scene.nodes.filter((node): node is ArtworkNode => node.kind === 'artwork' && isMark(node, input.book));
  const masks = texts.map((node) => ({ node, mask: maskOf(input, { ...node, alpha: 1, colour: '#ffffff' }) }));
  const markMasks = marks.map((node) => maskOf(input, { ...node, paths: node.paths.map((path) => ({ ...path, fill: '#ffffff' })) }));
  const found: Violation[] = [...hiddenMarks(scene, marks, markMasks)];
  if (!overflows) found.push(...outsideSafeZone(input, [...masks.map(({ node, mask }) => ({ what: node.slot ?? '', mask })), ...markMasks.map((mask) => ({ what: 'mark', mask }))]), ...overlapping(input, masks, markMasks));
  for (const { node, mask } of masks) {
    if (overflows) continue;
    found.push(...tooSmall(input, node, mask, report), ...tooFaint(input, node, mask, report));
  }
  for (const placed of report.placed) found.push(...badLines(input, placed, overflows));
  return found;
}

/** A window in a picture leaves its corners free: this much of its sides. */
const WINDOW_CORNERS = 0.15;

/** Marks that a picture is painted over. */
function hiddenMarks(scene: Scene, marks: readonly ArtworkNode[], masks: readonly Mask[]): readonly Violation[] {
  return marks.flatMap((mark, index): Violation[] => {
    const box = masks[index]?.box;
    const over = scene.nodes.slice(scene.nodes.indexOf(mark) + 1).find((node) => {
      if (node.kind !== 'picture' || !box) return false;
      const { xPx, yPx, widthPx, heightPx } = node.box;
      const [insetX, insetY] = node.mask === undefined ? [0, 0] : [widthPx * WINDOW_CORNERS, heightPx * WINDOW_CORNERS];
      return box.left < xPx + widthPx - insetX && box.right > xPx + insetX && box.top < yPx + heightPx - insetY && box.bottom > yPx + insetY;
    });
    return over ? [{ kind: 'overlap', what: 'a picture over the mark' }] : [];
  });
}

function isMark(node: ArtworkNode, book: BrandBook): boolean {
  return book.marks.some((mark) => mark.kind === 'vector' && mark.paths === node.paths);
}

/** Coverage of a node's ink in a part of the cut, a byte a pixel. Coordinates are those of the cut. */
interface Mask {
  readonly region: Region;
  readonly coverage: Uint8Array;
  /** Box of the pixels that are covered; null when there are none. */
  readonly box: Region | null;
}

interface Region {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Ink fainter than this is an edge. */
const EDGE_COVERAGE = 64;

/** Paints one node alone, by the painter that paints all of them, and looks where its ink is. */
function maskOf({ scene, typesetter }: MeasureInput, node: GlyphsNode | ArtworkNode): Mask {
  const region = regionOf(node, scene);
  const [width, height] = [region.right - region.left, region.bottom - region.top];
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  paint<Path2D, never>(context as SKRSContext2D as never, { size: scene.size, nodes: [movedBy(node, -region.left, -region.top)] }, 1, {
    path: (data) => new Path2D(data),
    glyph: (fontKey, glyphId) => ({ path: glyphPath(typesetter, fontKey, glyphId), unitsPerEm: typesetter.unitsPerEm(fontKey) }),
    picture: () => null,
  });
  const rgba = canvas.data();
  const coverage = new Uint8Array(width * height);
  let [left, top, right, bottom] = [Infinity, Infinity, -1, -1];
  for (let at = 0; at < coverage.length; at += 1) {
    const value = rgba[at * 4 + 3] ?? 0;
    if (value === 0) continue;
    coverage[at] = value;
    if (value < EDGE_COVERAGE) continue;
    const [x, y] = [region.left + (at % width), region.top + Math.floor(at / width)];
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  }
  return { region, coverage, box: right < 0 ? null : { left, top, right: right + 1, bottom: bottom + 1 } };
}

function movedBy(node: GlyphsNode | ArtworkNode, xPx: number, yPx: number): GlyphsNode | ArtworkNode {
  if (node.kind === 'artwork') return { ...node, xPx: node.xPx + xPx, yPx: node.yPx + yPx };
  return { ...node, glyphs: node.glyphs.map((glyph) => ({ ...glyph, xPx: glyph.xPx + xPx, yPx: glyph.yPx + yPx })) };
}

const glyphPaths = new Map<string, Path2D>();

function glyphPath(typesetter: Typesetter, fontKey: string, glyphId: number): Path2D {
  const key = `${fontKey}/${glyphId}`;
  const path = glyphPaths.get(key) ?? new Path2D(typesetter.outline(fontKey, glyphId));
  glyphPaths.set(key, path);
  return path;
}

/** The part of the cut that a node's ink can reach: far around the origins of its glyphs, or the box of its artwork. */
function regionOf(node: GlyphsNode | ArtworkNode, { size }: Scene): Region {
  const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
  const clamp = (region: Region): Region => {
    const [left, top] = [within(Math.floor(region.left), 0, size.widthPx - 1), within(Math.floor(region.top), 0, size.heightPx - 1)];
    return { left, top, right: within(Math.ceil(region.right), left + 1, size.widthPx), bottom: within(Math.ceil(region.bottom), top + 1, size.heightPx) };
  };
  // How far artwork reaches is looked up in its pixels: to the edges of the cut.
  if (node.kind === 'artwork') return clamp({ left: node.xPx - 2, top: node.yPx - 2, right: size.widthPx, bottom: size.heightPx });
  const reach = node.sizePx * 1.6;
  const xs = node.glyphs.map((glyph) => glyph.xPx);
  const ys = node.glyphs.map((glyph) => glyph.yPx);
  return clamp({ left: Math.min(...xs) - reach, top: Math.min(...ys) - reach, right: Math.max(...xs) + reach, bottom: Math.max(...ys) + reach });
}

function coverageAt({ region, coverage }: Mask, x: number, y: number): number {
  if (x < region.left || y < region.top || x >= region.right || y >= region.bottom) return 0;
  return coverage[(y - region.top) * (region.right - region.left) + (x - region.left)] ?? 0;
}

function outsideSafeZone({ placement, scene }: MeasureInput, masks: readonly { readonly what: string; readonly mask: Mask }[]): readonly Violation[] {
  const { widthPx, heightPx } = scene.size;
  const { top, right, bottom, left } = placement.safePercent;
  const safe = { left: (left / 100) * widthPx, top: (top / 100) * heightPx, right: widthPx * (1 - right / 100), bottom: heightPx * (1 - bottom / 100) };
  return masks.flatMap(({ what, mask: { box } }): Violation[] => {
    if (!box) return [];
    const out = Math.max(safe.left - box.left, safe.top - box.top, box.right - safe.right, box.bottom - safe.bottom);
    const isCutOff = box.left <= 0 || box.top <= 0 || box.right >= widthPx || box.bottom >= heightPx;
    if (isCutOff) return [{ kind: 'unnamed-overflow', what: `${what} runs off the cut` }];
    return out > EDGE_TOLERANCE_PX ? [{ kind: 'safe-zone', what: `${what} by ${out.toFixed(0)} px` }] : [];
  });
}

function overlapping({ scene }: MeasureInput, texts: readonly { readonly node: GlyphsNode; readonly mask: Mask }[], marks: readonly Mask[]): readonly Violation[] {
  const owner = new Int16Array(scene.size.widthPx * scene.size.heightPx).fill(-1);
  const all = [...texts.map(({ node, mask }) => ({ what: node.slot ?? '', mask })), ...marks.map((mask) => ({ what: 'mark', mask }))];
  const found = new Map<string, Violation>();
  all.forEach(({ mask }, index) => {
    forEachCovered(mask, 128, (x, y) => {
      const at = y * scene.size.widthPx + x;
      const before = owner[at] ?? -1;
      if (before >= 0 && before !== index) found.set(`${before}-${index}`, { kind: 'overlap', what: `${all[index]?.what} over ${all[before]?.what}` });
      owner[at] = index;
    });
  });
  return [...found.values()];
}

function forEachCovered(mask: Mask, from: number, visit: (x: number, y: number) => void): void {
  if (!mask.box) return;
  for (let y = mask.box.top; y < mask.box.bottom; y += 1) for (let x = mask.box.left; x < mask.box.right; x += 1) if (coverageAt(mask, x, y) >= from) visit(x, y);
}

/** The size that glyphs are painted at, checked against the height of their ink: capitals and figures are over half an em high. */
function tooSmall({ scene, labelSlots }: MeasureInput, node: GlyphsNode, { box }: Mask, report: CutReport): readonly Violation[] {
  const at1080 = node.sizePx / (scene.size.widthPx / 1080);
  const floor = labelSlots.has((node.slot ?? '').split('.')[0] ?? '') ? MIN_LABEL_PX : MIN_READING_PX;
  if (at1080 < floor - 0.05) return [{ kind: 'size', what: `${node.slot} is ${at1080.toFixed(1)} px at 1080` }];
  // Where too much of everything is named already, what comes last runs out of the cut.
  if (report.texts.some((text) => text.kind === 'overflows')) return [];
  const inkPx = box ? box.bottom - box.top : 0;
  return box && inkPx < node.sizePx * 0.3 && node.glyphs.length > 3 ? [{ kind: 'size', what: `${node.slot} shows only ${inkPx} px of ink` }] : [];
}

/** Contrast of a text's ink against what is near it, both taken from the painted cut. */
function tooFaint({ painted, scene }: MeasureInput, node: GlyphsNode, mask: Mask, report: CutReport): readonly Violation[] {
  const named = report.findings.some((finding) => finding.kind === 'low-contrast' && finding.slot === (node.slot ?? '').split('.')[0]);
  if (named || !mask.box) return [];
  const ink: number[] = [];
  const near: number[] = [];
  const { left, top, right, bottom } = mask.box;
  const step = (right - left) * (bottom - top) > LARGE_BOX_PX ? 2 : 1;
  for (let y = Math.max(0, top - NEAR_PX); y < Math.min(scene.size.heightPx, bottom + NEAR_PX); y += step) {
    for (let x = Math.max(0, left - NEAR_PX); x < Math.min(scene.size.widthPx, right + NEAR_PX); x += step) {
      const at = y * scene.size.widthPx + x;
      const covered = coverageAt(mask, x, y);
      if (covered >= INK_FROM) ink.push(luminanceAt(painted, at));
      else if (covered === 0 && isNearInk(mask, x, y)) near.push(luminanceAt(painted, at));
    }
  }
  if (ink.length < 12 || near.length < 12) return [];
  ink.sort((a, b) => a - b);
  near.sort((a, b) => a - b);
  const own = ink[Math.floor(ink.length / 2)] ?? 0;
  const darkest = near[Math.floor(near.length * NOISE_SHARE)] ?? 0;
  const lightest = near[Math.ceil(near.length * (1 - NOISE_SHARE)) - 1] ?? 0;
  const ratio = Math.min(contrastOfLuminances(own, darkest), contrastOfLuminances(own, lightest));
  const at1080 = node.sizePx / (scene.size.widthPx / 1080);
  const isBold = node.glyphs.some((glyph) => /-(?:[6-9]00)$/.test(glyph.fontKey));
  const needed = at1080 >= LARGE_PX || (isBold && at1080 >= LARGE_BOLD_PX) ? MIN_LARGE : MIN_TEXT;
  // A quantised channel moves a ratio by a hundredth or two.
  return ratio < needed - 0.05 ? [{ kind: 'contrast', what: `${node.slot} has ${ratio.toFixed(2)}, needs ${needed}` }] : [];
}

const AROUND = [[-NEAR_PX, 0], [NEAR_PX, 0], [0, -NEAR_PX], [0, NEAR_PX], [-3, -3], [3, 3], [-3, 3], [3, -3]] as const;

function isNearInk(mask: Mask, x: number, y: number): boolean {
  return AROUND.some(([dx, dy]) => coverageAt(mask, x + dx, y + dy) >= INK_FROM);
}

const linear = Float64Array.from({ length: 256 }, (_, value) => srgbToLinear(value / 255));

function luminanceAt({ rgba }: PaintedCut, at: number): number {
  const channel = (offset: number): number => linear[rgba[at * 4 + offset] ?? 0] ?? 0;
  return luminanceOfLinear(channel(0), channel(1), channel(2));
}

function badLines({ language, typesetter, scene, book, labelSlots }: MeasureInput, placed: PlacedText, overflows: boolean): readonly Violation[] {
  const node = scene.nodes.find((each): each is GlyphsNode => each.kind === 'glyphs' && each.slot === placed.slot);
  const broken = brokenWord(placed.lineTexts, language);
  const found: Violation[] = broken === null ? [] : [{ kind: 'broken-word', what: `${placed.slot}: ${broken}` }];
  const fontKeys = [...new Set(node?.glyphs.map((glyph) => glyph.fontKey) ?? [])].filter((key) => key !== 'emoji');
  if (!overflows && fontKeys.length > 0) {
    // Labels are tracked: words that would fit without it may not.
    const trackingEm = labelSlots.has(placed.slot) ? book.type.label.trackingEm : 0;
    const lone = avoidableLoneWord(placed.lineTexts, placed.roomPx / placed.sizePx, (text) => (typesetter.shape(text, fontKeys, trackingEm).offsetsEm.at(-1) ?? 0) - trackingEm);
    if (lone !== null) found.push({ kind: 'lone-word', what: `${placed.slot}: ${lone}` });
  }
  return found;
}
