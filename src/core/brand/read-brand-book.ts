import { BrandBookError, brandBookSchema, emptyVoice, resolveScheme, usualMarkRoom, type BrandBook, type Voice } from './brand-book.ts';

interface Versioned {
  readonly version: number;
}

/** Steps from each version of the document to the next; a kept document goes through those it needs. */
const upgrades: Readonly<Record<number, (book: Versioned) => Versioned>> = {
  1: (book) => {
    const old = book as Versioned & { readonly type: Record<string, object>; readonly marks: readonly object[] };
    return {
      ...old,
      version: 2,
      type: Object.fromEntries(Object.entries(old.type).map(([role, setting]) => [role, { ...setting, scale: 1 }])),
      typefaces: [],
      marks: old.marks.map((mark) => ({ ...mark, kind: 'vector', ...usualMarkRoom })),
      facts: [],
      voice: emptyVoice,
    } as Versioned;
  },
  2: (book) => {
    const { voice } = book as Versioned & { readonly voice: Partial<Voice> };
    return { ...book, version: 3, voice: { ...emptyVoice, ...voice } } as Versioned;
  },
};

/** A book that was kept earlier, brought to the present version. It has been checked when it was kept. */
export function upgradeBrandBook(kept: unknown): BrandBook {
  let book = kept as Versioned;
  for (let step = upgrades[book.version]; step; step = upgrades[book.version]) book = step(book);
  return book as unknown as BrandBook;
}

/**
 * A book from JSON, with every colour that a scheme names.
 * @throws yup ValidationError naming the place of the first fault
 * @throws BrandBookError when a scheme names a colour that is not there, or two things of a kind share a key
 */
export function readBrandBook(json: unknown): BrandBook {
  const book = brandBookSchema.validateSync(upgradeBrandBook(json), { strict: true }) as BrandBook;
  for (const scheme of book.schemes) resolveScheme(book, scheme.key);
  for (const list of [book.colours, book.schemes, book.marks, book.facts, book.typefaces, book.voice.snippets, book.voice.hashtagSets, book.voice.people]) {
    const keys = list.map((each) => each.key);
    const twice = keys.find((key, index) => keys.indexOf(key) !== index);
    if (twice !== undefined) throw new BrandBookError('key-twice', twice);
  }
  return book;
}
