import type { Draft } from 'immer';
import type { Piece } from '../piece/piece.ts';
import { fieldOf, type FieldKey, type Words } from '../words/fields.ts';

/** The row that all channels inherit from. */
export const SHARED = 'shared';

/** A cell by its row, `SHARED` or a channel's id, and its field. */
export interface CellRef {
  readonly row: string;
  readonly field: FieldKey;
}

/** Control characters, but for tabs and line ends: no network takes them, and they come with what is pasted. */
const CONTROLS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u0084\u0086-\u009f\u2028\u2029]/gu;

/** A text as it is kept: without control characters, with line ends of one kind, no longer than its field keeps. */
export function keptText(field: FieldKey, text: string): string {
  const { maxKept } = fieldOf(field);
  const plain = text.replace(/\r\n?|[\u2028\u2029]/gu, '\n').replace(CONTROLS, '');
  if (plain.length <= maxKept) return plain;
  // A pair of surrogates is not cut in two.
  const isHalf = /[\ud800-\udbff]$/u.test(plain.slice(0, maxKept));
  return plain.slice(0, isHalf ? maxKept - 1 : maxKept);
}

/** Writes a cell; a channel's becomes its own. */
export function writeCell(draft: Draft<Piece>, { row, field }: CellRef, text: string): void {
  const words: Draft<Words> = row === SHARED ? draft.words.shared : (draft.words.own[row] ??= {});
  words[field] = keptText(field, text);
}

/** Returns cells to what they inherit; those of the shared row become empty. */
export function resetCells(draft: Draft<Piece>, cells: readonly CellRef[]): void {
  for (const { row, field } of cells) {
    if (row === SHARED) {
      if (fieldOf(field).alwaysThere) (draft.words.shared as Draft<Words>)[field] = '';
      else delete (draft.words.shared as Draft<Words>)[field];
      continue;
    }
    const own = draft.words.own[row];
    if (!own) continue;
    delete own[field];
    if (Object.keys(own).length === 0) delete draft.words.own[row];
  }
}

/**
 * Copies cells of one row to others: what they show, as the others' own words.
 * @param textOf what a cell shows; a field that a row has not is left out by the caller
 */
export function copyCells(draft: Draft<Piece>, cells: readonly { readonly to: CellRef; readonly text: string }[]): void {
  for (const { to, text } of cells) writeCell(draft, to, text);
}

/** How many rows have words of their own. */
export function differingRows(piece: Pick<Piece, 'words'>, rows: readonly string[]): number {
  return rows.filter((row) => Object.keys(piece.words.own[row] ?? {}).length > 0).length;
}
