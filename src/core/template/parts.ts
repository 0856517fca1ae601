import { array, boolean, lazy, number, object, string, type Schema } from 'yup';
import type { ArtworkPath } from '../artwork/artwork.ts';
import { motifNames, type MotifName } from '../motif/motif.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/** What an arrangement is put together of. Lengths are in `m`, the margin of the cut: 6% of its short side. */

/** Which colour of the scheme a part takes. */
export type InkName = 'ground' | 'surface' | 'ink' | 'accent';
const inkName = () => string<InkName>().oneOf(['ground', 'surface', 'ink', 'accent']);

export type Edge = 'top' | 'right' | 'bottom' | 'left';
const edges = () => array(string<Edge>().oneOf(['top', 'right', 'bottom', 'left']).required());

/** Outlines of a field: its box, a disc in the middle of it, a seal with a scalloped edge, or a tab with one cut corner. */
export type FieldShape = 'box' | 'disc' | 'seal' | 'tab';
export const fieldShapes: readonly FieldShape[] = ['box', 'disc', 'seal', 'tab'];

/** Windows that a picture can be seen through. The slanted ones lean at one edge, over a neighbour that leans the same way. */
export type WindowShape = 'arch' | 'circle' | 'sail' | 'notch' | 'slant-right' | 'slant-left' | 'slant-bottom' | 'slant-top';
export const windowShapes: readonly WindowShape[] = ['arch', 'circle', 'sail', 'notch', 'slant-right', 'slant-left', 'slant-bottom', 'slant-top'];

/** A coloured field behind a stack; a slant cuts one of its edges and grows over the neighbour by `slantM`. */
export interface Field {
  readonly ink: InkName;
  readonly shape?: FieldShape | undefined;
  readonly slant?: { readonly edge: Edge; readonly slantM: number } | undefined;
}

interface Placed {
  /** Share of room left over that the part takes, as in CSS flex-grow. */
  readonly grow?: number | undefined;
  /** Size along the parent's direction before growing, in [0, 1] of the parent. */
  readonly share?: number | undefined;
  /** Least size along the parent's direction, in [0, 1] of the parent. */
  readonly leastShare?: number | undefined;
  /** Own alignment across the parent's direction. */
  readonly alignSelf?: 'start' | 'centre' | 'end' | 'stretch' | undefined;
  /** Laid over its parent at these distances from its edges (in m) instead of standing in the row of its siblings. */
  readonly over?: Partial<Record<Edge, number>> | undefined;
}

export interface StackPart extends Placed {
  readonly part: 'stack';
  readonly direction: 'column' | 'row';
  readonly gapM?: number | undefined;
  readonly padM?: Partial<Record<Edge, number>> | undefined;
  /** Edges of this stack that lie on edges of the cut and keep their content inside the safe zone. */
  readonly safe?: readonly Edge[] | undefined;
  readonly justify?: 'start' | 'centre' | 'end' | 'between' | undefined;
  readonly align?: 'start' | 'centre' | 'end' | 'stretch' | undefined;
  readonly field?: Field | undefined;
  readonly children: readonly Part[];
}

export interface TextPart extends Placed {
  readonly part: 'text';
  readonly slot: string;
  readonly role: 'display' | 'heading' | 'text' | 'label';
  readonly align: 'start' | 'centre' | 'end';
  readonly ink: InkName;
  /** Largest and smallest type size, in m. The reading floor of the shape may raise the smallest. */
  readonly sizeM: { readonly max: number; readonly min: number };
  /** One line, set as large as the width (or the largest size) allows. */
  readonly fill?: boolean | undefined;
  /** A fixed width instead of the room there is, in m. */
  readonly widthM?: number | undefined;
  /** Opening punctuation hangs outside the left edge of the text. */
  readonly hanging?: boolean | undefined;
  /** A repetition that need not be read: it keeps its ink, however faint. */
  readonly ornament?: boolean | undefined;
}

export interface PicturePart extends Placed {
  readonly part: 'picture';
  readonly slot: string;
  /** How far the picture goes on under its neighbour at an edge (below a slant), in m. */
  readonly underM?: Partial<Record<Edge, number>> | undefined;
  readonly window?: WindowShape | undefined;
  /** The picture in the scheme's ink and ground instead of its own colours. */
  readonly duotone?: boolean | undefined;
  /** A fixed width and height instead of the room there is, in m. */
  readonly sideM?: number | undefined;
  /** A cut-out: all of it is shown, and what lies behind shows through. */
  readonly whole?: boolean | undefined;
  /** The picture runs through all slides of a carousel; each shows its part of it. */
  readonly through?: boolean | undefined;
}

