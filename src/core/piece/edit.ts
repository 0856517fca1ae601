import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Piece } from './piece.ts';

enablePatches();

/** One change of a piece as a value: it can be applied, undone and sent. */
export interface Edit {
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  /** Edits of one label that follow each other closely are undone together: typing in one field, say. */
  readonly label: string;
  readonly atMs: number;
}

export interface PieceHistory {
  readonly document: Piece;
  readonly done: readonly Edit[];
  readonly undone: readonly Edit[];
}

/** A history step together with the patches that carry it to the server. */
export interface HistoryStep {
  readonly history: PieceHistory;
  readonly patches: readonly Patch[];
}

const TOGETHER_MS = 1_500;
const MAX_HISTORY = 500;

export function startHistory(document: Piece): PieceHistory {
  return { document, done: [], undone: [] };
}

/** Changes the document; a change that changes nothing answers the same history. */
export function changePiece(history: PieceHistory, label: string, atMs: number, recipe: (draft: Draft<Piece>) => void): HistoryStep {
  const [document, patches, inverse] = produceWithPatches(history.document, (draft: Draft<Piece>) => {
    recipe(draft);
  });
  if (patches.length === 0) return { history, patches: [] };
  const last = history.done.at(-1);
  const edit: Edit = { patches, inverse, label, atMs };
  const together = last && last.label === label && atMs - last.atMs < TOGETHER_MS && history.undone.length === 0;
  const done = together
    ? [...history.done.slice(0, -1), { label, atMs, patches: [...last.patches, ...patches], inverse: [...inverse, ...last.inverse] }]
    : [...history.done, edit].slice(-MAX_HISTORY);
  return { history: { document, done, undone: [] }, patches };
}

export function undo(history: PieceHistory): HistoryStep {
  const edit = history.done.at(-1);
  if (!edit) return { history, patches: [] };
  return {
    history: { document: applyPatches(history.document, [...edit.inverse]), done: history.done.slice(0, -1), undone: [...history.undone, edit] },
    patches: edit.inverse,
  };
}

export function redo(history: PieceHistory): HistoryStep {
  const edit = history.undone.at(-1);
  if (!edit) return { history, patches: [] };
  return {
    history: { document: applyPatches(history.document, [...edit.patches]), done: [...history.done, { ...edit, atMs: 0 }], undone: history.undone.slice(0, -1) },
    patches: edit.patches,
  };
}
