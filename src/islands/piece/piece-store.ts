import type { Draft, Patch } from 'immer';
import type { AnswerOf } from '../../contract/contract.ts';
import type { changePiece as saveChanges } from '../../contract/piece-contracts.ts';
import { changePiece, redo, startHistory, undo, type HistoryStep, type PieceHistory } from '../../core/piece/edit.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { ApiProblem } from '../ui/call.ts';

export type Saved = AnswerOf<typeof saveChanges>;

/** How a piece reaches the server; both throw an ApiProblem when it does not. */
export interface PieceSaver {
  saveChanges(revision: number, patches: readonly Patch[]): Promise<Saved>;
  replace(revision: number, document: Piece): Promise<Saved>;
}

/** Where saving stands. In `conflict` somebody else has saved first, and a person decides whose version stays. */
export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly sentence: string }
  | { readonly kind: 'refused'; readonly sentence: string }
  | { readonly kind: 'conflict'; readonly theirs: Saved };

export interface PieceState {
  readonly history: PieceHistory;
  readonly revision: number;
  readonly save: SaveState;
}

const SAVE_AFTER_MS = 500;
const TRY_AGAIN_MS = 3_000;

/** A piece under edit: its history, and saving that follows by itself. */
export class PieceStore {
  #state: PieceState;
  #unsent: readonly Patch[] = [];
  #timer: ReturnType<typeof setTimeout> | null = null;
  readonly #listeners = new Set<() => void>();

  constructor(
    stored: { readonly document: Piece; readonly revision: number },
    readonly saver: PieceSaver,
  ) {
    this.#state = { history: startHistory(stored.document), revision: stored.revision, save: { kind: 'saved' } };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly getState = (): PieceState => this.#state;

  change(label: string, recipe: (draft: Draft<Piece>) => void): void {
    this.#step(changePiece(this.#state.history, label, Date.now(), recipe));
  }

  undo(): void {
    this.#step(undo(this.#state.history));
  }

  redo(): void {
    this.#step(redo(this.#state.history));
  }

  hasUnsaved(): boolean {
    return this.#state.save.kind !== 'saved';
  }

  /** Saves now what is not saved yet; resolves once it is, or cannot be. */
  async flush(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    if (this.#unsent.length > 0 && this.#state.save.kind !== 'saving' && this.#state.save.kind !== 'conflict') await this.#save();
    while (this.#state.save.kind === 'saving') await new Promise((resolve) => setTimeout(resolve, 50));
  }

  /** Ends a conflict: the other's version takes the place of this one. */
  takeTheirs(): void {
    if (this.#state.save.kind !== 'conflict') return;
    const { theirs } = this.#state.save;
    this.#unsent = [];
    this.#set({ history: startHistory(theirs.document), revision: theirs.revision, save: { kind: 'saved' } });
  }

  /** Ends a conflict: this version is saved on top of the other's. */
  async keepMine(): Promise<void> {
    if (this.#state.save.kind !== 'conflict') return;
    const { revision } = this.#state.save.theirs;
    await this.#send(() => this.saver.replace(revision, this.#state.history.document));
  }

  #step(step: HistoryStep): void {
    if (step.history === this.#state.history) return;
    this.#unsent = [...this.#unsent, ...step.patches];
    const { save } = this.#state;
    this.#set({ ...this.#state, history: step.history, save: save.kind === 'conflict' || save.kind === 'saving' ? save : { kind: 'waiting' } });
    if (save.kind !== 'conflict' && save.kind !== 'saving') this.#saveIn(SAVE_AFTER_MS);
  }

  #saveIn(delayMs: number): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#save(), delayMs);
  }

  #save(): Promise<void> {
    const patches = this.#unsent;
    const { revision } = this.#state;
    return this.#send(() => this.saver.saveChanges(revision, patches));
  }

  async #send(send: () => Promise<Saved>): Promise<void> {
    const sent = this.#unsent;
    this.#unsent = [];
    this.#set({ ...this.#state, save: { kind: 'saving' } });
    try {
      const saved = await send();
      const more = this.#unsent.length > 0;
      this.#set({ ...this.#state, revision: saved.revision, save: { kind: more ? 'waiting' : 'saved' } });
      if (more) this.#saveIn(0);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      this.#unsent = [...sent, ...this.#unsent];
      if (error.code === 'stale-revision') {
        this.#set({ ...this.#state, save: { kind: 'conflict', theirs: error.details['current'] as Saved } });
      } else if (error.status === 0 || error.status >= 500) {
        this.#set({ ...this.#state, save: { kind: 'offline', sentence: error.message } });
        this.#saveIn(TRY_AGAIN_MS);
      } else {
        this.#set({ ...this.#state, save: { kind: 'refused', sentence: error.message } });
      }
    }
  }

  #set(state: PieceState): void {
    this.#state = state;
    for (const listener of this.#listeners) listener();
  }
}
