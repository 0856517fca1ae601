import type { PlacedText } from '../compose/report.ts';
import type { SceneNode } from '../scene/scene.ts';
import { placeLine } from '../text/visual-line.ts';
import type { Typesetter } from '../text/typesetter.ts';
import type { Size } from '../geometry/box.ts';

/** How a report looks: the brand's own colours and typefaces. */
export interface ReportLook {
  readonly ground: string;
  readonly ink: string;
  readonly accent: string;
  /** Typefaces with their fallbacks. */
  readonly heading: readonly string[];
  readonly text: readonly string[];
}

/** What stands in a report, in its order. */
export type ReportBlock =
  | { readonly kind: 'title'; readonly title: string; readonly line: string }
  | { readonly kind: 'heading'; readonly text: string; readonly about: string }
  | { readonly kind: 'figures'; readonly figures: readonly { readonly name: string; readonly value: string; readonly change: string }[] }
  | { readonly kind: 'line'; readonly points: readonly (number | null)[]; readonly labels: readonly string[]; readonly low: string; readonly high: string }
  | { readonly kind: 'table'; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] }
  | { readonly kind: 'pictures'; readonly pictures: readonly { readonly pictureId: string; readonly widthPx: number; readonly heightPx: number; readonly title: string; readonly line: string }[] }
  | { readonly kind: 'bars'; readonly bars: readonly { readonly name: string; readonly value: string; readonly low: number; readonly middle: number; readonly high: number }[] }
  | { readonly kind: 'words'; readonly text: string };

/** One page with what is drawn on it, and its texts to be searched and read aloud. */
export interface ReportPage {
  readonly nodes: readonly SceneNode[];
  readonly texts: readonly PlacedText[];
}

const MARGIN = 56;
const FOOT = 40;
const GAP = 18;
const SIZES = { title: 34, heading: 18, figure: 26, text: 11.5, small: 10 } as const;
const ROW = 21;
const LINE_HEIGHT = 150;

/** Sets blocks on pages from the top down. A table that does not fit goes on with its head on the next page; nothing is cut. */
export function setReport(blocks: readonly ReportBlock[], size: Size, look: ReportLook, typesetter: Typesetter, foot: string): readonly ReportPage[] {
  const press = new Press(size, look, typesetter, foot);
  for (const [index, block] of blocks.entries()) setBlock(press, block, blocks[index + 1]);
  return press.finish();
}

type Face = 'heading' | 'text';

/** The page that is being set, and those that are done. */
class Press {
  readonly widthPx: number;
  #nodes: SceneNode[] = [];
  #texts: PlacedText[] = [];
  readonly #pages: ReportPage[] = [];
  yPx = MARGIN;

  constructor(
    readonly size: Size,
    readonly look: ReportLook,
    readonly typesetter: Typesetter,
    readonly foot: string,
  ) {
    this.widthPx = size.widthPx - 2 * MARGIN;
    this.fill({ xPx: 0, yPx: 0, widthPx: size.widthPx, heightPx: size.heightPx }, look.ground);
  }

  /** Turns the page unless there is room for so much. */
  need(heightPx: number): void {
    if (this.yPx + heightPx <= this.size.heightPx - MARGIN - FOOT) return;
    this.#turn();
  }

  #turn(): void {
    this.#pages.push({ nodes: this.#footed(), texts: this.#texts });
    [this.#nodes, this.#texts, this.yPx] = [[], [], MARGIN];
    this.fill({ xPx: 0, yPx: 0, widthPx: this.size.widthPx, heightPx: this.size.heightPx }, this.look.ground);
  }

