import { array, boolean, lazy, number, object, string, type ISchema, type Lazy } from 'yup';
import { typeRoleNames, type TypeRoleName } from '../brand/type-role.ts';
import type { Checked } from '../document/schema.ts';
import { motifChoices, type MotifChoice } from '../motif/own-motif.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/** Lengths are in `m`, the margin of the cut: 6% of its short side. */

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
const partName = <Name extends string>(name: Name) => string<Name>().oneOf([name]).required();

/** Which colour of the scheme a part takes. */
export type InkName = 'ground' | 'surface' | 'ink' | 'accent';
const inkName = () => string<InkName>().oneOf(['ground', 'surface', 'ink', 'accent']);

export type Edge = 'top' | 'right' | 'bottom' | 'left';
const edgeName = () => string<Edge>().oneOf(['top', 'right', 'bottom', 'left']).required();
const perEdge = () => object({ top: number(), right: number(), bottom: number(), left: number() }).noUnknown().optional().default(undefined);

/** Outlines of a field: its box, a disc in the middle of it, a seal with a scalloped edge, or a tab with one cut corner. */
export type FieldShape = 'box' | 'disc' | 'seal' | 'tab';
export const fieldShapes: readonly FieldShape[] = ['box', 'disc', 'seal', 'tab'];

/** Characters of path data in an outline of the brand's own. */
export const MAX_OUTLINE = 20_000;

/** Windows that a picture can be seen through. The slanted ones lean at one edge, over a neighbour that leans the same way; torn ones end at an edge of torn paper. */
export type WindowShape = 'arch' | 'circle' | 'sail' | 'notch' | 'torn-top' | 'torn-bottom' | 'slant-right' | 'slant-left' | 'slant-bottom' | 'slant-top';
export const windowShapes: readonly WindowShape[] = ['arch', 'circle', 'sail', 'notch', 'torn-top', 'torn-bottom', 'slant-right', 'slant-left', 'slant-bottom', 'slant-top'];

/** Along the direction of a stack, or of a text. */
type Align = 'start' | 'centre' | 'end';
type AlignAcross = Align | 'stretch';
const alignAcross = () => string<AlignAcross>().oneOf(['start', 'centre', 'end', 'stretch']);

/** Where a block of words may stand on a photograph. */
export type CalmPlace = 'top-left' | 'top' | 'top-right' | 'left' | 'right' | 'bottom-left' | 'bottom' | 'bottom-right';
export const calmPlaces: readonly CalmPlace[] = ['top-left', 'top', 'top-right', 'left', 'right', 'bottom-left', 'bottom', 'bottom-right'];

/** How a part of any kind stands in its parent. */
const placed = {
  /** Share of room left over that the part takes, as in CSS flex-grow. */
  grow: number().min(0).max(10),
  /** Size along the parent's direction before growing, in [0, 1] of the parent. */
  share: number().min(0).max(1),
  /** Least size along the parent's direction, in [0, 1] of the parent. */
  leastShare: number().min(0).max(1),
  /** Own alignment across the parent's direction. */
  alignSelf: alignAcross(),
  /** Laid over its parent at these distances from its edges (in m) instead of standing in the row of its siblings. */
  over: perEdge(),
};

/** A coloured field behind a stack; a slant cuts one of its edges and grows over the neighbour by `slantM`. */
const fieldSchema = object({
  ink: inkName().required(),
  shape: string<FieldShape>().oneOf([...fieldShapes]),
  slant: object({ edge: edgeName(), slantM: number().min(0).max(10).required() }).noUnknown().optional().default(undefined),
})
  .noUnknown()
  .optional()
  .default(undefined);

export type Field = NonNullable<Checked<typeof fieldSchema>>;

/**
 * Words that stand on a photograph: the one block in this stack goes to the calmest of these places, the earlier ones first where
 * two are as calm. It gets as little help to be read as it needs.
 */
const afloatSchema = object({
  /** The slot of the picture that it stands on. */
  picture: key(),
  places: array(string<CalmPlace>().oneOf([...calmPlaces]).required()).min(1).max(calmPlaces.length).required(),
  /** Width of the block in [0, 1] of the stack, where it does not take all of it (at the top and at the bottom). */
  width: number().min(0.2).max(1).required(),
  /** About how much of the cut's height the block takes, in [0, 1]: where a calm place is looked for. */
  height: number().min(0.1).max(0.9).required(),
  /** A hairline leads from the block to the subject. */
  pointer: boolean(),
})
  .noUnknown()
  .optional()
  .default(undefined);

