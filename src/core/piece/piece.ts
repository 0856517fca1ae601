import { cutShort } from '../words/cut-short.ts';
import { array, boolean, number, object, string } from 'yup';
import { oneOfShapes, optional, recordOf, type Checked } from '../document/schema.ts';
import { fields, type Words } from '../words/fields.ts';
import { shotSchema } from './shot.ts';
import { coverSchema } from './cover.ts';
import { trackSchema } from './track.ts';
import { adjustmentSchema, linkedCut, type Adjustment } from './adjustment.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/).required();
const id = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id').required();
const words = (max: number) => string().max(max);

/** Longest text of a slot that a piece keeps, in characters. */
export const MAX_SLOT_TEXT = 5_000;

const textValue = object({ kind: string<'text'>().oneOf(['text']).required(), text: words(MAX_SLOT_TEXT).defined() }).noUnknown();
const pictureValue = object({
  kind: string<'picture'>().oneOf(['picture']).required(),
  mediaId: id(),
  /** It looks as it was taken, whatever the brand does to its photographs. */
  untreated: boolean().optional(),
}).noUnknown();
/** One of the brand's marks, chosen by a person instead of by what lies behind it. */
const markValue = object({ kind: string<'mark'>().oneOf(['mark']).required(), mark: key() }).noUnknown();

const slotValue = oneOfShapes<typeof textValue | typeof pictureValue | typeof markValue>('kind', { text: textValue, picture: pictureValue, mark: markValue });

export type SlotValue = Checked<typeof slotValue>;

/** A graphic has one frame; a carousel's are its slides, a video's its shots. */
export type PieceKind = 'graphic' | 'carousel' | 'video';

/** Slides of a carousel, more than any network takes as pictures; beyond, a list is better split into pieces. */
export const MAX_SLIDES = 100;

/** One picture of a piece: its only one, or a slide. */
const frameSchema = object({
  id: id(),
  /** How a frame of a video plays. */
  shot: shotSchema.optional().default(undefined),
  /** The kind of slide, by the key that the template gives it; missing: the cover. */
  slide: string().matches(/^[a-z][a-z0-9-]*$/),
  /** What somebody who cannot see this slide should know; a graphic's alt text is among its words. */
  altText: words(MAX_SLOT_TEXT),
  slots: recordOf(() => slotValue),
}).noUnknown();

export type Frame = Checked<typeof frameSchema>;

const cutSchema = object({ channelId: id(), placement: key() }).noUnknown();

export type CutRef = Checked<typeof cutSchema>;

/** Words of one row of the wording sheet; a missing cell of a channel is inherited from the shared row. */
const ownWords = () => object(Object.fromEntries(fields.map(({ key, maxKept }) => [key, words(maxKept)]))).noUnknown();

/** The shared row: fields that every piece has are always there. */
const sharedWords = () => ownWords().shape(Object.fromEntries(fields.filter(({ alwaysThere }) => alwaysThere).map(({ key, maxKept }) => [key, words(maxKept).defined()])));

/** Cuts that a piece may have; a brand of very many channels has more places than that. */
export const MAX_CUTS = 200;

/**
 * One idea made visual, as it is kept: its template, its ordered frames (a graphic has one), the cuts it is made for and
 * its words.
 */
export const pieceSchema = object({
  version: number<1>().oneOf([1]).required(),
  kind: string<PieceKind>().oneOf(['graphic', 'carousel', 'video']).required(),
  title: string().max(120).defined(),
  template: object({ key: key() }).required(),
  frames: array(frameSchema).min(1).when('kind', { is: 'graphic', then: (frames) => frames.max(1), otherwise: (frames) => frames.max(MAX_SLIDES) }).required().test('ids', 'Two slides have one id', (frames) => new Set(frames.map((frame) => frame.id)).size === frames.length),
  cuts: array(cutSchema).max(MAX_CUTS).required(),
  /** Music, voice and subtitles of a video. */
  track: trackSchema.optional().default(undefined),
  /** What stands for a video before it plays. */
  cover: optional(coverSchema),
  /** Other captions that are kept beside the one in use: the writing desk puts them here, rotation takes them. */
  variants: array(object({ id: id(), text: words(100_000).required() }).noUnknown()).max(40),
  /** How single cuts differ, by cut key; a cut that is not named follows the piece in everything. */
  adjustments: recordOf(() => adjustmentSchema),
  words: object({
    shared: sharedWords().required(),
    own: recordOf(ownWords),
  }).noUnknown().required(),
}).noUnknown();