  #footed(): readonly SceneNode[] {
    this.write(`${this.foot} · ${this.#pages.length + 1}`, { xPx: MARGIN, baselinePx: this.size.heightPx - MARGIN / 2, sizePx: SIZES.small, face: 'text', alpha: 0.65, maxPx: this.widthPx });
    return this.#nodes;
  }

  finish(): readonly ReportPage[] {
    return [...this.#pages, { nodes: this.#footed(), texts: this.#texts }];
  }

  push(node: SceneNode): void {
    this.#nodes.push(node);
  }

  fill({ xPx, yPx, widthPx, heightPx }: { readonly xPx: number; readonly yPx: number; readonly widthPx: number; readonly heightPx: number }, colour: string, alpha = 1): void {
    this.push({ kind: 'fill', path: `M${xPx} ${yPx}H${xPx + widthPx}V${yPx + heightPx}H${xPx}Z`, colour, alpha });
  }

  widthOf(text: string, sizePx: number, face: Face): number {
    return (this.typesetter.shape(text, this.look[face], 0).offsetsEm.at(-1) ?? 0) * sizePx;
  }

  /** Writes one line; what is wider than its room ends with an ellipsis. */
  write(text: string, at: { readonly xPx: number; readonly baselinePx: number; readonly sizePx: number; readonly face: Face; readonly colour?: string; readonly alpha?: number; readonly maxPx: number; readonly isRight?: boolean }): void {
    const { sizePx, face, maxPx, baselinePx, isRight = false, alpha = 1 } = at;
    const shown = this.#shortened(this.#writable(text, face), sizePx, face, maxPx);
    if (shown === '') return;
    const shaped = this.typesetter.shape(shown, this.look[face], 0);
    const widthPx = (shaped.offsetsEm.at(-1) ?? 0) * sizePx;
    const xPx = isRight ? at.xPx + maxPx - widthPx : at.xPx;
    const glyphs = placeLine(shaped, { start: 0, end: shown.length, widthEm: widthPx / sizePx }).map(({ fontKey, id, xEm, yEm }) => ({ fontKey, id, xPx: xPx + xEm * sizePx, yPx: baselinePx - yEm * sizePx }));
    this.push({ kind: 'glyphs', sizePx, colour: at.colour ?? this.look.ink, alpha, glyphs });
    this.#texts.push({ slot: '', box: { xPx, yPx: baselinePx - sizePx, widthPx, heightPx: sizePx }, roomPx: maxPx, lines: 1, lineTexts: [shown], sizePx });
  }

  /** Without characters that no typeface at hand can write: emoji, mostly. */
  #writable(text: string, face: Face): string {
    const { missing } = this.typesetter.shape(text, this.look[face], 0);
    return missing.length === 0 ? text : [...text].filter((character) => !missing.includes(character)).join('').replace(/\s{2,}/gu, ' ').trim();
  }

  #shortened(text: string, sizePx: number, face: Face, maxPx: number): string {
    if (this.widthOf(text, sizePx, face) <= maxPx) return text;
    const characters = [...text];
    let [low, high] = [0, characters.length];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (this.widthOf(`${characters.slice(0, middle).join('').trimEnd()}…`, sizePx, face) <= maxPx) low = middle;
      else high = middle - 1;
    }
    return low === 0 ? '' : `${characters.slice(0, low).join('').trimEnd()}…`;
  }

  /** Writes a text in as many lines as it needs, by words; answers how many. */
  paragraph(text: string, sizePx: number, face: Face, alpha = 1): void {
    const words = text.split(/\s+/u);
    let line = '';
    const flush = (): void => {
      if (line === '') return;
      this.need(sizePx * 1.45);
      this.yPx += sizePx * 1.45;
      this.write(line, { xPx: MARGIN, baselinePx: this.yPx - sizePx * 0.35, sizePx, face, alpha, maxPx: this.widthPx });
      line = '';
    };
    for (const word of words) {
      const next = line === '' ? word : `${line} ${word}`;
      if (this.widthOf(next, sizePx, face) > this.widthPx && line !== '') {
        flush();
        line = word;
      } else line = next;
    }
    flush();
  }
}

/** Height that the beginning of a block needs: a heading stands on the same page with it. */
function beginningOf(press: Press, block: ReportBlock | undefined): number {
  switch (block?.kind) {
    case 'pictures':
      return pictureWidth(press) + 44;
    case 'line':
      return LINE_HEIGHT + 30;
    case 'figures':
      return 78;
    default:
      return ROW * 3;
  }
}

function setBlock(press: Press, block: ReportBlock, next: ReportBlock | undefined): void {
  switch (block.kind) {
    case 'title':
      press.fill({ xPx: MARGIN, yPx: press.yPx, widthPx: 44, heightPx: 6 }, press.look.accent);
      press.yPx += 22;
      press.paragraph(block.title, SIZES.title, 'heading');
      press.paragraph(block.line, SIZES.text + 2, 'text', 0.75);
      press.yPx += GAP;
      return;
    case 'heading':
      press.need(GAP + SIZES.heading + 40 + beginningOf(press, next));
      press.yPx += GAP + SIZES.heading;
      press.write(block.text, { xPx: MARGIN, baselinePx: press.yPx, sizePx: SIZES.heading, face: 'heading', maxPx: press.widthPx });
      press.yPx += 8;
      if (block.about !== '') press.paragraph(block.about, SIZES.small, 'text', 0.7);
      press.yPx += 8;
      return;
    case 'figures':
      return setFigures(press, block.figures);
    case 'line':
      return setLine(press, block);
    case 'table':
      return setTable(press, block);
    case 'pictures':
      return setPictures(press, block.pictures);
    case 'bars':
      return setBars(press, block.bars);
    case 'words':
      press.paragraph(block.text, SIZES.small, 'text', 0.7);
  }
}

