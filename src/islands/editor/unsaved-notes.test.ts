import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { forgetUnsaved, notesInBrowser } from './unsaved-notes.ts';

/** A browser's store of texts; `isFull`: it takes no more. */
class TextStore {
  [key: string]: unknown;
  readonly #kept = new Map<string, string>();
  isFull = false;

  getItem(key: string): string | null {
    return this.#kept.get(key) ?? null;
  }

  setItem(key: string, value: string): void {
    if (this.isFull) throw new DOMException('full', 'QuotaExceededError');
    this.#kept.set(key, value);
    Object.defineProperty(this, key, { value, enumerable: true, configurable: true });
  }

  removeItem(key: string): void {
    this.#kept.delete(key);
    Reflect.deleteProperty(this, key);
  }
}

const note = { base: { title: 'Before' }, revision: 4, document: { title: 'After' }, atMs: 1_000 };
let store: TextStore;

beforeEach(() => {
  store = new TextStore();
  Object.defineProperty(store, 'isFull', { enumerable: false });
  vi.stubGlobal('localStorage', store);
});
afterEach(() => vi.unstubAllGlobals());

describe('what a visit could not save', () => {
  it('is there again for the same person and document, and for nobody else', () => {
    notesInBrowser('wren', 'piece', 'p1').write(note);
    expect(notesInBrowser('wren', 'piece', 'p1').read()).toEqual(note);
    for (const [person, kind, id] of [['tove', 'piece', 'p1'], ['wren', 'book', 'p1'], ['wren', 'piece', 'p2']] as const) expect(notesInBrowser(person, kind, id).read()).toBeNull();
  });

  it('is gone once it is saved', () => {
    const notes = notesInBrowser('wren', 'piece', 'p1');
    notes.write(note);
    notes.clear();
    expect(notes.read()).toBeNull();
  });

  it('is missing after a damaged note or a full browser store', () => {
    store.setItem('confetti-unsaved/wren/piece/p1', '{broken');
    expect(notesInBrowser('wren', 'piece', 'p1').read()).toBeNull();
    store.isFull = true;
    expect(() => notesInBrowser('wren', 'piece', 'p2').write(note)).not.toThrow();
    expect(notesInBrowser('wren', 'piece', 'p2').read()).toBeNull();
  });

  it('is forgotten when somebody signs out, and nothing else is', () => {
    notesInBrowser('wren', 'piece', 'p1').write(note);
    notesInBrowser('wren', 'book', 'gullwick').write(note);
    store.setItem('theme', 'dark');
    forgetUnsaved();
    expect([notesInBrowser('wren', 'piece', 'p1').read(), notesInBrowser('wren', 'book', 'gullwick').read(), store.getItem('theme')]).toEqual([null, null, 'dark']);
  });
});