/** Caption and alt text are always there; a field that nobody has filled in is missing. */
export type SharedWords = Words & Readonly<Record<Extract<(typeof fields)[number], { readonly alwaysThere: true }>['key'], string>>;

type CheckedPiece = Checked<typeof pieceSchema>;

/** A piece always has a frame, and its words are those of the registry of fields: two things that the schema checks and its type cannot say. */
export interface Piece extends Omit<CheckedPiece, 'frames' | 'words'> {
  readonly frames: readonly [Frame, ...Frame[]];
  readonly words: { readonly shared: SharedWords; readonly own: Readonly<Record<string, Words>> };
}

/**
 * A piece from JSON.
 * @throws yup ValidationError naming the place of the first fault
 */
export function readPiece(json: unknown): Piece {
  return pieceSchema.validateSync(json, { strict: true }) as CheckedPiece as Piece;
}

/** The text of a slot, empty when the slot is empty or holds something else. */
export function slotText(frame: Frame, slot: string): string {
  const value = frame.slots[slot];
  return value?.kind === 'text' ? value.text : '';
}

/** Whether nothing has been put into a frame yet. */
export function isBlank({ slots }: Frame): boolean {
  return Object.values(slots).every((value) => value.kind === 'text' && value.text.trim() === '');
}

/** The pictures and clips that a piece shows and the sounds it plays, each once, in order of first use. */
export function mediaOfPiece({ frames, track, cover }: Pick<Piece, 'frames' | 'track' | 'cover'>): readonly string[] {
  const ids = frames.flatMap((frame) => Object.values(frame.slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : [])));
  return [...new Set([...ids, ...[track?.music, track?.voice, cover?.kind === 'picture' ? cover.mediaId : undefined].flatMap((id) => id ?? [])])];
}

/** A cut's key within its piece, fit for file names and maps. */
export function cutKey(cut: CutRef): string {
  return `${cut.channelId}.${cut.placement}`;
}

/** The key of one slide within one cut. */
export function slideKey(cut: CutRef, frameId: string): string {
  return `${cutKey(cut)}/${frameId}`;
}

/** How a cut differs from its piece; a linked cut differs in nothing. */
export function adjustmentOf(piece: Pick<Piece, 'adjustments'>, cut: CutRef): Adjustment {
  return piece.adjustments[cutKey(cut)] ?? linkedCut;
}

/** How one slide of a cut differs: as the whole cut does, and in what is its own. */
export function slideAdjustmentOf(piece: Pick<Piece, 'adjustments'>, cut: CutRef, frameId: string): Adjustment {
  const own = piece.adjustments[slideKey(cut, frameId)];
  const whole = adjustmentOf(piece, cut);
  return own === undefined ? whole : { ...whole, ...own, hidden: [...(whole.hidden ?? []), ...(own.hidden ?? [])] };
}

/** The words that lead a piece: its headline, else the first text that is filled in. */
export function firstWords({ frames: [frame] }: Pick<Piece, 'frames'>): string {
  const texts = ['headline', ...Object.keys(frame.slots)].map((slot) => slotText(frame, slot).trim());
  return texts.find((text) => text !== '') ?? '';
}

/** All that is written in a piece: its title, the texts of its frames and its words. */
export function pieceTexts({ title, frames, words, track }: Pick<Piece, 'title' | 'frames' | 'words' | 'track'>): readonly string[] {
  const inSlots = frames.flatMap((frame) => [frame.altText ?? '', ...Object.keys(frame.slots).map((slot) => slotText(frame, slot))]);
  const inWords = [words.shared, ...Object.values(words.own)].flatMap((row) => Object.values(row));
  return [title, ...inSlots, ...inWords, ...(track?.subtitles ?? []).map(({ text }) => text)].filter((text) => text.trim() !== '');
}

/** What the pieces list and file names call a piece: its title, else its first words. */
export function pieceName(piece: Pick<Piece, 'title' | 'frames'>): string {
  const headline = firstWords(piece);
  return piece.title.trim() || cutShort(headline, 60) || 'Untitled piece';
}
