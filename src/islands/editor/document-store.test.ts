import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { mergeDocuments } from '../../core/document/merge.ts';
import { applyPatch, type Patch } from '../../core/document/patch.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { ApiProblem } from '../ui/call.ts';
import { DocumentStore, type DocumentSaver, type Stored } from './document-store.ts';
import type { UnsavedNote, UnsavedNotes } from './unsaved-notes.ts';

/** A server in memory that merges as the real one does, and whose next answers can be told. */
class MemoryServer implements DocumentSaver<Piece> {
  readonly saves: { readonly revision: number; readonly patches: Patch; readonly isLast: boolean }[] = [];
  readonly states: Stored<Piece>[] = [{ revision: 4, document: plainPiece }];
  problems: ApiProblem[] = [];
  waitFor: Promise<void> = Promise.resolve();

  get current(): Stored<Piece> {
    return this.states.at(-1) as Stored<Piece>;
  }

  /** Somebody else saves. */
  write(change: Partial<Piece>): Stored<Piece> {
    this.states.push({ revision: this.current.revision + 1, document: { ...this.current.document, ...change } });
    return this.current;
  }

  async save(revision: number, patches: Patch, _document: Piece, isLast: boolean): Promise<Stored<Piece>> {
    this.saves.push({ revision, patches, isLast });
    await this.waitFor;
    const problem = this.problems.shift();
    if (problem) throw problem;
    const base = this.states.find((each) => each.revision === revision)?.document as Piece;
    const { document, conflicts } = mergeDocuments<Piece>(base, applyPatch(base, patches) as Piece, this.current.document);
    if (conflicts.length > 0) throw new ApiProblem(409, 'conflict', 'Caspian has written in the same place.', { current: this.current, by: 'Caspian' });
    return this.write(document);
  }
}

const captioned = (caption: string): Piece['words'] => ({ ...plainPiece.words, shared: { ...plainPiece.words.shared, caption } });
let server: MemoryServer;
let store: DocumentStore<Piece>;
const retitle = (title: string): void => store.change('title', (draft) => void (draft.title = title));
const saveKind = (): string => store.getState().save.kind;
const shown = (): Piece => store.getState().history.document;

beforeEach(() => {
  vi.useFakeTimers();
  server = new MemoryServer();
  store = new DocumentStore<Piece>({ document: plainPiece, revision: 4 }, server);
});
afterEach(() => vi.useRealTimers());

