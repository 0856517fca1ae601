import { array, boolean, number, object, string, type InferType } from 'yup';
import { ownMotifs, type OwnMotif } from '../motif/own-motif.ts';
import { oneOfShapes, recordOf } from '../document/schema.ts';
import { languages, type Language } from '../words/language.ts';
import type { TypeRoleName } from './type-role.ts';

const hex = () => string().matches(/^#[0-9a-fA-F]{6}$/, 'A colour is written #rrggbb').required();
const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/** How figures are drawn: as the typeface has them first, as high as capitals, or with ascenders and descenders as small letters have. */
export const figureStyles = ['as-drawn', 'lining', 'old-style'] as const;
export type FigureStyle = (typeof figureStyles)[number];

/** A type role: which typeface it uses, how it is set, and how large against what a template asks for. */
const typeRole = object({
  font: key(),
  leading: number().min(0.8).max(2).required(),
  trackingEm: number().min(-0.1).max(0.3).required(),
  capitals: string().oneOf(['as-written', 'all']).required(),
  /** Missing: as the typeface has them. */
  figures: string<FigureStyle>().oneOf([...figureStyles]).optional(),
  /** Whether letters that meet are joined where the typeface joins them; missing: they are. */
  ligatures: boolean().optional(),
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

const hashtag = () => string().matches(/^#[\p{L}\p{M}\p{N}_]+$/u, 'A hashtag starts with # and has no spaces').max(100).required();
const network = () => string().matches(/^[a-z][a-z0-9-]*$/).max(40).required();

/** A text that is used again and again: `{key}` in the words becomes it. What stands in square brackets is asked for when it is put in. */
const snippetSchema = object({ key: key(), name: string().required().max(60), text: string().max(4_000).defined() }).noUnknown();

/** Hashtags that go together: for a theme, for some networks, or (both empty) for any post. */
const hashtagSet = object({
  key: key(),
  name: string().trim().required().max(60),
  tags: array(hashtag()).max(60).required(),
  theme: string().max(60).defined(),
  networks: array(network()).max(60).required(),
}).noUnknown();

/** Somebody who is mentioned: `@key` in the words becomes the handle that they have on each network. */
const addressCard = object({
  key: string().matches(/^[\p{L}\p{N}_]{1,40}$/u, 'A short name has letters, digits and underscores').required(),
  name: string().trim().required().max(80),
  handles: recordOf(() => string().matches(/^@[\p{L}\p{N}_][\p{L}\p{N}_.-]{0,60}$/u, 'A handle starts with @ and has no spaces').required()),
}).noUnknown();

/** What a text is put together of, in order. */
export const composedParts = ['caption', 'link', 'hashtags'] as const;
export type ComposedPart = (typeof composedParts)[number];

/** How words are put together for one network, and what stands there until a piece has its own. */
const networkVoice = object({
  order: array(string<ComposedPart>().oneOf([...composedParts]).required()).max(3).required(),
  hashtagsIn: string<'caption' | 'firstComment'>().oneOf(['caption', 'firstComment']).required(),
  firstComment: string().max(2_000).defined(),
  link: string().max(2_000).defined(),
}).noUnknown();

/** How many emoji a brand likes in a text. */
export const emojiHabits = ['none', 'few', 'many'] as const;
export type EmojiHabit = (typeof emojiHabits)[number];

const voiceSchema = object({
  snippets: array(snippetSchema).max(200).required(),
  hashtagSets: array(hashtagSet).max(100).required(),
  hashtagsAvoided: array(hashtag()).max(200).required(),
  /** How many hashtags a post of the brand has at most; null: as many as the network takes. */
  maxHashtags: number().integer().min(0).max(60).nullable().defined(),
  emoji: string<EmojiHabit>().oneOf([...emojiHabits]).required(),
  people: array(addressCard).max(500).required(),
  /** By the key of the network sheet; a network that is not named is `usualNetworkVoice`. */
  networks: recordOf(() => networkVoice),
  /** How easy texts should be to read: the least Flesch reading ease; null: nobody minds. */
  readingEase: number().min(0).max(100).nullable().defined(),
  /** Parameters that links of the brand carry, as a query: `utm_source={network}&utm_campaign={piece}`; empty: none. */
  campaign: string().max(300).defined(),
  guidance: string().max(4_000).defined(),
  tone: string().max(300).defined(),
  words: array(wordChoice).max(200).required(),
  hashtags: array(hashtag()).max(60).required(),
  firstComment: string().max(2_000).defined(),
  link: string().max(2_000).defined(),
}).noUnknown();

/** What can be done to photographs. */
export const treatmentKinds = ['mono', 'duotone', 'tint', 'warm', 'faded', 'grain', 'halftone'] as const;
export type TreatmentKind = (typeof treatmentKinds)[number];

/** How all photographs of the brand look. Colours are named by key; one that is missing is chosen from the book. */
const pictureTreatment = object({
  kind: string<TreatmentKind>().oneOf([...treatmentKinds]).required(),
  strength: number().min(0.1).max(1).required(),
  dark: key().optional(),
  light: key().optional(),
  colour: key().optional(),
}).noUnknown();

/** How the texts of a video come in and leave. */
export const motionManners = ['calm', 'brisk', 'playful'] as const;
export type MotionManner = (typeof motionManners)[number];

/** How a line of subtitles is drawn: on a band, on a label in the brand's loudest colours, or bare with an edge around its letters. */
export const subtitleLooks = ['band', 'label', 'edge'] as const;
export type SubtitleLook = (typeof subtitleLooks)[number];

/** How the videos of the brand move and speak. */
const videoStyle = object({
  /** Missing: calm. */
  manner: string<MotionManner>().oneOf([...motionManners]),
  /** Missing: a band. */
  subtitles: string<SubtitleLook>().oneOf([...subtitleLooks]),
  /** Each word of a subtitle is coloured while it is spoken. */
  coloursSaidWord: boolean<true>().oneOf([true]),
}).noUnknown();

/**
 * All that Confetti knows about a brand. Colours are `#rrggbb`; the fields of a scheme name colours by key; `for` of a mark
 * says which grounds it is drawn for.
 */
export const brandBookSchema = object({
  version: number().oneOf([3]).required(),
  /** What the brand writes in; missing where nobody has said it. */
  language: string<Language>().oneOf([...languages]).optional(),
  colours: array(object({ key: key(), name: string().required().max(60), hex: hex() }).noUnknown()).min(2).max(40).required(),
  schemes: array(
    object({ key: key(), name: string().required().max(60), ground: key(), surface: key(), ink: key(), accent: key() }).noUnknown(),
  ).min(1).max(12).required(),
  type: object({ display: typeRole.required(), heading: typeRole.required(), text: typeRole.required(), label: typeRole.required() }).required(),
  typefaces: array(ownTypeface).max(40).required(),
  marks: array(markSchema).min(1).max(12).required(),
  /** Missing: photographs look as they were taken. */
  treatment: pictureTreatment.optional().default(undefined),
  /** The ornament that templates ask for as the brand's own. Missing: `USUAL_MOTIF`. */
  motif: string<OwnMotif>().oneOf([...ownMotifs]).optional(),
  /** Missing: as `manners` and `subtitleTemplates` have them first. */
  video: videoStyle.optional().default(undefined),
  facts: array(factSchema).max(60).required(),
  voice: voiceSchema.required(),
}).noUnknown();

export type VectorMark = InferType<typeof vectorMark>;
export type PictureMark = InferType<typeof pictureMark>;
export type BrandMark = VectorMark | PictureMark;
export type VideoStyle = InferType<typeof videoStyle>;
export type PictureTreatment = InferType<typeof pictureTreatment>;
export type Voice = InferType<typeof voiceSchema>;
export type Fact = InferType<typeof factSchema>;
export type Snippet = InferType<typeof snippetSchema>;
export type HashtagSet = InferType<typeof hashtagSet>;
export type AddressCard = InferType<typeof addressCard>;
export type NetworkVoice = InferType<typeof networkVoice>;
export type BrandBook = InferType<typeof brandBookSchema>;
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

export const emptyVoice: Voice = {
  guidance: '',
  tone: '',
  words: [],
  hashtags: [],
  firstComment: '',
  link: '',
  snippets: [],
  hashtagSets: [],
  hashtagsAvoided: [],
  maxHashtags: null,
  emoji: 'few',
  people: [],
  networks: {},
  readingEase: null,
  campaign: '',
};

/** How words go together where a brand has not said it: as they are written, with the hashtags behind them. */
export const usualNetworkVoice: NetworkVoice = { order: ['caption', 'hashtags'], hashtagsIn: 'caption', firstComment: '', link: '' };

export function networkVoiceOf(voice: Voice, networkKey: string): NetworkVoice {
  return voice.networks[networkKey] ?? usualNetworkVoice;
}

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

export function hasScheme(book: Pick<BrandBook, 'schemes'>, key: string | null | undefined): key is string {
  return book.schemes.some((scheme) => scheme.key === key);
}

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