/** One line of a slot again and again, filling the width; one of them in the inked colour, the others as a pattern. */
export interface EchoPart extends Placed {
  readonly part: 'echo';
  readonly slot: string;
  readonly lines: number;
  /** Which of the lines is the one that is read, from 0. */
  readonly inked: number;
  readonly ink: InkName;
  readonly quietInk: InkName;
  readonly sizeM: { readonly max: number; readonly min: number };
}

/** A list: a row an item, parted by hairlines, with or without numerals. */
export interface RowsPart extends Placed {
  readonly part: 'rows';
  readonly slot: string;
  readonly ink: InkName;
  readonly numeralInk: InkName;
  readonly numerals: boolean;
  readonly sizeM: { readonly max: number; readonly min: number };
  readonly gapM: number;
}

export interface MarkPart extends Placed {
  readonly part: 'mark';
  /** The slot by which a piece may choose the mark; without one, or left empty, the ground chooses. */
  readonly slot?: string | undefined;
  readonly heightM: number;
}

export interface RulePart extends Placed {
  readonly part: 'rule';
  /** 0 takes the width of the stack, when it stretches. */
  readonly lengthM: number;
  readonly thicknessM: number;
  readonly ink: InkName;
}

/** A sign from the display typeface used as ornament, measured by the height of its ink. */
export interface SignPart extends Placed {
  readonly part: 'sign';
  readonly text: string;
  readonly heightM: number;
  readonly ink: InkName;
}

/** Drawn ornament: filled outlines in a view box, in their own colours or all in one of the scheme's. */
export interface ArtworkPart extends Placed {
  readonly part: 'artwork';
  readonly heightM: number;
  readonly viewBox: { readonly width: number; readonly height: number };
  readonly paths: readonly ArtworkPath[];
  readonly ink?: InkName | undefined;
}

/** A seeded ornament in the scheme's colours. */
export interface MotifPart extends Placed {
  readonly part: 'motif';
  readonly generator: MotifName;
  readonly seed: number;
  /** The motif runs through all slides of a carousel; each shows its part of it, so no word may stand on it. */
  readonly through?: boolean | undefined;
}

/** Where a slide stands among the others: a dot a slide, its own one in the ink. A single picture has none. */
export interface DotsPart extends Placed {
  readonly part: 'dots';
  readonly heightM: number;
  readonly ink: InkName;
  readonly quietInk: InkName;
}

/** The sign that more follows: an arrow on every slide but the last. */
export interface SwipePart extends Placed {
  readonly part: 'swipe';
  readonly heightM: number;
  readonly ink: InkName;
}

export type Part = StackPart | TextPart | PicturePart | RowsPart | EchoPart | MarkPart | RulePart | SignPart | ArtworkPart | MotifPart | DotsPart | SwipePart;

interface Limits {
  readonly min: number;
  readonly max: number;
}

/** How large and how small lengths of parts may be, in m: what a document may hold, and what a form offers. */
export const limitsM = {
  stackGap: { min: 0, max: 20 },
  rowsGap: { min: 0, max: 5 },
  typeSize: { min: 0.2, max: 20 },
  pictureSide: { min: 0.5, max: 20 },
  markHeight: { min: 0.3, max: 12 },
  ruleLength: { min: 0, max: 20 },
  ruleThickness: { min: 0.01, max: 1 },
  signHeight: { min: 0.5, max: 30 },
  artworkHeight: { min: 0.3, max: 30 },
  dotsHeight: { min: 0.1, max: 2 },
  swipeHeight: { min: 0.2, max: 4 },
} as const satisfies Readonly<Record<string, Limits>>;

const within = ({ min, max }: Limits) => number().min(min).max(max);

const perEdge = () =>
  object({ top: number(), right: number(), bottom: number(), left: number() }).noUnknown().default(undefined);

const placed = {
  grow: number().min(0).max(10),
  share: number().min(0).max(1),
  leastShare: number().min(0).max(1),
  alignSelf: string().oneOf(['start', 'centre', 'end', 'stretch']),
  over: perEdge(),
};

