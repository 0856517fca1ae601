import { readPiece, type Frame, type Piece, type SlotValue } from '../piece/piece.ts';
import { fillIn, fillInsOf } from './fill-ins.ts';

/** A piece without its specifics: its template, its words with fill-ins, its channels and theme, and the time of the week it goes out at. */
export interface Boilerplate {
  readonly piece: Piece;
  readonly themeId: string | null;
  /** 1 for Monday to 7 for Sunday, with a wall time; null: no usual time. */
  readonly usual: { readonly weekday: number; readonly time: string } | null;
}

type Texts = (text: string) => string;

/** A piece with every text that stands on it or goes along changed. */
function withTexts(piece: Piece, change: Texts): Piece {
  const slots = (frame: Frame): Frame => ({ ...frame, ...(frame.altText === undefined ? {} : { altText: change(frame.altText) }), slots: Object.fromEntries(Object.entries(frame.slots).map(([key, value]): [string, SlotValue] => [key, value.kind === 'text' ? { ...value, text: change(value.text) } : value])) });
  const row = <Row extends Readonly<Record<string, string | undefined>>>(words: Row): Row => Object.fromEntries(Object.entries(words).map(([field, text]) => [field, text === undefined ? undefined : change(text)])) as Row;
  const [first, ...rest] = piece.frames;
  return { ...piece, title: change(piece.title), frames: [slots(first), ...rest.map(slots)], words: { shared: row(piece.words.shared), own: Object.fromEntries(Object.entries(piece.words.own).map(([channelId, words]) => [channelId, row(words)])) } };
}

/** What of a piece is kept as a boilerplate: no pictures, no music, nothing that differs in single cuts. */
export function boilerplateOf(piece: Piece, themeId: string | null, usual: Boilerplate['usual']): Boilerplate {
  const { track: _, cover: __, variants: ___, ...kept } = piece;
  const bare = (frame: Frame): Frame => ({ ...frame, slots: Object.fromEntries(Object.entries(frame.slots).filter(([, value]) => value.kind !== 'picture')) });
  const [first, ...rest] = kept.frames;
  return { piece: readPiece({ ...kept, adjustments: {}, frames: [bare(first), ...rest.map(bare)] }), themeId, usual };
}

/** All texts of a piece in which fill-ins may stand. */
function textsOf({ title, frames, words }: Piece): readonly string[] {
  return [title, ...frames.flatMap(({ slots, altText }) => [...Object.values(slots).flatMap((value) => (value.kind === 'text' ? [value.text] : [])), altText ?? '']), ...[words.shared, ...Object.values(words.own)].flatMap((row) => Object.values(row))];
}

/** What is asked for when a piece is begun from it. */
export function askedFor({ piece }: Pick<Boilerplate, 'piece'>): readonly string[] {
  return fillInsOf(textsOf(piece));
}

/** A new piece with the fill-ins filled in. */
export function pieceFrom({ piece }: Pick<Boilerplate, 'piece'>, values: Readonly<Record<string, string>>): Piece {
  return readPiece(JSON.parse(JSON.stringify(withTexts(piece, (text) => fillIn(text, values)))));
}
