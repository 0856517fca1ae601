import { resolveTreatment } from '../scene/resolve-treatment.ts';
import type { Treatment } from '../scene/treatment.ts';
import { resolveScheme, type BrandBook, type BrandMark, type ResolvedScheme } from '../brand/brand-book.ts';
import { boxInCut, likelySubject } from '../crop/known-subject.ts';
import { MIN_LARGE_CONTRAST, MIN_TEXT_CONTRAST } from '../colour/contrast.ts';
import { boxAround, boxContains, growBox, intersectBoxes, snapBoxOutward, type Box } from '../geometry/box.ts';
import type { OwnCrop } from '../piece/adjustment.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import type { PictureNode, SceneGlyph, SceneNode } from '../scene/scene.ts';
import { walkParts, type Afloat, type ArtworkPart, type Field, type MarkPart, type MotifPart, type Part, type PicturePart, type SignPart, type StackPart, type TextPart, type VeilPart } from '../template/parts.ts';
import type { MotifShape } from '../motif/motif-shape.ts';
import { drawMotif } from '../motif/motif.ts';
import { motifFor } from '../motif/own-motif.ts';
import { placeMotif } from './place-motif.ts';
import { lineText } from '../text/break-lines.ts';
import { EMOJI_FONT, EMOJI_METRICS } from '../text/emoji.ts';
import { wordNumbers } from '../text/word-numbers.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { Backdrop, chooseInk } from './backdrop.ts';
import { ornamentColour } from '../colour/ornament-colour.ts';
import { shadeOver } from '../colour/shade-over.ts';
import { chosenMark, type Bound } from './bind.ts';
import type { CutFrame } from './cut-frame.ts';
import { slotOfRow } from './expand.ts';
import type { FitOutcome } from './fit.ts';
import type { LaidOut } from './layout.ts';
import { arrowPath, dotPaths } from './page-marks.ts';
import { chooseMark, isAlike, weakest } from './choose-mark.ts';
import { coveringText, fixedCovers, hiddenShare, type PaintedOver } from './covered-subject.ts';
import { glyphPlaces } from './glyph-places.ts';
import { markFindings } from './mark-findings.ts';
import { blockExtents, markBoxes, ruleBoxes, textBoxes } from './ink-boxes.ts';
import { NO_HELP, readingHelp } from './reading-help.ts';
import { subjectInCut, veilOver } from './veil-over.ts';
import { helpShapes, isLargeBlock, pointerTo, type BlockOnPhoto } from './words-on-photo.ts';
import { fieldPath, rectPath, slantedPath } from './part-outlines.ts';
import { emptyPlace, showPicture } from './show-picture.ts';
import type { Front } from './stand-before.ts';
import { throughBox } from './through-box.ts';
import type { CutFinding, PlacedBlock, PlacedFront, PlacedPicture, PlacedText } from './report.ts';
import { linesIn, sizeInWidth, type SetText } from './set-text.ts';

export interface EmitInput {
  readonly book: BrandBook;
  readonly scheme: ResolvedScheme;
  readonly frame: CutFrame;
  readonly bound: Bound;
  /** The marks that the layout was made for; where it says none, what lies behind a place chooses. */
  readonly marks: ReadonlyMap<MarkPart, BrandMark>;
  readonly texts: ReadonlyMap<TextPart, SetText>;
  readonly fitted: FitOutcome;
  /** Crops that a person has moved in this cut, by slot. */
  readonly crops: Readonly<Record<string, OwnCrop>>;
  /** What lies over pictures, where the layout has put it: crops keep subjects out of it. */
  readonly covers: readonly Box[];
  /** Subjects that stand before letters. */
  readonly fronts: ReadonlyMap<TextPart, Front>;
  /** Where the slide stands among the others. */
  readonly place: SlidePlace;
  readonly typesetter: Typesetter;
}

export interface Emitted {
  readonly nodes: readonly SceneNode[];
  readonly placed: readonly PlacedText[];
  readonly pictures: readonly PlacedPicture[];
  readonly blocks: readonly PlacedBlock[];
  readonly fronts: readonly PlacedFront[];
  readonly panels: readonly Box[];
  /** The marks that what lies behind their places would have, of whatever shape. */
  readonly marks: ReadonlyMap<MarkPart, BrandMark>;
  /** The contrast of the part of a mark that can be seen least. */
  readonly leastOfMarks: number;
  readonly findings: readonly CutFinding[];
}