describe('saving', () => {
  it('comes a while after the last change, one operation a field', async () => {
    for (const title of ['a', 'ab', 'abc']) {
      retitle(title);
      await vi.advanceTimersByTimeAsync(300);
    }
    expect([server.saves.length, saveKind()]).toEqual([0, 'waiting']);
    await vi.advanceTimersByTimeAsync(300);
    expect(server.saves).toEqual([{ revision: 4, patches: [{ op: 'replace', path: '/title', value: 'abc' }], isLast: false }]);
    expect([store.getState().revision, saveKind(), store.hasUnsaved()]).toEqual([5, 'saved', false]);
  });

  it('does not wait for ever for somebody who types on and on', async () => {
    for (let count = 0; count < 40; count += 1) {
      retitle('x'.repeat(count + 1));
      await vi.advanceTimersByTimeAsync(100);
    }
    expect(server.saves.length).toBeGreaterThanOrEqual(1);
  });

  it('is never refused for the number of keystrokes', async () => {
    server.problems = [new ApiProblem(0, 'offline', 'Not reached', {})];
    for (let count = 0; count < 2_000; count += 1) retitle(`title ${count}`);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(server.saves.at(-1)?.patches).toEqual([{ op: 'replace', path: '/title', value: 'title 1999' }]);
    expect(saveKind()).toBe('saved');
  });

  it('sends what was typed while saving on top of the answer', async () => {
    let release = (): void => undefined;
    server.waitFor = new Promise((resolve) => (release = resolve));
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    retitle('b');
    release();
    await vi.advanceTimersByTimeAsync(600);
    expect(server.saves.map(({ revision, patches }) => [revision, patches[0]?.value])).toEqual([[4, 'a'], [5, 'b']]);
    expect(saveKind()).toBe('saved');
  });

  it('keeps trying while the server is away, and loses nothing', async () => {
    server.problems = [new ApiProblem(0, 'offline', 'Not reached', {}), new ApiProblem(503, 'busy', 'Busy', {})];
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    expect(saveKind()).toBe('offline');
    retitle('ab');
    await vi.advanceTimersByTimeAsync(10_000);
    expect([saveKind(), server.current.document.title]).toEqual(['saved', 'ab']);
  });

  it('says why the server refuses, and sends it again with the next change', async () => {
    server.problems = [new ApiProblem(422, 'unknown-picture', 'The brand has no such picture.', {})];
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    expect(store.getState().save).toEqual({ kind: 'refused', sentence: 'The brand has no such picture.' });
    store.change('caption', (draft) => void (draft.words.shared.caption = 'C'));
    await vi.advanceTimersByTimeAsync(600);
    expect([server.current.document.title, server.current.document.words.shared.caption, saveKind()]).toEqual(['a', 'C', 'saved']);
  });

  it('outlives the page when the page goes', () => {
    retitle('a');
    store.leave();
    expect(server.saves).toMatchObject([{ isLast: true }]);
  });

  it('sends once when the page leaves twice, and again when somebody types in between', async () => {
    retitle('a');
    store.leave();
    store.leave();
    retitle('ab');
    store.leave();
    expect(server.saves).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(5_000);
    expect([server.current.document.title, saveKind()]).toEqual(['ab', 'saved']);
  });

  it('starts anew where a person stays after all', async () => {
    server.problems = [new ApiProblem(0, 'offline', 'Confetti cannot be reached.', {})];
    retitle('a');
    store.leave();
    await vi.advanceTimersByTimeAsync(100);
    store.leave();
    await vi.advanceTimersByTimeAsync(5_000);
    expect([server.current.document.title, saveKind()]).toEqual(['a', 'saved']);
  });

  it('happens at once when asked to, and not at all when nothing has changed', async () => {
    store.undo();
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.saves).toEqual([]);
    retitle('a');
    await Promise.all([store.flush(), vi.advanceTimersByTimeAsync(100)]);
    expect([server.saves.length, saveKind()]).toEqual([1, 'saved']);
  });

  it('by hand waits for the hand', async () => {
    store = new DocumentStore<Piece>({ document: plainPiece, revision: 4 }, server, 'by-hand');
    retitle('a');
    await vi.advanceTimersByTimeAsync(10_000);
    store.leave();
    expect([server.saves.length, store.hasUnsaved()]).toEqual([0, true]);
    await Promise.all([store.flush(), vi.advanceTimersByTimeAsync(100)]);
    expect([server.saves.length, store.hasUnsaved()]).toEqual([1, false]);
    retitle('b');
    store.discard();
    expect([shown().title, store.hasUnsaved()]).toEqual(['a', false]);
  });
});

describe('two people', () => {
  it('both keep their words in different fields, without being asked', async () => {
    server.write({ words: captioned('Theirs') });
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    expect([server.current.document.title, server.current.document.words.shared.caption]).toEqual(['Mine', 'Theirs']);
    expect([shown().title, shown().words.shared.caption, saveKind()]).toEqual(['Mine', 'Theirs', 'saved']);
  });

  it('see each other’s changes as they come, also while they type', () => {
    retitle('Mine, not saved yet');
    store.receive(server.write({ words: captioned('Theirs') }));
    expect([shown().title, shown().words.shared.caption, saveKind()]).toEqual(['Mine, not saved yet', 'Theirs', 'waiting']);
    store.undo();
    expect([shown().title, shown().words.shared.caption]).toEqual(['', 'Theirs']);
  });

  it('are asked about a field in which both wrote, with the other’s name and both texts', async () => {
    server.write({ title: 'Theirs', words: captioned('Also theirs') });
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    expect(store.getState().save).toMatchObject({ kind: 'conflict', by: 'Caspian', conflicts: [{ path: ['title'], mine: 'Mine', theirs: 'Theirs' }] });
    retitle('Mine, and more');
    await vi.advanceTimersByTimeAsync(5_000);
    expect([server.saves.length, store.getState().save]).toMatchObject([1, { conflicts: [{ mine: 'Mine, and more' }] }]);
    await Promise.all([store.resolve(() => 'mine'), vi.advanceTimersByTimeAsync(100)]);
    expect([server.current.document.title, server.current.document.words.shared.caption, saveKind()]).toEqual(['Mine, and more', 'Also theirs', 'saved']);
  });

  it('can take the other’s text instead, and go on from there', async () => {
    server.write({ title: 'Theirs' });
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    await store.resolve(() => 'theirs');
    expect([shown().title, store.getState().revision, saveKind()]).toEqual(['Theirs', 5, 'saved']);
    retitle('After');
    await vi.advanceTimersByTimeAsync(600);
    expect(server.current.document.title).toBe('After');
  });

  it('are in no conflict any more when one types what the other has', async () => {
    server.write({ title: 'Theirs' });
    retitle('Mine');
    await vi.advanceTimersByTimeAsync(600);
    retitle('Theirs');
    expect(saveKind()).toBe('saved');
  });
});

