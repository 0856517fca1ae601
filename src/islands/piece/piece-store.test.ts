import type { Patch } from 'immer';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { ApiProblem } from '../ui/call.ts';
import { PieceStore, type PieceSaver, type Saved } from './piece-store.ts';

/** A server in memory, whose next answers can be told. */
class MemorySaver implements PieceSaver {
  readonly saves: { readonly revision: number; readonly patches: readonly Patch[] }[] = [];
  readonly replaced: Piece[] = [];
  problems: ApiProblem[] = [];
  waitFor: Promise<void> = Promise.resolve();

  saveChanges(revision: number, patches: readonly Patch[]): Promise<Saved> {
    this.saves.push({ revision, patches });
    return this.#answer(revision);
  }

  replace(revision: number, document: Piece): Promise<Saved> {
    this.replaced.push(document);
    return this.#answer(revision);
  }

  async #answer(revision: number): Promise<Saved> {
    await this.waitFor;
    const problem = this.problems.shift();
    if (problem) throw problem;
    return { id: 'p1', revision: revision + 1, document: plainPiece, updatedMs: 0 };
  }
}

const offline = (): ApiProblem => new ApiProblem(0, 'offline', 'Not reached', {});
const conflict = (title: string): ApiProblem => new ApiProblem(409, 'stale-revision', 'Changed elsewhere', { current: { id: 'p1', revision: 9, document: { ...plainPiece, title }, updatedMs: 0 } });

let saver: MemorySaver;
let store: PieceStore;
const retitle = (title: string): void => store.change('title', (draft) => void (draft.title = title));
const saveKind = (): string => store.getState().save.kind;

beforeEach(() => {
  vi.useFakeTimers();
  saver = new MemorySaver();
  store = new PieceStore({ document: plainPiece, revision: 4 }, saver);
});
afterEach(() => vi.useRealTimers());

describe('PieceStore', () => {
  it('saves a while after the last change, all of it at once', async () => {
    retitle('a');
    await vi.advanceTimersByTimeAsync(300);
    retitle('ab');
    await vi.advanceTimersByTimeAsync(300);
    expect([saver.saves.length, saveKind()]).toEqual([0, 'waiting']);
    await vi.advanceTimersByTimeAsync(300);
    expect(saver.saves).toHaveLength(1);
    expect(saver.saves[0]).toMatchObject({ revision: 4, patches: [{ path: ['title'], value: 'a' }, { path: ['title'], value: 'ab' }] });
    expect([store.getState().revision, saveKind(), store.hasUnsaved()]).toEqual([5, 'saved', false]);
  });

  it('saves what was typed while saving on top of the answer', async () => {
    let release = (): void => undefined;
    saver.waitFor = new Promise((resolve) => (release = resolve));
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    retitle('b');
    release();
    await vi.advanceTimersByTimeAsync(600);
    expect(saver.saves.map((save) => save.revision)).toEqual([4, 5]);
    expect(saver.saves[1]?.patches).toMatchObject([{ value: 'b' }]);
    expect(saveKind()).toBe('saved');
  });

  it('keeps trying while the server is away, and loses nothing', async () => {
    saver.problems = [offline(), offline()];
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    expect(saveKind()).toBe('offline');
    retitle('ab');
    await vi.advanceTimersByTimeAsync(10_000);
    expect(saveKind()).toBe('saved');
    expect(saver.saves.at(-1)?.patches.map((patch) => patch.value as unknown)).toEqual(['a', 'ab']);
  });

  it('stops at a conflict, keeps typing possible, and can keep its own version', async () => {
    saver.problems = [conflict('Theirs')];
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    expect(saveKind()).toBe('conflict');
    retitle('Mine, and more');
    await vi.advanceTimersByTimeAsync(5_000);
    expect(saver.saves).toHaveLength(1);
    await store.keepMine();
    expect(saver.replaced.map((document) => document.title)).toEqual(['Mine, and more']);
    expect([store.getState().revision, saveKind()]).toEqual([10, 'saved']);
  });

  it('can take the other version instead, and goes on from its revision', async () => {
    saver.problems = [conflict('Theirs')];
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    store.takeTheirs();
    expect([store.getState().history.document.title, store.getState().revision, saveKind()]).toEqual(['Theirs', 9, 'saved']);
    retitle('After');
    await vi.advanceTimersByTimeAsync(600);
    expect(saver.saves.at(-1)).toMatchObject({ revision: 9, patches: [{ value: 'After' }] });
  });

  it('says why the server refuses, and sends it again with the next change', async () => {
    saver.problems = [new ApiProblem(422, 'unknown-picture', 'The brand has no such picture.', {})];
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    expect(store.getState().save).toEqual({ kind: 'refused', sentence: 'The brand has no such picture.' });
    retitle('b');
    await vi.advanceTimersByTimeAsync(600);
    expect(saver.saves.at(-1)?.patches).toHaveLength(2);
    expect(saveKind()).toBe('saved');
  });

  it('saves at once when asked to', async () => {
    retitle('a');
    await Promise.all([store.flush(), vi.advanceTimersByTimeAsync(100)]);
    expect([saver.saves.length, saveKind()]).toEqual([1, 'saved']);
  });

  it('saves undoing and redoing like any other change, and tells who listens', async () => {
    const heard = vi.fn();
    const stop = store.subscribe(heard);
    retitle('a');
    store.undo();
    expect(store.getState().history.document).toEqual(plainPiece);
    store.redo();
    await vi.advanceTimersByTimeAsync(600);
    expect(saver.saves[0]?.patches.map((patch) => patch.value as unknown)).toEqual(['a', '', 'a']);
    expect(heard).toHaveBeenCalled();
    stop();
    heard.mockClear();
    store.undo();
    expect(heard).not.toHaveBeenCalled();
  });

  it('does not save when nothing has changed', async () => {
    retitle('');
    store.undo();
    await vi.advanceTimersByTimeAsync(2_000);
    expect(saver.saves).toEqual([]);
  });
});