/** Large text at 1080 pixels wide: from 66 px, or 52 px in a bold weight (WCAG's 24 px and 18.66 px on a phone). */
const LARGE_PX_AT_1080 = 66;
const GHOST_ALPHA = 0.42;
/** A field that covers more of a cut than this is its ground, not a panel on it. */
const PANEL_SHARE = 0.6;
/** Pictures shown larger than this many times their own pixels look soft. */
const SOFT_ENLARGEMENT = 1.25;

const plateColours = ({ ground, surface, ink }: ResolvedScheme): readonly string[] => [ground, surface, ink];

/** Crop, contrast and emission: turns a layout into scene nodes, part by part in painting order. */
export function emit(input: EmitInput): Emitted {
  const emitter = new Emitter(input);
  emitter.walk(input.fitted.laidOut);
  return { nodes: emitter.nodes, placed: emitter.placed, pictures: emitter.pictures, blocks: emitter.blocks, fronts: emitter.fronts, panels: emitter.panels, marks: emitter.marks, leastOfMarks: emitter.leastOfMarks, findings: [...emitter.findings, ...emitter.fixedCovers()] };
}

class Emitter {
  readonly nodes: SceneNode[] = [];
  readonly placed: PlacedText[] = [];
  readonly pictures: PlacedPicture[] = [];
  readonly blocks: PlacedBlock[] = [];
  readonly fronts: PlacedFront[] = [];
  readonly panels: Box[] = [];
  readonly marks = new Map<MarkPart, BrandMark>();
  leastOfMarks = Infinity;
  readonly findings: CutFinding[] = [];
  readonly #backdrop = new Backdrop();
  /** Texts and their fields, as they were painted. */
  readonly #over: PaintedOver[] = [];
  /** Slots of photographs whose subject a veil of the template hides: words leave it no room to open. */
  readonly #veiled = new Set<string>();

  readonly #inkBoxes: ReadonlyMap<TextPart, Box>;
  readonly #treatment: Treatment | undefined;
  /** Around the words and marks of each block on a photograph. */
  readonly #extents: readonly Box[];

  constructor(readonly input: EmitInput) {
    this.#inkBoxes = new Map(textBoxes(input));
    this.#extents = blockExtents(input.fitted.laidOut, this.#inkBoxes);
    this.#treatment = resolveTreatment(input.book);
  }

  walk(laidOut: LaidOut): void {
    const { part, box } = laidOut;
    switch (part.part) {
      case 'stack':
        if (part.field) this.#field(part.field, box, part);
        // Pictures go under their neighbours' slanted edges, so they are painted before them; cut-outs stand on what is behind them.
        for (const child of laidOut.children) if (isUnderneath(child.part)) this.walk(child);
        // What helps one block to be read would dim the words of another that is painted before it.
        for (const child of laidOut.children) if (child.part.part === 'stack' && child.part.afloat) this.#helpToRead(child.part.afloat, child);
        for (const child of laidOut.children) if (!isUnderneath(child.part)) this.walk(child);
        break;
      case 'text':
        this.#text(part, box);
        break;
      case 'picture':
        this.#picture(part, box);
        break;
      case 'mark':
        this.#mark(part, box);
        break;
      case 'rule':
        this.#fill(rectPath(box), this.input.scheme[part.ink], box);
        break;
      case 'sign':
        this.#sign(part, box);
        break;
      case 'artwork':
        this.#artwork(part, box);
        break;
      case 'motif':
        this.#motif(part, box);
        break;
      case 'veil':
        this.#veil(part, box);
        break;
      case 'dots':
        dotPaths(box, this.input.place.count).forEach((path, index) => this.nodes.push({ kind: 'fill', path, colour: this.input.scheme[index === this.input.place.index ? part.ink : part.quietInk], alpha: 1 }));
        break;
      case 'swipe':
        this.#fill(arrowPath(box), this.input.scheme[part.ink], box);
        break;
      case 'rows':
      case 'echo':
        throw new TypeError('Lists and echoes are expanded before layout');
    }
  }