export type Afloat = NonNullable<Checked<typeof afloatSchema>>;

const typeSize = () => object({ max: within(limitsM.typeSize).required(), min: within(limitsM.typeSize).required() }).required();

const stackAlone = object({
  ...placed,
  part: partName('stack'),
  direction: string<'column' | 'row'>().oneOf(['column', 'row']).required(),
  gapM: within(limitsM.stackGap),
  padM: perEdge(),
  /** Edges of this stack that lie on edges of the cut and keep their content inside the safe zone. */
  safe: array(edgeName()),
  justify: string<Align | 'between'>().oneOf(['start', 'centre', 'end', 'between']),
  align: alignAcross(),
  field: fieldSchema,
  afloat: afloatSchema,
}).noUnknown();

const textPart = object({
  ...placed,
  part: partName('text'),
  slot: key(),
  role: string<TypeRoleName>().oneOf(typeRoleNames).required(),
  align: string<Align>().oneOf(['start', 'centre', 'end']).required(),
  ink: inkName().required(),
  /** Largest and smallest type size, in m. The reading floor of the shape may raise the smallest. */
  sizeM: typeSize(),
  /** One line, set as large as the width (or the largest size) allows. */
  fill: boolean(),
  /** A fixed width instead of the room there is, in m. */
  widthM: number().min(0.2).max(20),
  /** Punctuation hangs outside the edge that the text is flush with. */
  hanging: boolean(),
  /** The slot of the picture below whose subject may stand before these letters. */
  behind: key().optional().default(undefined),
  /** A repetition that need not be read: it keeps its ink, however faint. */
  ornament: boolean(),
}).noUnknown();

