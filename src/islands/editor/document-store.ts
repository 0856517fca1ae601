import type { Draft } from 'immer';
import { changeDocument, rebase, redo, replaceDocument, startHistory, undo, type History } from '../../core/document/history.ts';
import { mergeDocuments, type Conflict, type Side } from '../../core/document/merge.ts';
import { patchBetween, type Patch } from '../../core/document/patch.ts';
import { ApiProblem } from '../ui/call.ts';
import type { UnsavedNotes } from './unsaved-notes.ts';

/** A document as the server keeps it. */
export interface Stored<Document> {
  readonly document: Document;
  readonly revision: number;
}

/** How a document reaches the server. */
export interface DocumentSaver<Document> {
  /**
   * Saves what was changed since a revision; the answer may hold what others have saved meanwhile.
   * @param isLast the page is about to go: the request has to outlive it
   * @throws ApiProblem when it is not saved; with `current` in its details where somebody else has saved first
   */
  save(revision: number, patches: Patch, document: Document, isLast: boolean): Promise<Stored<Document>>;
}

/** Where saving stands. In `conflict` two people wrote in one place, and a person decides for each place. */
export type SaveState<Document> =
  | { readonly kind: 'saved' }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly sentence: string }
  | { readonly kind: 'refused'; readonly sentence: string }
  | { readonly kind: 'conflict'; readonly by: string; readonly theirs: Stored<Document>; readonly conflicts: readonly Conflict[] };

export interface DocumentState<Document> {
  readonly history: History<Document>;
  readonly revision: number;
  readonly save: SaveState<Document>;
}

/** By itself shortly after each change, or when a person says so. */
export type SaveMode = 'by-itself' | 'by-hand';

const SAVE_AFTER_MS = 500;
/** Whoever types on and on is saved this often all the same. */
const SAVE_WITHIN_MS = 3_000;
const TRY_AGAIN_MS = 3_000;
const SOMEBODY = 'Somebody else';

/** What the server answers when somebody else has saved first. */
const AHEAD: ReadonlySet<string> = new Set(['conflict', 'base-gone', 'stale-revision']);

/**
 * A document under edit: its history, saving, and what others save meanwhile. Others' changes are taken in as they come, unless both
 * wrote in one place.
 */
export class DocumentStore<Document extends object> {
  #state: DocumentState<Document>;
  /** The document as the server has it at the revision of the state. */
  #base: Document;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #unsavedSinceMs: number | null = null;
  /** What the last request that outlives the page has sent along. */
  #sentAlong: Document | null = null;
  readonly #listeners = new Set<() => void>();