  /** Blocks that choose their place and subjects before letters say themselves what they cover. */
  fixedCovers(): readonly CutFinding[] {
    const judged = new Set([...this.blocks, ...this.fronts].map(({ picture }) => picture));
    return fixedCovers(this.pictures, this.input.bound.pictures, this.#over).filter((finding) => finding.kind !== 'covered-subject' || !judged.has(finding.picture));
  }

  #fill(path: string, colour: string, box: Box): void {
    this.nodes.push({ kind: 'fill', path, colour, alpha: 1 });
    this.#backdrop.addFlat(box, colour);
  }

  #field(field: Field, box: Box, stack: StackPart): void {
    const { marginPx } = this.input.frame;
    const slantPx = (field.slant?.slantM ?? 0) * marginPx;
    const solid = snapBoxOutward(box);
    const path = field.slant && slantPx > 0 ? slantedPath(solid, field.slant.edge, slantPx) : fieldPath(field.shape ?? 'box', solid, marginPx);
    this.#fill(path, this.input.scheme[field.ink], solid);
    if (solid.widthPx * solid.heightPx < PANEL_SHARE * this.input.frame.size.widthPx * this.input.frame.size.heightPx) this.panels.push(solid);
    const text = [...walkParts(stack)].find((part): part is TextPart => part.part === 'text' && this.input.texts.get(part)?.ghost === false);
    if (text) this.#over.push({ slot: text.slot, box: solid, after: this.pictures.length });
  }

  #picture(part: PicturePart, visible: Box): void {
    const { frame, place, scheme } = this.input;
    const picture = this.input.bound.pictures[part.slot];
    if (!picture) {
      const empty = emptyPlace(part, visible, frame);
      if (empty) this.#fill(empty.path, scheme.surface, empty.box);
      return;
    }
    const treatment = this.input.bound.untreated.includes(part.slot) ? undefined : this.#treatment;
    const { box, window, seen = { box, window }, mask, tone, isCutOut, enlargedBy, ...looks } = showPicture(part, picture, visible, { frame, slide: place, scheme, covers: this.input.covers, own: this.input.crops[part.slot], treatment });
    this.nodes.push({ kind: 'picture', pictureId: picture.id, ...seen, ...(mask ? { mask } : {}), ...(tone ? { tone } : {}), ...(looks.treatment ? { treatment: looks.treatment } : {}), ...(isCutOut ? { cutOut: true } : {}), ...(looks.shadow ? { shadow: looks.shadow } : {}) });
    const subject = { xPx: box.xPx + ((picture.focal.x - window.x) / window.width) * box.widthPx, yPx: box.yPx + ((picture.focal.y - window.y) / window.height) * box.heightPx };
    this.pictures.push({ slot: part.slot, pictureId: picture.id, box, window, subject: boxContains(box, { ...subject, widthPx: 0, heightPx: 0 }) ? subject : null });
    if (!isCutOut) this.#backdrop.add({ kind: 'picture', ...seen, facts: picture.facts, tone, treatment: looks.treatment });
    // One picture for all slides: report it once.
    const isTold = part.through === true && place.index > 0;
    if (!isTold && enlargedBy > SOFT_ENLARGEMENT) this.findings.push({ kind: 'low-resolution', slot: part.slot, pictureId: picture.id, enlargedBy });
  }

  /** Words on a photograph get what they need to be read, before they are painted. A block with a field of its own needs nothing. */
  #helpToRead({ picture, places, pointer }: Afloat, { children: [block] }: LaidOut): void {
    const [place] = places;
    if (!block || !place || block.part.part !== 'stack') return;
    const { scheme, frame } = this.input;
    const texts = [...walkParts(block.part)].flatMap((part) => {
      const box = part.part === 'text' ? this.#inkBoxes.get(part) : undefined;
      if (part.part !== 'text' || !box) return [];
      // Words that a subject stands before do not cover it, nor do samples.
      const mayCover = !this.input.fronts.has(part) && this.input.texts.get(part)?.ghost === false;
      return [{ slot: slotOfRow(part.slot), box, needed: this.#contrastAt(this.input.fitted.sizes.get(part) ?? 0), mayCover }];
    });
    // A mark has forms for light and for dark grounds. Ask for it the contrast of large text.
    const kept = [...texts, ...markBoxes(block).map((box) => ({ box, needed: MIN_LARGE_CONTRAST }))];
    const extent = boxAround(kept.map(({ box }) => box));
    if (!extent) return;
    const onPhoto: BlockOnPhoto = { place, extent, frame, subject: this.#placed(picture)?.subject ?? null, field: block.part.field ? block.box : undefined };
    const toRead = kept.map(({ box, needed }) => ({ behind: this.#backdrop.behind(box), needed }));
    const help = block.part.field ? NO_HELP : readingHelp(toRead, [scheme.ink, scheme.ground, scheme.surface], [scheme.ground, scheme.ink].map((colour) => this.#shade(colour, extent)), scheme.ground, isLargeBlock(onPhoto));
    const { nodes, panel, veil } = helpShapes(help, onPhoto);
    this.nodes.push(...nodes);
    if (help.kind === 'panel' && panel) this.#backdrop.addFlat(panel, help.colour);
    if ((help.kind === 'gradient' || help.kind === 'tint') && veil) this.#backdrop.addVeil(help.colour, veil);
    if (pointer) this.nodes.push(...pointerTo(onPhoto, (region) => chooseInk(scheme.ink, [scheme.ground, scheme.surface], this.#backdrop.behind(region), MIN_LARGE_CONTRAST).colour));
    const [shown, at] = [this.input.bound.pictures[picture], this.#placed(picture)];
    const likely = shown ? likelySubject(shown) : null;
    const subject = likely && at && boxInCut(likely, at);
    this.blocks.push({ picture, place, help, hiddenShare: subject ? hiddenShare(subject, onPhoto.field ?? extent, (region) => this.#backdrop.hiddenIn(region)) : 0 });
    const covering = shown ? coveringText(shown, onPhoto, texts.filter(({ mayCover }) => mayCover), help, this.#veiled.has(picture)) : null;
    if (covering !== null) this.findings.push({ kind: 'covered-subject', slot: covering, picture });
  }

  #placed(slot: string): PlacedPicture | undefined {
    return this.pictures.find((each) => each.slot === slot);
  }

  /** A colour as it darkens what lies in a region. */
  #shade(colour: string, region: Box): string {
    const mean = this.#backdrop.meanBehind(region);
    return mean === null ? colour : shadeOver(colour, mean);
  }

  #veil(part: VeilPart, box: Box): void {
    const colour = this.#shade(this.input.scheme[part.ink], box);
    const shown = part.around === undefined ? undefined : this.#placed(part.around);
    const subject = shown ? subjectInCut(shown, this.input.bound.pictures[shown.slot]) : null;
    const { node, veiling, hidesSubject } = veilOver(box, subject, this.#extents, this.input.frame, { colour, strength: part.strength });
    if (shown && hidesSubject) this.#veiled.add(shown.slot);
    this.nodes.push(node);
    this.#backdrop.addVeil(colour, veiling);
  }

  /** The contrast that words of a size have to reach. */
  #contrastAt(sizePx: number): number {
    const at1080 = sizePx / (this.input.frame.size.widthPx / 1080);
    return at1080 >= LARGE_PX_AT_1080 ? MIN_LARGE_CONTRAST : MIN_TEXT_CONTRAST;
  }

  #text(part: TextPart, box: Box): void {
    const text = this.input.texts.get(part);
    const found = this.input.fitted.sizes.get(part);
    if (!text || found === undefined) return;
    const sizePx = sizeInWidth(text, found, box.widthPx);
    const lines = linesIn(text, sizePx, box.widthPx);
    const front = this.input.fronts.get(part);
    const inkBox = this.#inkBoxes.get(part) ?? box;
    const needed = this.#contrastAt(sizePx);
    const { scheme } = this.input;
    const behind = this.#backdrop.behind(inkBox);
    const ink = part.ornament ? { colour: ornamentColour(scheme[part.ink], scheme.ground), ratio: needed } : chooseInk(scheme[part.ink], [scheme.ink, scheme.ground, scheme.surface], behind, needed);
    // What stands outside the cut has nothing behind it; the fit has reported it.
    const isInside = intersectBoxes(inkBox, { xPx: 0, yPx: 0, ...this.input.frame.size }) !== null;
    if (ink.ratio < needed && !text.ghost && isInside) this.findings.push({ kind: 'low-contrast', slot: slotOfRow(part.slot), ratio: ink.ratio, needed });
    if (text.shaped.missing.length > 0 && !text.ghost) this.findings.push({ kind: 'missing-glyphs', slot: slotOfRow(part.slot), characters: text.shaped.missing });

    const glyphs: SceneGlyph[] = [];
    const words = wordNumbers(text.shaped.text);
    for (const { glyph, xPx, baselinePx, line } of glyphPlaces({ part, text, sizePx, box }, this.input.frame, this.input.typesetter)) {
      const place = { line, word: words[glyph.cluster] ?? 0 };
      if (glyph.fontKey === EMOJI_FONT) this.#emoji(glyph.id, xPx, baselinePx, { slot: part.ornament ? null : part.slot, ...place, sizePx });
      else glyphs.push({ fontKey: glyph.fontKey, id: glyph.id, xPx, yPx: baselinePx - glyph.yEm * sizePx, ...(part.ornament ? {} : place) });
    }
    this.nodes.push({ kind: 'glyphs', sizePx, colour: ink.colour, alpha: text.ghost ? GHOST_ALPHA : 1, glyphs, ...(part.ornament ? {} : { slot: part.slot, ...(text.shaped.baseLevel % 2 === 1 ? { rightToLeft: true } : {}) }) });
    if (front) this.#front(front);
    if (part.ornament) return;
    const lineTexts = lines.map((line) => lineText(text.shaped.text, line));
    if (!text.ghost) this.#over.push({ slot: part.slot, box: inkBox, after: this.pictures.length });
    this.placed.push({ slot: part.slot, box: inkBox, roomPx: box.widthPx, lines: lines.length, lineTexts, sizePx });
  }

  /** The subject of a picture again, before the letters that were painted on it. */
  #front({ slot, path, hiddenShare }: Front): void {
    const shown = this.nodes.findLast((node): node is PictureNode => node.kind === 'picture' && node.pictureId === this.input.bound.pictures[slot]?.id);
    if (!shown) return;
    this.nodes.push({ ...shown, shadow: undefined, mask: path });
    this.fronts.push({ picture: slot, hiddenShare });
  }

  #emoji(id: number, xPx: number, baselinePx: number, { slot, line, word, sizePx }: { readonly slot: string | null; readonly line: number; readonly word: number; readonly sizePx: number }): void {
    const art = this.input.typesetter.emojiArt(id);
    const heightPx = EMOJI_METRICS.sizeEm * sizePx;
    const insetPx = ((EMOJI_METRICS.advanceEm - EMOJI_METRICS.sizeEm) / 2) * sizePx;
    this.nodes.push({ kind: 'artwork', xPx: xPx + insetPx, yPx: baselinePx + EMOJI_METRICS.descentEm * sizePx - heightPx, scale: heightPx / art.viewBox.height, paths: art.paths, ...(slot === null ? {} : { text: { slot, line, word, sizePx } }) });
  }

  #mark(part: MarkPart, box: Box): void {
    const { book, bound } = this.input;
    const own = chosenMark(book, bound, part);
    const decided = this.input.marks.get(part);
    const [behind, typical] = [this.#backdrop.behind(box), this.#backdrop.typicalBehind(box)];
    const wanted = own ? { mark: own, plate: null } : chooseMark(book, behind, typical, this.#plates());
    const { mark, plate } = decided && !own ? chooseMark({ marks: book.marks.filter((each) => isAlike(each, decided)) }, behind, typical, this.#plates()) : wanted;
    this.marks.set(part, wanted.mark);
    this.leastOfMarks = Math.min(this.leastOfMarks, plate === null ? weakest(mark, behind) : Infinity);
    if (plate !== null) this.#fill(rectPath(growBox(box, mark.clearSpace * box.heightPx)), plate, growBox(box, mark.clearSpace * box.heightPx));
    if (!own && part.slot !== undefined && this.input.bound.marks[part.slot] !== undefined) this.findings.push({ kind: 'lost-mark', slot: part.slot });
    // The layout may have been made for a mark of another shape; it is made again for this one.
    const scale = Math.min(box.heightPx / mark.viewBox.height, box.widthPx / mark.viewBox.width);
    if (mark.kind === 'vector') {
      this.nodes.push({ kind: 'artwork', xPx: box.xPx, yPx: box.yPx, scale, paths: mark.paths });
    } else {
      const whole = { x: 0, y: 0, width: 1, height: 1 };
      this.nodes.push({ kind: 'picture', pictureId: mark.mediaId, box: { ...box, widthPx: mark.viewBox.width * scale, heightPx: mark.viewBox.height * scale }, window: whole });
    }
    this.findings.push(...markFindings({ mark, box, isChosen: own !== null, behind: this.#backdrop.behind(box) }, this.input.frame, this.#inkBoxes));
  }

  /** The colours that the brand's schemes stand on and write with. */
  #plates(): readonly string[] {
    const { book } = this.input;
    return [...new Set(book.schemes.flatMap(({ key }) => plateColours(resolveScheme(book, key))))];
  }

  #sign(part: SignPart, box: Box): void {
    const fontKey = this.input.book.type.display.font;
    const ink = this.input.typesetter.inkOfFirstGlyph(part.text, fontKey);
    const sizePx = box.heightPx / Math.max(ink.heightEm, 1e-3);
    const xPx = box.xPx - ink.leftEm * sizePx;
    const yPx = box.yPx + box.heightPx + ink.bottomEm * sizePx;
    const colour = this.input.scheme[part.ink];
    this.nodes.push({ kind: 'glyphs', sizePx, colour, alpha: 1, glyphs: [{ fontKey, id: ink.glyphId, xPx, yPx }] });
    this.#backdrop.addFlat({ ...box, widthPx: ink.widthEm * sizePx }, colour);
  }

  #artwork(part: ArtworkPart, box: Box): void {
    const { ink } = part;
    const paths = ink === undefined ? part.paths : part.paths.map((path) => ({ ...path, fill: this.input.scheme[ink] }));
    this.nodes.push({ kind: 'artwork', xPx: box.xPx, yPx: box.yPx, scale: box.heightPx / part.viewBox.height, paths });
    for (const path of paths) this.#backdrop.addFlat(box, path.fill);
  }

  /** What is left out of one slide would be missing at the seam of the next: a motif that runs through stays whole. */
  #motifThrough(part: MotifPart, box: Box): void {
    const slide = { xPx: 0, yPx: 0, ...this.input.frame.size };
    const { generator, mirror } = motifFor(part.generator, this.input.book.motif);
    for (const shape of drawMotif(generator, box, this.input.frame.marginPx, part.seed, mirror)) {
      if (!shape.boxes.some((each) => intersectBoxes(each, slide))) continue;
      this.nodes.push({ kind: 'fill', path: shape.path, colour: this.input.scheme[shape.ink], alpha: 1 });
      for (const each of shape.boxes) this.#backdrop.addFlat(each, this.input.scheme[shape.ink]);
    }
  }

  /** An ornament never runs over words, rules or marks: what of it would, stays away. */
  #motif(part: MotifPart, box: Box): void {
    const { size, marginPx } = this.input.frame;
    if (part.through) return this.#motifThrough(part, throughBox(box, this.input.place));
    this.#draw(placeMotif({ ...motifFor(part.generator, this.input.book.motif), seed: part.seed }, box, { cutHeightPx: size.heightPx, marginPx, kept: [...this.#inkBoxes.values(), ...[markBoxes, ruleBoxes].flatMap((boxesOf) => boxesOf(this.input.fitted.laidOut))] }));
  }

  #draw(shapes: readonly MotifShape[]): void {
    for (const shape of shapes) {
      this.nodes.push({ kind: 'fill', path: shape.path, colour: this.input.scheme[shape.ink], alpha: 1 });
      for (const each of shape.boxes) this.#backdrop.addFlat(each, this.input.scheme[shape.ink]);
    }
  }
}

/** Pictures and the colours over them: help to read is measured on both. */
function isUnderneath(part: Part): boolean {
  return (part.part === 'picture' && !part.whole && part.over === undefined) || part.part === 'veil';
}