const partSchemas: Readonly<Record<Part['part'], () => Schema>> = {
  stack: () =>
    object({
      ...placed,
      part: string().required(),
      direction: string().oneOf(['column', 'row']).required(),
      gapM: within(limitsM.stackGap),
      padM: perEdge(),
      safe: edges(),
      justify: string().oneOf(['start', 'centre', 'end', 'between']),
      align: string().oneOf(['start', 'centre', 'end', 'stretch']),
      field: object({
        ink: inkName().required(),
        shape: string<FieldShape>().oneOf([...fieldShapes]),
        slant: object({ edge: string().oneOf(['top', 'right', 'bottom', 'left']).required(), slantM: number().min(0).max(10).required() }).noUnknown().default(undefined),
      }).noUnknown().default(undefined),
      children: array(partSchema()).max(24).required(),
    }).noUnknown(),
  text: () =>
    object({
      ...placed,
      part: string().required(),
      slot: key(),
      role: string().oneOf(['display', 'heading', 'text', 'label']).required(),
      align: string().oneOf(['start', 'centre', 'end']).required(),
      ink: inkName().required(),
      sizeM: object({ max: within(limitsM.typeSize).required(), min: within(limitsM.typeSize).required() }).required(),
      fill: boolean(),
      widthM: number().min(0.2).max(20),
      hanging: boolean(),
      ornament: boolean(),
    }).noUnknown(),
  picture: () => object({ ...placed, part: string().required(), slot: key(), underM: perEdge(), window: string<WindowShape>().oneOf([...windowShapes]), duotone: boolean(), whole: boolean(), through: boolean(), sideM: within(limitsM.pictureSide) }).noUnknown(),
  rows: () =>
    object({
      ...placed,
      part: string().required(),
      slot: key(),
      ink: inkName().required(),
      numeralInk: inkName().required(),
      numerals: boolean().required(),
      sizeM: object({ max: within(limitsM.typeSize).required(), min: within(limitsM.typeSize).required() }).required(),
      gapM: within(limitsM.rowsGap).required(),
    }).noUnknown(),
  echo: () =>
    object({
      ...placed,
      part: string().required(),
      slot: key(),
      lines: number().integer().min(2).max(24).required(),
      inked: number().integer().min(0).max(23).required(),
      ink: inkName().required(),
      quietInk: inkName().required(),
      sizeM: object({ max: within(limitsM.typeSize).required(), min: within(limitsM.typeSize).required() }).required(),
    }).noUnknown(),
  mark: () => object({ ...placed, part: string().required(), slot: string().matches(/^[a-z][a-z0-9-]*$/), heightM: within(limitsM.markHeight).required() }).noUnknown(),
  rule: () => object({ ...placed, part: string().required(), lengthM: within(limitsM.ruleLength).required(), thicknessM: within(limitsM.ruleThickness).required(), ink: inkName().required() }).noUnknown(),
  sign: () => object({ ...placed, part: string().required(), text: string().min(1).max(2).required(), heightM: within(limitsM.signHeight).required(), ink: inkName().required() }).noUnknown(),
  artwork: () =>
    object({
      ...placed,
      part: string().required(),
      heightM: within(limitsM.artworkHeight).required(),
      viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
      paths: array(object({ d: string().required().max(20_000), fill: string().matches(/^#[0-9a-fA-F]{6}$/).required(), evenOdd: boolean() }).noUnknown()).min(1).max(400).required(),
      ink: inkName(),
    }).noUnknown(),
  motif: () => object({ ...placed, part: string().required(), generator: string<MotifName>().oneOf([...motifNames]).required(), seed: number().integer().min(0).required(), through: boolean() }).noUnknown(),
  dots: () => object({ ...placed, part: string().required(), heightM: within(limitsM.dotsHeight).required(), ink: inkName().required(), quietInk: inkName().required() }).noUnknown(),
  swipe: () => object({ ...placed, part: string().required(), heightM: within(limitsM.swipeHeight).required(), ink: inkName().required() }).noUnknown(),
};

/** The check of a part of any kind, with all that stands in it. */
export function partSchema(): Schema {
  return lazy((value: unknown) => {
    const kind = typeof value === 'object' && value !== null && 'part' in value ? String(value.part) : '';
    const make = Object.hasOwn(partSchemas, kind) ? partSchemas[kind as Part['part']] : null;
    return make ? make() : object({ part: string().oneOf(Object.keys(partSchemas), `There is no part called '${kind}'`).required() });
  }) as unknown as Schema;
}

/** Every part of a tree, parents first. */
export function* walkParts(part: Part): Generator<Part> {
  yield part;
  if (part.part === 'stack') for (const child of part.children) yield* walkParts(child);
}
