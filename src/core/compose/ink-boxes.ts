import { boxAround, type Box } from '../geometry/box.ts';
import { walkParts, type Part, type TextPart } from '../template/parts.ts';
import type { FitOutcome } from './fit.ts';
import type { LaidOut } from './layout.ts';
import { linesIn, sizeInWidth, textHeightPx, type SetText } from './set-text.ts';

/** The boxes of all marks of a layout. */
export function markBoxes(laidOut: LaidOut): readonly Box[] {
  return boxesOf('mark', laidOut);
}

/** Around the words and marks of each block that stands on a photograph. */
export function blockExtents({ part, children }: LaidOut, inkBoxes: ReadonlyMap<TextPart, Box>): readonly Box[] {
  const [block] = children;
  if (part.part !== 'stack' || !part.afloat || !block) return children.flatMap((child) => blockExtents(child, inkBoxes));
  const texts = [...walkParts(block.part)].flatMap((each) => (each.part === 'text' ? (inkBoxes.get(each) ?? []) : []));
  const extent = boxAround([...texts, ...markBoxes(block)]);
  return extent ? [extent] : [];
}

/** The boxes of all rules of a layout. */
export function ruleBoxes(laidOut: LaidOut): readonly Box[] {
  return boxesOf('rule', laidOut);
}

function boxesOf(kind: Part['part'], { part, box, children }: LaidOut): readonly Box[] {
  return [...(part.part === kind ? [box] : []), ...children.flatMap((child) => boxesOf(kind, child))];
}

/** Texts at the sizes that were found for them. */
export interface FittedTexts {
  readonly fitted: FitOutcome;
  readonly texts: ReadonlyMap<TextPart, SetText>;
}

/** The box of the ink of every text: as wide as its widest line, from the capitals to the last descenders. */
export function* textBoxes({ fitted, texts }: FittedTexts, laidOut: LaidOut = fitted.laidOut): Generator<[TextPart, Box]> {
  const { part, box } = laidOut;
  if (part.part === 'text') {
    const text = texts.get(part);
    const found = fitted.sizes.get(part);
    if (text && found !== undefined) {
      const sizePx = sizeInWidth(text, found, box.widthPx);
      const lines = linesIn(text, sizePx, box.widthPx);
      const widthPx = Math.max(0, ...lines.map((line) => line.widthEm * sizePx));
      const xPx = box.xPx + lineOffset(part.align, text.shaped.baseLevel, box.widthPx - widthPx);
      yield [part, { xPx, yPx: box.yPx, widthPx, heightPx: textHeightPx(text, sizePx, lines.length) }];
    }
  }
  for (const child of laidOut.children) yield* textBoxes({ fitted, texts }, child);
}

/** Where a line begins in the room that it leaves free, by its own direction. */
export function lineOffset(align: TextPart['align'], baseLevel: number, freePx: number): number {
  if (align === 'centre') return freePx / 2;
  return (align === 'end') !== (baseLevel % 2 === 1) ? freePx : 0;
}