  constructor(
    stored: Stored<Document>,
    readonly saver: DocumentSaver<Document>,
    readonly mode: SaveMode = 'by-itself',
    readonly notes: UnsavedNotes<Document> | null = null,
  ) {
    this.#base = stored.document;
    this.#state = { history: startHistory(stored.document), revision: stored.revision, save: { kind: 'saved' } };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly getState = (): DocumentState<Document> => this.#state;

  /** @param label changes of one label that follow each other closely are undone together */
  change(label: string, recipe: (draft: Draft<Document>) => void): void {
    this.#step(changeDocument(this.#state.history, label, Date.now(), recipe));
  }

  /** The same with the changed document at hand. Changes in the same places that follow each other closely are undone together. */
  replace(document: Document): void {
    const places = patchBetween(this.#state.history.document, document).map(({ path }) => path);
    this.#step(replaceDocument(this.#state.history, places.join(' '), Date.now(), document));
  }

  undo(): void {
    this.#step(undo(this.#state.history));
  }

  redo(): void {
    this.#step(redo(this.#state.history));
  }

  hasUnsaved(): boolean {
    return this.#state.history.document !== this.#base;
  }

  /**
   * Goes on with what an earlier visit could not save, as if it had been written just now on what was there then.
   * @param by who saved last what is there now, where that is known
   * @returns when it was written; null where there was nothing, or all of it is saved by now
   */
  takeUp(by: string | null = null): number | null {
    const note = this.notes?.read();
    if (!note) return null;
    const theirs = { document: this.#base, revision: this.#state.revision };
    this.#base = note.base;
    this.#set({ history: replaceDocument(startHistory(note.base), 'unsaved', note.atMs, note.document), revision: note.revision, save: { kind: 'waiting' } });
    this.#join(theirs, by);
    return this.#state.save.kind === 'saved' ? null : note.atMs;
  }

  /** The document as it is saved. */
  saved(): Document {
    return this.#base;
  }

  /** Goes back to what is saved. */
  discard(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    this.#set({ ...this.#state, history: startHistory(this.#base), save: { kind: 'saved' } });
  }

  /** Saves now what is not saved yet; resolves once it is, or cannot be. */
  async flush(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    if (this.hasUnsaved() && this.#state.save.kind !== 'saving' && this.#state.save.kind !== 'conflict') await this.#save(false);
    while (this.#state.save.kind === 'saving') await new Promise((resolve) => this.#onceChanged(resolve));
  }

  /** The page may go: what is not saved is sent along, once, and the request outlives the page. */
  leave(): void {
    const { history, save } = this.#state;
    const isUnderWay = save.kind === 'saving' && history.document === this.#sentAlong;
    if (this.mode === 'by-hand' || isUnderWay || save.kind === 'conflict' || !this.hasUnsaved()) return;
    this.#sentAlong = history.document;
    this.#note();
    void this.#save(true);
  }

  /** Takes in what somebody else has saved. */
  receive(theirs: Stored<Document>, by: string | null = null): void {
    const { revision, save } = this.#state;
    // An answer to a save that is under way brings it as well.
    if (theirs.revision <= revision || save.kind === 'saving') return;
    this.#join(theirs, by);
  }

  /** Ends a conflict: a person has decided for each place. */
  async resolve(decide: (conflict: Conflict) => Side): Promise<void> {
    const { save } = this.#state;
    if (save.kind !== 'conflict') return;
    this.#join(save.theirs, save.by, decide);
    if (this.mode === 'by-itself') await this.flush();
  }

  #step(history: History<Document>): void {
    if (history === this.#state.history) return;
    const { save } = this.#state;
    this.#set({ ...this.#state, history, save: save.kind === 'conflict' || save.kind === 'saving' ? save : { kind: history.document === this.#base ? 'saved' : 'waiting' } });
    // What is typed may settle a conflict, or make another.
    if (save.kind === 'conflict') this.#join(save.theirs, save.by);
    else if (save.kind !== 'saving') this.#saveSoon();
  }

  #saveSoon(): void {
    if (this.mode === 'by-hand') return;
    this.#unsavedSinceMs ??= Date.now();
    this.#saveIn(Math.max(0, Math.min(SAVE_AFTER_MS, this.#unsavedSinceMs + SAVE_WITHIN_MS - Date.now())));
  }

  #saveIn(delayMs: number): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#save(false), delayMs);
  }

  async #save(isLast: boolean): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    const sent = this.#state.history.document;
    const patches = patchBetween(this.#base, sent);
    this.#unsavedSinceMs = null;
    if (patches.length === 0) {
      this.#base = sent;
      return this.#set({ ...this.#state, save: { kind: 'saved' } });
    }
    this.#set({ ...this.#state, save: { kind: 'saving' } });
    try {
      this.#saved(sent, await this.saver.save(this.#state.revision, patches, sent, isLast));
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      this.#notSaved(error);
    }
  }

  #saved(sent: Document, answer: Stored<Document>): void {
    // The same document keeps its identity: nothing that shows it has to be drawn anew.
    const kept = patchBetween(sent, answer.document).length === 0 ? sent : answer.document;
    const { document } = this.#state.history;
    this.#base = kept;
    const now = document === sent ? kept : kept === sent ? document : mergeDocuments(sent, document, kept, () => 'mine').document;
    const more = now !== kept;
    this.#set({ ...this.#state, history: rebase(this.#state.history, now), revision: answer.revision, save: { kind: more ? 'waiting' : 'saved' } });
    if (more) this.#saveSoon();
  }

  #notSaved(problem: ApiProblem): void {
    const current = problem.details['current'] as Stored<Document> | undefined;
    if (AHEAD.has(problem.code) && current) return this.#join(current, (problem.details['by'] as string | undefined) ?? null);
    if (problem.status === 0 || problem.status >= 500 || problem.code === 'busy') {
      this.#set({ ...this.#state, save: { kind: 'offline', sentence: problem.message } });
      this.#note();
      this.#saveIn(TRY_AGAIN_MS);
    } else {
      this.#set({ ...this.#state, save: { kind: 'refused', sentence: problem.message } });
    }
  }

  /** Brings this document and the other's together; where both wrote in one place, a person is asked first. */
  #join(theirs: Stored<Document>, by: string | null, decide?: (conflict: Conflict) => Side): void {
    const { history } = this.#state;
    const { document, conflicts } = mergeDocuments(this.#base, history.document, theirs.document, decide);
    if (conflicts.length > 0 && !decide) {
      this.#note();
      return this.#set({ ...this.#state, save: { kind: 'conflict', by: by ?? SOMEBODY, theirs, conflicts } });
    }
    this.#base = theirs.document;
    const isSaved = patchBetween(theirs.document, document).length === 0;
    const joined = isSaved ? theirs.document : document;
    this.#set({ history: rebase(history, joined), revision: theirs.revision, save: { kind: isSaved ? 'saved' : 'waiting' } });
    if (!isSaved) this.#saveSoon();
  }

  #onceChanged(then: (value: unknown) => void): void {
    const end = this.subscribe(() => {
      end();
      then(undefined);
    });
  }

  /** Keeps what is not saved beyond the page: it may be closed, or its machine switched off. */
  #note(): void {
    const { history, revision } = this.#state;
    this.notes?.write({ base: this.#base, revision, document: history.document, atMs: Date.now() });
  }

  #set(state: DocumentState<Document>): void {
    if (state.save.kind === 'saved') this.notes?.clear();
    this.#state = state;
    for (const listener of this.#listeners) listener();
  }
}
