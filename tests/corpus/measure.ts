import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { contrastOfLuminances, luminanceOfLinear, srgbToLinear } from '../../src/core/colour/contrast.ts';
import type { CutReport, PlacedText } from '../../src/core/compose/report.ts';
import type { Placement } from '../../src/core/network/network-sheet.ts';
import type { ArtworkNode, GlyphsNode, Scene } from '../../src/core/scene/scene.ts';
import type { Typesetter } from '../../src/core/text/typesetter.ts';
import type { PaintedCut } from '../../src/server/render/canvas-painter.ts';
import { avoidableLoneWord, brokenWord } from './line-rules.ts';
import { forEachCovered, indexAt, maskOf, NEAR_PX, type Mask, type Region } from './mask.ts';

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
  const masks = texts.map((node) => ({ node, mask: maskOf(input.scene, input.typesetter, { ...node, alpha: 1, colour: '#ffffff' }) }));
  const markMasks = marks.map((node) => maskOf(input.scene, input.typesetter, { ...node, paths: node.paths.map((path) => ({ ...path, fill: '#ffffff' })) }));
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
    forEachCovered(mask, 128, scene.size.widthPx, (at) => {
      const before = owner[at] ?? -1;
      if (before >= 0 && before !== index) found.set(`${before}-${index}`, { kind: 'overlap', what: `${all[index]?.what} over ${all[before]?.what}` });
      owner[at] = index;
    });
  });
  return [...found.values()];
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
  const inkNear = luminancesAt(painted, scene.size, mask, mask.box);
  const [ink, near] = [Float64Array.from(inkNear.ink).sort(), Float64Array.from(inkNear.near).sort()];
  if (ink.length < 12 || near.length < 12) return [];
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

/** Luminances of a text's ink, and of what it is read against: what is near its ink and none of it. */
function luminancesAt(painted: PaintedCut, { widthPx, heightPx }: Scene['size'], mask: Mask, { left, top, right, bottom }: Region): { readonly ink: readonly number[]; readonly near: readonly number[] } {
  const ink: number[] = [];
  const near: number[] = [];
  const { coverage, stride } = mask;
  const around = AROUND.map(([dx, dy]) => dy * stride + dx);
  const step = (right - left) * (bottom - top) > LARGE_BOX_PX ? 2 : 1;
  for (let y = Math.max(0, top - NEAR_PX); y < Math.min(heightPx, bottom + NEAR_PX); y += step) {
    for (let x = Math.max(0, left - NEAR_PX), inMask = indexAt(mask, x, y); x < Math.min(widthPx, right + NEAR_PX); x += step, inMask += step) {
      const covered = coverage[inMask] ?? 0;
      if (covered >= INK_FROM) ink.push(luminanceAt(painted, y * widthPx + x));
      else if (covered === 0 && around.some((offset) => (coverage[inMask + offset] ?? 0) >= INK_FROM)) near.push(luminanceAt(painted, y * widthPx + x));
    }
  }
  return { ink, near };
}

const AROUND = [[-NEAR_PX, 0], [NEAR_PX, 0], [0, -NEAR_PX], [0, NEAR_PX], [-3, -3], [3, 3], [-3, 3], [3, -3]] as const;

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
