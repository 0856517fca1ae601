import { array, boolean, number, object, string, type InferType } from 'yup';
import { oneOfShapes } from '../document/schema.ts';
import { languages, type Language } from '../words/language.ts';

const hex = () => string().matches(/^#[0-9a-fA-F]{6}$/, 'A colour is written #rrggbb').required();
const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/** A type role: which typeface it uses, how it is set, and how large against what a template asks for. */
const typeRole = object({
  font: key(),
  leading: number().min(0.8).max(2).required(),
  trackingEm: number().min(-0.1).max(0.3).required(),
  capitals: string().oneOf(['as-written', 'all']).required(),
  /** 1 sets the role as large as templates ask; a wide typeface may want less. */
  scale: number().min(0.6).max(1.4).required(),
}).noUnknown();

/** What kind of mark it is: a name as it is written, a sign that stands for it, or all in one colour for hard cases. */
export type MarkGroup = 'wordmark' | 'symbol' | 'one-colour';
export const markGroups: readonly MarkGroup[] = ['wordmark', 'symbol', 'one-colour'];

const markCommon = {
  key: key(),
  /** What people call it; missing: its kind and the ground it is for. */
  name: string().max(60).optional(),
  group: string<MarkGroup>().oneOf([...markGroups]).optional(),
  for: string<'light' | 'dark'>().oneOf(['light', 'dark']).required(),
  /** Room that nothing else may enter, as a share of the mark's height. */
  clearSpace: number().min(0).max(1).required(),
  /** Height below which the mark is no longer clear, in pixels of a cut 1080 wide. */
  leastHeightPx: number().min(16).max(400).required(),
};

/** A vector mark: filled SVG path data in its own view box. */
const vectorMark = object({
  ...markCommon,
  kind: string<'vector'>().oneOf(['vector']).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  paths: array(object({ d: string().required().max(20_000), fill: hex(), evenOdd: boolean() }).noUnknown()).min(1).max(400).required(),
}).noUnknown();

/** A mark made of pixels: one of the brand's pictures, and the colour that most of it has. */
const pictureMark = object({
  ...markCommon,
  kind: string<'picture'>().oneOf(['picture']).required(),
  mediaId: string().matches(/^[A-Za-z0-9_-]{1,40}$/).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  mainColour: hex(),
}).noUnknown();

const markSchema = oneOfShapes<typeof vectorMark | typeof pictureMark>('kind', { vector: vectorMark, picture: pictureMark });

/** A typeface that the brand has brought along: its file by content hash, and what its licence says. */
const ownTypeface = object({
  key: string().matches(/^own-[0-9a-f]{12}$/).required(),
  family: string().required().max(80),
  weight: number().integer().min(1).max(1000).required(),
  hash: string().matches(/^[0-9a-f]{64}$/).required(),
  licence: string().max(300).defined(),
}).noUnknown();

/** A standing fill-in: `{key}` in any text becomes its text. */
const factSchema = object({ key: key(), name: string().required().max(40), text: string().max(300).defined() }).noUnknown();

/** A word that the brand does not use, and what it says instead (empty where there is nothing better). */
const wordChoice = object({ avoid: string().trim().required().max(60), prefer: string().max(60).defined() }).noUnknown();

const voiceSchema = object({
  guidance: string().max(4_000).defined(),
  tone: string().max(300).defined(),
  words: array(wordChoice).max(200).required(),
  hashtags: array(string().matches(/^#[\p{L}\p{N}_]+$/u, 'A hashtag starts with # and has no spaces').max(60).required()).max(60).required(),
  firstComment: string().max(2_000).defined(),
  link: string().max(2_000).defined(),
}).noUnknown();

/**
 * All that Confetti knows about a brand. Colours are `#rrggbb`; the fields of a scheme name colours by key; `for` of a mark
 * says which grounds it is drawn for.
 */
export const brandBookSchema = object({
  version: number().oneOf([2]).required(),
  /** What the brand writes in; missing where nobody has said it. */
  language: string<Language>().oneOf([...languages]).optional(),
  colours: array(object({ key: key(), name: string().required().max(60), hex: hex() }).noUnknown()).min(2).max(40).required(),
  schemes: array(
    object({ key: key(), name: string().required().max(60), ground: key(), surface: key(), ink: key(), accent: key() }).noUnknown(),
  ).min(1).max(12).required(),
  type: object({ display: typeRole.required(), heading: typeRole.required(), text: typeRole.required(), label: typeRole.required() }).required(),
  typefaces: array(ownTypeface).max(40).required(),
  marks: array(markSchema).min(1).max(12).required(),
  facts: array(factSchema).max(60).required(),
  voice: voiceSchema.required(),
}).noUnknown();

export type VectorMark = InferType<typeof vectorMark>;
export type PictureMark = InferType<typeof pictureMark>;
export type BrandMark = VectorMark | PictureMark;
export type Voice = InferType<typeof voiceSchema>;
export type Fact = InferType<typeof factSchema>;
export type BrandBook = InferType<typeof brandBookSchema>;
export type TypeRoleName = keyof BrandBook['type'];
export type TypeRole = BrandBook['type'][TypeRoleName];

export const markGroupNames: Readonly<Record<MarkGroup, string>> = { wordmark: 'Wordmark', symbol: 'Symbol', 'one-colour': 'One colour' };

/** What a mark is called where people choose one. */
export function markName({ name, group, for: ground }: Pick<BrandMark, 'name' | 'group' | 'for'>): string {
  return name?.trim() || `${group ? markGroupNames[group] : 'Mark'} for ${ground} grounds`;
}

/** A scheme with its colours looked up. */
export interface ResolvedScheme {
  readonly key: string;
  readonly ground: string;
  readonly surface: string;
  readonly ink: string;
  readonly accent: string;
}

/** Ids of the pictures that marks are made of. */
export function mediaOfBook(book: Pick<BrandBook, 'marks'>): readonly string[] {
  return [...new Set(book.marks.flatMap((mark) => (mark.kind === 'picture' ? [mark.mediaId] : [])))];
}

export const emptyVoice: Voice = { guidance: '', tone: '', words: [], hashtags: [], firstComment: '', link: '' };

/** A fifth of a mark's height of room, and the height at which its details still show on a phone. */
export const usualMarkRoom = { clearSpace: 0.2, leastHeightPx: 48 } as const;
/** Letters of a wordmark are as high as the mark; below this they cannot be read. */
const MIN_WORDMARK_HEIGHT_PX = 24;

/** What a mark of this shape usually keeps to: a wide one shows its details at a lower height. */
export function markRoomOf({ width, height }: { readonly width: number; readonly height: number }): { readonly clearSpace: number; readonly leastHeightPx: number } {
  const { clearSpace, leastHeightPx } = usualMarkRoom;
  return { clearSpace, leastHeightPx: Math.round(Math.max(MIN_WORDMARK_HEIGHT_PX, leastHeightPx / Math.sqrt(Math.max(1, width / height)))) };
}

export class BrandBookError extends Error {
  override readonly name = 'BrandBookError';
  constructor(
    /** `unknown-scheme`: no scheme has the key; `unknown-colour`: a scheme names a colour that is not there; `key-twice`: two things of a kind have it. */
    readonly code: keyof typeof sentences,
    readonly key: string,
  ) {
    super(sentences[code](key));
  }
}

const sentences = {
  'unknown-scheme': (key: string) => `The brand book has no scheme '${key}'`,
  'unknown-colour': (key: string) => `The brand book has no colour '${key}'`,
  'key-twice': (key: string) => `The brand book has '${key}' twice`,
};

/**
 * The colours of a scheme.
 * @throws BrandBookError when the scheme, or a colour it names, is not in the book
 */
export function resolveScheme(book: BrandBook, schemeKey: string): ResolvedScheme {
  const scheme = book.schemes.find((each) => each.key === schemeKey);
  if (!scheme) throw new BrandBookError('unknown-scheme', schemeKey);
  const colour = (colourKey: string): string => {
    const found = book.colours.find((each) => each.key === colourKey);
    if (!found) throw new BrandBookError('unknown-colour', colourKey);
    return found.hex;
  };
  return {
    key: scheme.key,
    ground: colour(scheme.ground),
    surface: colour(scheme.surface),
    ink: colour(scheme.ink),
    accent: colour(scheme.accent),
  };
}
