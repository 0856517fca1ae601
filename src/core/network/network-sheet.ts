import { array, boolean, number, object, string, type InferType } from 'yup';
import { fieldKeys, type FieldKey } from '../words/fields.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();
const percent = () => number().min(0).max(45).required();

/** A text field of a network: what it is called, how long it may be and how its length is counted. */
const wordFieldSchema = object({
  key: string<FieldKey>().oneOf([...fieldKeys]).required(),
  label: string().required().max(40),
  /** Null: there is no limit. */
  max: number().integer().positive().nullable().defined(),
  counting: string<'graphemes' | 'weighted' | 'bytes' | 'keywords'>().oneOf(['graphemes', 'weighted', 'bytes', 'keywords']).required(),
  /** The network refuses a post without it. */
  required: boolean().required(),
  /** What can be chosen, for a choice that is the same for all accounts. */
  options: array(object({ key: key(), name: string().required().max(40) }).noUnknown()),
  /** What can be chosen is the account's own: its boards, its playlists. */
  offered: boolean(),
  /** The network's own default; a choice shows it. */
  usual: string().max(60),
  /** How many answers a poll may have, how long each, and for how many days it may be open. */
  poll: object({ minOptions: number().integer().min(2).required(), maxOptions: number().integer().max(10).required(), maxOption: number().integer().positive().required(), maxDays: number().integer().positive().required() }).noUnknown().default(undefined),
  /** Placements that have the field; missing: all of them. */
  placements: array(key()),
}).noUnknown();

/** One place on a network where a cut can appear. Percentages are of the cut's height (top, bottom) or width (right, left). */
const placementSchema = object({
  key: key(),
  name: string().required().max(40),
  /** Placements that share a surface show one after another in the same place; a piece takes one of them. */
  surface: string().required().max(40),
  exportPx: object({ width: number().integer().min(200).max(4000).required(), height: number().integer().min(200).max(4000).required() }).required(),
  safePercent: object({ top: percent(), right: percent(), bottom: percent(), left: percent() }).required(),
  /** How many slides a carousel may have here, and whether they go as pictures or as the pages of one document; missing: none. */
  carousel: object({ least: number().integer().min(2).required(), most: number().integer().max(300).required(), as: string<'pictures' | 'document'>().oneOf(['pictures', 'document']).required() }).noUnknown().default(undefined),
  /** How long a video may be here, in seconds; missing: the place takes none. */
  video: object({
    leastSeconds: number().positive().required(),
    mostSeconds: number().positive().required(),
    /** What may stand for a video before it plays: a frame of it, or any picture; missing: the place chooses. */
    cover: string<'frame' | 'any'>().oneOf(['frame', 'any']),
    /** Subtitles may go along as a file. */
    subtitleFile: boolean(),
  }).noUnknown().default(undefined),
  /** A place for carousels alone: a single picture has nothing to do there. */
  onlyCarousel: boolean(),
  /** A place for videos alone. */
  onlyVideo: boolean(),
}).noUnknown();

/** A kind of account that people have on a network. */
const accountKindSchema = object({
  key: key(),
  name: string().required().max(40),
  /** `by-hand`: the network lets no program post there; a person places what Confetti prepares. */
  sends: string<'automatic' | 'by-hand'>().oneOf(['automatic', 'by-hand']).required(),
  /** Placements that such an account has; missing: all of them. */
  placements: array(key()),
  /** Fields that it does not have. */
  without: array(string<FieldKey>().oneOf([...fieldKeys]).required()),
}).noUnknown();

/**
 * The rules of one network as data. Nothing in the program asks which network it is; it asks the sheet.
 */
