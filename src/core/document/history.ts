import { produce, type Draft } from 'immer';
import { mergeDocuments } from './merge.ts';

/** One change as a value: what was before and after it. Both share all that did not change. */
export interface Step<Document> {
  readonly before: Document;
  readonly after: Document;
  /** Steps of one label that follow each other closely are undone together: typing in one field, say. */
  readonly label: string;
  readonly atMs: number;
}

/** A document under edit with what can be undone and done again. */
export interface History<Document> {
  readonly document: Document;
  readonly done: readonly Step<Document>[];
  readonly undone: readonly Step<Document>[];
}

const TOGETHER_MS = 1_500;
const MAX_STEPS = 500;

export function startHistory<Document>(document: Document): History<Document> {
  return { document, done: [], undone: [] };
}

/** Changes the document; a change that changes nothing answers the same history. */
export function changeDocument<Document extends object>(history: History<Document>, label: string, atMs: number, recipe: (draft: Draft<Document>) => void): History<Document> {
  const after = produce(history.document, (draft) => {
    recipe(draft);
  });
  return replaceDocument(history, label, atMs, after);
}

/** The same with the changed document at hand. */
export function replaceDocument<Document>(history: History<Document>, label: string, atMs: number, after: Document): History<Document> {
  if (after === history.document) return history;
  const last = history.done.at(-1);
  const isTogether = last !== undefined && last.label === label && atMs - last.atMs < TOGETHER_MS && history.undone.length === 0 && last.after === history.document;
  const step: Step<Document> = { before: isTogether ? last.before : history.document, after, label, atMs };
  return { document: after, done: [...(isTogether ? history.done.slice(0, -1) : history.done), step].slice(-MAX_STEPS), undone: [] };
}

/** Takes the last step back. What somebody else has changed at the same place since stays. */
export function undo<Document>(history: History<Document>): History<Document> {
  const step = history.done.at(-1);
  if (!step) return history;
  return { document: mergeDocuments(step.after, step.before, history.document).document, done: history.done.slice(0, -1), undone: [...history.undone, step] };
}

export function redo<Document>(history: History<Document>): History<Document> {
  const step = history.undone.at(-1);
  if (!step) return history;
  return { document: mergeDocuments(step.before, step.after, history.document).document, done: [...history.done, { ...step, atMs: 0 }], undone: history.undone.slice(0, -1) };
}

/** The document as somebody else's changes make it; they are not among the steps of this history. */
export function rebase<Document>(history: History<Document>, document: Document): History<Document> {
  return document === history.document ? history : { ...history, document };
}