function setFigures(press: Press, figures: Extract<ReportBlock, { kind: 'figures' }>['figures']): void {
  const columns = press.size.widthPx > press.size.heightPx ? 6 : 3;
  const width = press.widthPx / columns;
  for (let from = 0; from < figures.length; from += columns) {
    press.need(78);
    for (const [index, { name, value, change }] of figures.slice(from, from + columns).entries()) {
      const xPx = MARGIN + index * width;
      press.write(name, { xPx, baselinePx: press.yPx + 14, sizePx: SIZES.text, face: 'text', alpha: 0.7, maxPx: width - 12 });
      press.write(value, { xPx, baselinePx: press.yPx + 43, sizePx: SIZES.figure, face: 'heading', maxPx: width - 12 });
      press.write(change, { xPx, baselinePx: press.yPx + 61, sizePx: SIZES.small, face: 'text', alpha: 0.8, maxPx: width - 12 });
    }
    press.yPx += 78;
  }
}

/** A line over time as a vector; days that were not told are a gap. */
function setLine(press: Press, { points, labels, low, high }: Extract<ReportBlock, { kind: 'line' }>): void {
  const height = LINE_HEIGHT;
  press.need(height + 30);
  const known = points.flatMap((point) => point ?? []);
  const [least, most] = [Math.min(...known), Math.max(...known)];
  const top = press.yPx + 8;
  const xOf = (index: number): number => MARGIN + 48 + (index / Math.max(1, points.length - 1)) * (press.widthPx - 48);
  const yOf = (value: number): number => top + height - ((value - least) / Math.max(1, most - least)) * (height - 12) - 6;
  press.fill({ xPx: MARGIN + 48, yPx: top + height, widthPx: press.widthPx - 48, heightPx: 0.75 }, press.look.ink, 0.3);
  for (const path of strokes(points.map((value, index) => (value === null ? null : [xOf(index), yOf(value)])), 2)) press.push({ kind: 'fill', path, colour: press.look.accent, alpha: 1 });
  press.write(high, { xPx: MARGIN, baselinePx: top + 14, sizePx: SIZES.small, face: 'text', alpha: 0.7, maxPx: 44 });
  press.write(low, { xPx: MARGIN, baselinePx: top + height, sizePx: SIZES.small, face: 'text', alpha: 0.7, maxPx: 44 });
  const [first, last] = [labels[0] ?? '', labels.at(-1) ?? ''];
  press.write(first, { xPx: MARGIN + 48, baselinePx: top + height + 16, sizePx: SIZES.small, face: 'text', alpha: 0.7, maxPx: 160 });
  press.write(last, { xPx: MARGIN + press.widthPx - 160, baselinePx: top + height + 16, sizePx: SIZES.small, face: 'text', alpha: 0.7, maxPx: 160, isRight: true });
  press.yPx = top + height + 30;
}

/** Stretches of a line as outlines of a width, in pixels. */
function strokes(points: readonly (readonly [number, number] | null)[], width: number): readonly string[] {
  const paths: string[] = [];
  for (const [index, point] of points.entries()) {
    const next = points[index + 1];
    if (!point || !next) continue;
    const [dx, dy] = [next[0] - point[0], next[1] - point[1]];
    const length = Math.hypot(dx, dy) || 1;
    const [nx, ny] = [(-dy / length) * (width / 2), (dx / length) * (width / 2)];
    const [ex, ey] = [(dx / length) * (width / 4), (dy / length) * (width / 4)];
    const at = (x: number, y: number): string => `${x.toFixed(2)} ${y.toFixed(2)}`;
    paths.push(`M${at(point[0] + nx - ex, point[1] + ny - ey)}L${at(next[0] + nx + ex, next[1] + ny + ey)}L${at(next[0] - nx + ex, next[1] - ny + ey)}L${at(point[0] - nx - ex, point[1] - ny - ey)}Z`);
  }
  return paths;
}