export const networkSheetSchema = object({
  version: number().oneOf([1]).required(),
  key: key(),
  name: string().required().max(40),
  badge: object({ shape: string().oneOf(['circle', 'square', 'triangle', 'hexagon', 'ring', 'diamond', 'pentagon', 'bar', 'arch']).required(), letter: string().length(1).required() }).required(),
  /** Kinds of accounts, the usual one first; missing: one kind, which has everything and is posted to by Confetti. */
  accounts: array(accountKindSchema.required()).min(1),
  placements: array(placementSchema).min(1).required(),
  words: object({
    fields: array(wordFieldSchema).min(1).required(),
    hashtags: object({
      max: number().integer().min(0).nullable().defined(),
      warnOver: number().integer().min(0).nullable().defined(),
      /** They are a field of their own and not part of the text: categories. */
      asField: boolean(),
    }).required(),
    /** Posts that one text may be split into; missing: it goes out as one. */
    thread: object({ maxParts: number().integer().min(2).required() }).noUnknown().default(undefined),
    mentions: object({ max: number().integer().min(0).nullable().defined() }).required(),
    links: object({ countAs: number().integer().positive().nullable().defined(), clickable: boolean().required() }).required(),
    foldAfter: number().integer().positive().nullable().defined(),
  }).required(),
  files: object({ maxImageBytes: number().integer().positive().required(), maxDocumentBytes: number().integer().positive(), maxVideoBytes: number().integer().positive() }).required(),
  pace: object({ dailyMax: number().integer().positive().required(), leastGapMin: number().min(0).required() }).required(),
  /** The wall of posts that a visitor of an account sees; missing: squares in three columns, of every place. */
  profile: object({
    columns: number().integer().min(1).max(6).required(),
    /** The shape of its tiles; each shows the middle of its picture. */
    tile: object({ width: number().integer().min(1).max(32).required(), height: number().integer().min(1).max(32).required() }).noUnknown().required(),
    /** Placements that stand in it; others are seen for a while, or elsewhere. */
    placements: array(key()).min(1).required(),
  }).noUnknown().default(undefined),
  /** What people can write to an account, and what it may do about it; missing: nothing that a program reads. */
  talk: object({
    comments: boolean().required(),
    mentions: boolean().required(),
    messages: boolean().required(),
    /** Comments of others can be hidden, or removed. */
    hide: boolean().required(),
    remove: boolean().required(),
    maxAnswer: number().integer().positive().required(),
    counting: string<'graphemes' | 'weighted' | 'bytes'>().oneOf(['graphemes', 'weighted', 'bytes']).required(),
  }).noUnknown().default(undefined),
  /** How posts reach it: by which protocol (missing: that of the stand-ins), and in which manner. */
  publishing: object({
    protocol: string<'standin' | 'micropub'>().oneOf(['standin', 'micropub']),
    manner: string().oneOf(['draft-then-publish', 'idempotency-key']).required(),
    /** What can be done to a post that is out: change its text, remove it; missing: nothing. */
    afterwards: array(string<'text' | 'remove'>().oneOf(['text', 'remove']).required()),
  }).required(),
}).noUnknown();

/** The wall of posts that a visitor of an account sees. */
export type ProfileRule = NonNullable<CheckedSheet['profile']>;

/** How many slides a carousel may have in a place, and in what form they go. */
export interface CarouselRule {
  readonly least: number;
  readonly most: number;
  readonly as: 'pictures' | 'document';
}

/** How long a video may be in a place, and what may go along with it. */
export interface VideoRule {
  readonly leastSeconds: number;
  readonly mostSeconds: number;
  readonly cover?: 'frame' | 'any' | undefined;
  readonly subtitleFile?: boolean | undefined;
}

type CheckedSheet = InferType<typeof networkSheetSchema>;
export type Placement = Omit<CheckedSheet['placements'][number], 'carousel' | 'video'> & { readonly carousel?: CarouselRule | undefined; readonly video?: VideoRule | undefined };
type CheckedWords = CheckedSheet['words'];
export type PollRule = NonNullable<CheckedWords['fields'][number]['poll']>;
export type WordField = Omit<CheckedWords['fields'][number], 'poll'> & { readonly poll?: PollRule | undefined };
/** What people can write to an account of a network. */
export type TalkRule = NonNullable<CheckedSheet['talk']>;
export type NetworkSheet = Omit<CheckedSheet, 'placements' | 'words' | 'talk' | 'profile'> & {
  readonly profile?: ProfileRule | undefined;
  readonly talk?: TalkRule | undefined;
  readonly placements: readonly Placement[];
  readonly words: Omit<CheckedWords, 'fields' | 'thread'> & { readonly fields: readonly WordField[]; readonly thread?: { readonly maxParts: number } | undefined };
};

/** The placements of a sheet that a kind of piece can be made for. A carousel can go everywhere: where it cannot go as one, it shows what goes instead. */
export function placementsFor(sheet: NetworkSheet, kind: 'graphic' | 'carousel' | 'video'): readonly Placement[] {
  if (kind === 'video') return sheet.placements.filter((placement) => placement.video !== undefined);
  const others = sheet.placements.filter((placement) => !placement.onlyVideo);
  return kind === 'carousel' ? others : others.filter((placement) => !placement.onlyCarousel);
}

/**
 * The placement of a sheet by its key.
 * @throws RangeError when the sheet has no such placement
 */
export function getPlacement(sheet: NetworkSheet, placementKey: string): Placement {
  const placement = sheet.placements.find((each) => each.key === placementKey);
  if (!placement) throw new RangeError(`${sheet.name} has no placement '${placementKey}'`);
  return placement;
}
