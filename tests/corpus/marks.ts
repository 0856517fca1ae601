import { languageOf } from '../../src/core/words/language.ts';
import type { CorpusContent } from './contents.ts';
import { markRoomOf, type BrandBook, type VectorMark } from '../../src/core/brand/brand-book.ts';

/** A mark in some shape: the path that is drawn in the main colour, one in the second colour on it, and a ground of its own or none. */
interface MarkShape {
  readonly viewBox: { readonly width: number; readonly height: number };
  readonly main: string;
  readonly detail: string;
  readonly ground?: string;
}

const bars = (count: number, width: number, height: number): string => Array.from({ length: count }, (_, index) => `M${(index * width) / count} 0H${((index + 0.6) * width) / count}V${height}H${(index * width) / count}Z`).join('');

/** The shapes that brands come with: the demo's are a little taller than wide. */
const markShapes = {
  square: { viewBox: { width: 100, height: 100 }, main: 'M0 0H100V100H0ZM25 25V75H75V25Z', detail: 'M38 38H62V62H38Z' },
  wide: { viewBox: { width: 400, height: 100 }, main: bars(8, 400, 100), detail: 'M0 88H390V100H0Z' },
  wordmark: { viewBox: { width: 800, height: 100 }, main: bars(14, 800, 100), detail: 'M0 88H780V100H0Z' },
  tall: { viewBox: { width: 50, height: 150 }, main: 'M0 0H50V70H0Z', detail: 'M0 84H50V150H0Z' },
  filled: { viewBox: { width: 120, height: 100 }, ground: 'M0 0H120V100H0Z', main: 'M20 20H60V80H20Z', detail: 'M70 20H100V80H70Z' },
} as const satisfies Readonly<Record<string, MarkShape>>;

type MarkShapeName = keyof typeof markShapes;
const markShapeNames = Object.keys(markShapes) as readonly MarkShapeName[];

/** A mark of a shape: `ink` for its main part, or for its ground where it has one. */
function mark(name: MarkShapeName, suits: 'light' | 'dark', ink: string, paper: string, detailFill: string): VectorMark {
  const { viewBox, main, detail, ground }: MarkShape = markShapes[name];
  const paths = ground === undefined ? [{ d: main, fill: ink, evenOdd: true }, { d: detail, fill: detailFill }] : [{ d: ground, fill: ink }, { d: main, fill: paper }, { d: detail, fill: detailFill }];
  return { kind: 'vector', key: `${name}-${suits}`, for: suits, ...markRoomOf(viewBox), viewBox: { ...viewBox }, paths };
}

/** The same brand with marks of another shape, for light and for dark grounds. */
export function withMarks(book: BrandBook, name: MarkShapeName): BrandBook {
  return { ...book, marks: [mark(name, 'light', '#1b2430', '#f6f3ee', '#5b6573'), mark(name, 'dark', '#f6f3ee', '#1b2430', '#c9c2b6')] };
}

/** Marks of mixed shapes, as a symbol with a wordmark: which of them is taken depends on the ground. */
function withMixedMarks(book: BrandBook): BrandBook {
  return { ...book, marks: [...withMarks(book, 'wordmark').marks.slice(0, 1), ...withMarks(book, 'square').marks.slice(1)] };
}

/** The brand that writes in the language of a content. */
export function inLanguageOf(book: BrandBook, content: CorpusContent): BrandBook {
  return { ...book, language: languageOf(content.language) };
}

/** The brand for one of many contents: its own marks, those of each shape, and mixed ones, in turns. */
export function bookFor(book: BrandBook, index: number): BrandBook {
  const turn = index % (markShapeNames.length + 2);
  if (turn === 0) return book;
  const name = markShapeNames[turn - 1];
  return name === undefined ? withMixedMarks(book) : withMarks(book, name);
}