const picturePart = object({
  ...placed,
  part: partName('picture'),
  slot: key(),
  /** How far the picture reaches under its neighbour at an edge (below a slant), in m. */
  underM: perEdge(),
  window: string<WindowShape>().oneOf([...windowShapes]),
  /** A window of the brand's own: outlines in a view box, as large as the box allows. It goes before `window`. */
  outline: object({ viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(), d: string().required().max(MAX_OUTLINE) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** The picture in the scheme's ink and ground instead of its own colours. */
  duotone: boolean(),
  /** A cut-out: all of it is shown, and what lies behind shows through. */
  whole: boolean(),
  /** A cut-out throws a soft shadow. */
  shadow: boolean(),
  /** The picture runs through all slides of a carousel; each shows its part of it. */
  through: boolean(),
  /** A fixed width and height instead of the room there is, in m. */
  sideM: within(limitsM.pictureSide),
}).noUnknown();

/** A list: a row an item, parted by hairlines, with or without numerals. */
const rowsPart = object({
  ...placed,
  part: partName('rows'),
  slot: key(),
  ink: inkName().required(),
  numeralInk: inkName().required(),
  numerals: boolean().required(),
  sizeM: typeSize(),
  gapM: within(limitsM.rowsGap).required(),
}).noUnknown();

/** One line of a slot again and again, filling the width; one of them in the inked colour, the others as a pattern. */
const echoPart = object({
  ...placed,
  part: partName('echo'),
  slot: key(),
  lines: number().integer().min(2).max(24).required(),
  /** Which of the lines is the one that is read, from 0. */
  inked: number().integer().min(0).max(23).required(),
  ink: inkName().required(),
  quietInk: inkName().required(),
  sizeM: typeSize(),
}).noUnknown();

const markPart = object({
  ...placed,
  part: partName('mark'),
  /** The slot by which a piece may choose the mark; without one, or left empty, the ground chooses. */
  slot: string().matches(/^[a-z][a-z0-9-]*$/),
  heightM: within(limitsM.markHeight).required(),
}).noUnknown();

const rulePart = object({
  ...placed,
  part: partName('rule'),
  /** 0 takes the width of the stack, when it stretches. */
  lengthM: within(limitsM.ruleLength).required(),
  thicknessM: within(limitsM.ruleThickness).required(),
  ink: inkName().required(),
}).noUnknown();

/** A sign from the display typeface used as ornament, measured by the height of its ink. */
const signPart = object({ ...placed, part: partName('sign'), text: string().min(1).max(2).required(), heightM: within(limitsM.signHeight).required(), ink: inkName().required() }).noUnknown();

/** Drawn ornament: filled outlines in a view box, in their own colours or all in one of the scheme's. */
const artworkPart = object({
  ...placed,
  part: partName('artwork'),
  heightM: within(limitsM.artworkHeight).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  paths: array(object({ d: string().required().max(20_000), fill: string().matches(/^#[0-9a-fA-F]{6}$/).required(), evenOdd: boolean() }).noUnknown()).min(1).max(400).required(),
  ink: inkName(),
}).noUnknown();

/** A seeded ornament in the scheme's colours. */
const motifPart = object({
  ...placed,
  part: partName('motif'),
  generator: string<MotifChoice>().oneOf([...motifChoices]).required(),
  seed: number().integer().min(0).required(),
  /** The motif runs through all slides of a carousel; each shows its part of it, so no word may stand on it. */
  through: boolean(),
}).noUnknown();

/** A colour of the scheme over what lies below, open around the subject of a picture. */
const veilPart = object({
  ...placed,
  part: partName('veil'),
  ink: inkName().required(),
  /** How much of what lies below it hides, in [0, 1]. */
  strength: number().min(0.05).max(0.9).required(),
  /** The slot of the picture whose subject stays clear. */
  around: string().matches(/^[a-z][a-z0-9-]*$/),
}).noUnknown();

/** Where a slide stands among the others: a dot a slide, its own one in the ink. A single picture has none. */
const dotsPart = object({ ...placed, part: partName('dots'), heightM: within(limitsM.dotsHeight).required(), ink: inkName().required(), quietInk: inkName().required() }).noUnknown();

/** The sign that more follows: an arrow on every slide but the last. */
const swipePart = object({ ...placed, part: partName('swipe'), heightM: within(limitsM.swipeHeight).required(), ink: inkName().required() }).noUnknown();

export type TextPart = Checked<typeof textPart>;
export type PicturePart = Checked<typeof picturePart>;
export type RowsPart = Checked<typeof rowsPart>;
export type EchoPart = Checked<typeof echoPart>;
export type MarkPart = Checked<typeof markPart>;
export type RulePart = Checked<typeof rulePart>;
export type SignPart = Checked<typeof signPart>;
export type ArtworkPart = Checked<typeof artworkPart>;
export type MotifPart = Checked<typeof motifPart>;
export type VeilPart = Checked<typeof veilPart>;
export type DotsPart = Checked<typeof dotsPart>;
export type SwipePart = Checked<typeof swipePart>;

/** What an arrangement is put together of. A stack holds parts again, which a type has to be told by its name. */
export interface StackPart extends Checked<typeof stackAlone> {
  readonly children: readonly Part[];
}

export type Part = StackPart | TextPart | PicturePart | RowsPart | EchoPart | MarkPart | RulePart | SignPart | ArtworkPart | MotifPart | VeilPart | DotsPart | SwipePart;

const leaves = { text: textPart, picture: picturePart, rows: rowsPart, echo: echoPart, mark: markPart, rule: rulePart, sign: signPart, artwork: artworkPart, motif: motifPart, veil: veilPart, dots: dotsPart, swipe: swipePart };
const partNames = ['stack', ...Object.keys(leaves)];

/** The check of a part of any kind, with all that stands in it. */
export const partSchema: Lazy<Part> = lazy((given: unknown): ISchema<Part> => {
  const kind = typeof given === 'object' && given !== null && 'part' in given ? String(given.part) : '';
  if (kind === 'stack') return stackAlone.shape({ children: array(partSchema).max(24).required() }) as unknown as ISchema<Part>;
  const leaf = Object.hasOwn(leaves, kind) ? leaves[kind as keyof typeof leaves] : object({ part: string().oneOf(partNames, `There is no part called '${kind}'`).required() });
  return leaf as unknown as ISchema<Part>;
});

/** Every part of a tree, parents first. */
export function* walkParts(part: Part): Generator<Part> {
  yield part;
  if (part.part === 'stack') for (const child of part.children) yield* walkParts(child);
}