function setTable(press: Press, { head, rows }: Extract<ReportBlock, { kind: 'table' }>): void {
  // The first column takes what the figures leave.
  const others = head.length - 1;
  const figureWidth = Math.min(96, (press.widthPx * 0.6) / Math.max(1, others));
  const firstWidth = press.widthPx - figureWidth * others;
  const row = (cells: readonly string[], alpha: number): void => {
    for (const [index, cell] of cells.entries()) {
      const isFirst = index === 0;
      press.write(cell, { xPx: isFirst ? MARGIN : MARGIN + firstWidth + (index - 1) * figureWidth, baselinePx: press.yPx + 14, sizePx: SIZES.text, face: 'text', alpha, maxPx: (isFirst ? firstWidth : figureWidth) - 8, isRight: !isFirst });
    }
    press.fill({ xPx: MARGIN, yPx: press.yPx + ROW - 0.75, widthPx: press.widthPx, heightPx: 0.75 }, press.look.ink, 0.18);
    press.yPx += ROW;
  };
  press.need(ROW * 2);
  row(head, 0.65);
  for (const cells of rows) {
    const before = press.yPx;
    press.need(ROW);
    if (press.yPx < before) row(head, 0.65);
    row(cells, 1);
  }
}

const pictureColumns = ({ size }: Press): number => (size.widthPx > size.heightPx ? 5 : 3);
const pictureWidth = (press: Press): number => (press.widthPx - (pictureColumns(press) - 1) * GAP) / pictureColumns(press);

function setPictures(press: Press, pictures: Extract<ReportBlock, { kind: 'pictures' }>['pictures']): void {
  const columns = pictureColumns(press);
  const width = pictureWidth(press);
  for (let from = 0; from < pictures.length; from += columns) {
    press.need(width + 44);
    for (const [index, { pictureId, widthPx, heightPx, title, line }] of pictures.slice(from, from + columns).entries()) {
      const xPx = MARGIN + index * (width + GAP);
      // Whole pictures, whatever their shape: a report shows what went out.
      const scale = Math.min(width / widthPx, width / heightPx);
      const box = { widthPx: Math.round(widthPx * scale), heightPx: Math.round(heightPx * scale) };
      if (pictureId === '') press.fill({ xPx, yPx: press.yPx, widthPx: width, heightPx: width }, press.look.ink, 0.08);
      else press.push({ kind: 'picture', pictureId, box: { xPx: Math.round(xPx), yPx: Math.round(press.yPx + width - box.heightPx), ...box }, window: { x: 0, y: 0, width: 1, height: 1 } });
      press.write(title, { xPx, baselinePx: press.yPx + width + 16, sizePx: SIZES.text, face: 'heading', maxPx: width });
      press.write(line, { xPx, baselinePx: press.yPx + width + 31, sizePx: SIZES.small, face: 'text', alpha: 0.75, maxPx: width });
    }
    press.yPx += width + 44;
  }
}

/** Effects with their intervals, from the middle line. */
function setBars(press: Press, bars: Extract<ReportBlock, { kind: 'bars' }>['bars']): void {
  const widest = Math.max(0.2, ...bars.flatMap(({ low, high }) => [Math.abs(low), Math.abs(high)]));
  const [left, room] = [MARGIN + press.widthPx * 0.52, press.widthPx * 0.48];
  const at = (value: number): number => left + room / 2 + (value / widest) * (room / 2);
  for (const { name, value, low, middle, high } of bars) {
    press.need(24);
    press.write(name, { xPx: MARGIN, baselinePx: press.yPx + 15, sizePx: SIZES.text, face: 'text', maxPx: press.widthPx * 0.38 });
    press.write(value, { xPx: MARGIN + press.widthPx * 0.38, baselinePx: press.yPx + 15, sizePx: SIZES.text, face: 'heading', maxPx: press.widthPx * 0.12, isRight: true });
    press.fill({ xPx: left + room / 2, yPx: press.yPx, widthPx: 0.75, heightPx: 24 }, press.look.ink, 0.35);
    press.fill({ xPx: at(low), yPx: press.yPx + 10.5, widthPx: Math.max(1, at(high) - at(low)), heightPx: 3 }, press.look.accent, 0.45);
    press.fill({ xPx: at(middle) - 3, yPx: press.yPx + 7, widthPx: 6, heightPx: 10 }, press.look.accent);
    press.yPx += 24;
  }
}