describe('the page', () => {
  it('is told of changes while it listens, and keeps what did not change', async () => {
    const heard = vi.fn();
    const stop = store.subscribe(heard);
    const { frames } = shown();
    retitle('a');
    await vi.advanceTimersByTimeAsync(600);
    expect([heard.mock.calls.length > 0, shown().frames === frames]).toEqual([true, true]);
    stop();
    heard.mockClear();
    store.undo();
    expect(heard).not.toHaveBeenCalled();
  });
});

describe('a document that is saved by hand, and changed as a whole', () => {
  beforeEach(() => {
    store = new DocumentStore<Piece>({ document: plainPiece, revision: 4 }, server, 'by-hand');
  });

  it('waits for a person, saves all at once, and goes back to what is saved', async () => {
    store.replace({ ...shown(), title: 'One' });
    await vi.advanceTimersByTimeAsync(60_000);
    expect([server.saves.length, saveKind(), store.hasUnsaved()]).toEqual([0, 'waiting', true]);
    store.discard();
    expect([shown().title, store.hasUnsaved()]).toEqual([plainPiece.title, false]);
    store.replace({ ...shown(), title: 'Two' });
    await store.flush();
    expect([server.current.document.title, saveKind(), store.hasUnsaved()]).toEqual(['Two', 'saved', false]);
  });

  it('undoes changes of one place together, and those of another place by themselves', () => {
    store.replace({ ...shown(), title: 'K' });
    store.replace({ ...shown(), title: 'Kites' });
    store.replace({ ...shown(), words: captioned('Come and see') });
    store.undo();
    expect([shown().title, shown().words.shared.caption]).toEqual(['Kites', plainPiece.words.shared.caption]);
    store.undo();
    expect(shown().title).toBe(plainPiece.title);
  });
});

describe('what could not be saved', () => {
  /** What a browser keeps, as text. */
  class Kept implements UnsavedNotes<Piece> {
    text: string | null = null;
    read(): UnsavedNote<Piece> | null {
      return this.text === null ? null : (JSON.parse(this.text) as UnsavedNote<Piece>);
    }
    write(note: UnsavedNote<Piece>): void {
      this.text = JSON.stringify(note);
    }
    clear(): void {
      this.text = null;
    }
  }
  const offline = (): ApiProblem => new ApiProblem(0, 'offline', 'There is no connection.', {});
  let kept: Kept;
  const visit = (): DocumentStore<Piece> => new DocumentStore<Piece>(server.current, server, 'by-itself', kept);
  beforeEach(() => {
    kept = new Kept();
    store = visit();
  });

  it('is kept while there is no connection, and forgotten once it is saved', async () => {
    server.problems = [offline()];
    retitle('Typed on a train');
    await vi.advanceTimersByTimeAsync(600);
    expect([saveKind(), kept.read()?.document.title]).toEqual(['offline', 'Typed on a train']);
    await vi.advanceTimersByTimeAsync(4_000);
    expect([saveKind(), kept.text]).toEqual(['saved', null]);
  });

  it('comes back with the next visit, beside what others have written since, and can be undone', async () => {
    server.problems = [offline()];
    retitle('Typed on a train');
    await store.flush();
    server.write({ words: captioned('Caspian was here') });
    store = visit();
    expect(store.takeUp()).not.toBeNull();
    expect([shown().title, shown().words.shared.caption]).toEqual(['Typed on a train', 'Caspian was here']);
    await store.flush();
    expect([server.current.document.title, server.current.document.words.shared.caption, kept.text]).toEqual(['Typed on a train', 'Caspian was here', null]);
    store.undo();
    expect([shown().title, shown().words.shared.caption]).toEqual([plainPiece.title, 'Caspian was here']);
  });

  it('asks where somebody else has written in the same place meanwhile', async () => {
    server.problems = [offline()];
    retitle('Mine');
    await store.flush();
    server.write({ title: 'Theirs' });
    store = visit();
    store.takeUp('Caspian Muir');
    expect([saveKind(), shown().title]).toEqual(['conflict', 'Mine']);
    expect(store.getState().save).toMatchObject({ by: 'Caspian Muir' });
    await store.resolve(() => 'mine');
    expect([server.current.document.title, kept.text]).toEqual(['Mine', null]);
  });

  it('is nothing where the request that outlived the page has arrived', async () => {
    retitle('Sent along');
    store.leave();
    await vi.advanceTimersByTimeAsync(0);
    kept.write({ base: plainPiece, revision: 4, document: { ...plainPiece, title: 'Sent along' }, atMs: 1 });
    store = visit();
    expect([store.takeUp(), shown().title, saveKind(), kept.text]).toEqual([null, 'Sent along', 'saved', null]);
    expect(visit().takeUp()).toBeNull();
  });
});
