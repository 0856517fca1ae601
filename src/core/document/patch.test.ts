import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyPatch, MAX_OPERATIONS, PatchError, patchBetween } from './patch.ts';

const documents = fc.dictionary(fc.string(), fc.jsonValue({ maxDepth: 2 }), { maxKeys: 5 }).filter((each) => !Object.keys(each).includes('__proto__') && !JSON.stringify(each).includes('__proto__') && !JSON.stringify(each).includes('constructor'));

describe('a patch', () => {
  it('turns one document into the other, and leaves the first as it was', () => {
    fc.assert(
      fc.property(documents, documents, (before, after) => {
        const copy = structuredClone(before);
        expect(applyPatch(before, patchBetween(before, after))).toEqual(JSON.parse(JSON.stringify(after)));
        expect(before).toEqual(copy);
      }),
    );
  });

  it('has one operation for a field, however much of it has changed', () => {
    expect(patchBetween({ words: { caption: 'a' } }, { words: { caption: 'a long caption, typed letter by letter' } })).toEqual([{ op: 'replace', path: '/words/caption', value: 'a long caption, typed letter by letter' }]);
  });

  it('is the whole document where a patch would be longer', () => {
    const after = Object.fromEntries(Array.from({ length: MAX_OPERATIONS + 1 }, (_, index) => [`k${index}`, index]));
    expect(patchBetween({}, after)).toEqual([{ op: 'replace', path: '', value: after }]);
  });

  it.each([
    ['/frames/1000000000', { frames: [1] }],
    ['/missing/deeper', {}],
    ['/__proto__/polluted', {}],
  ])('at %s does not fit', (path, document) => {
    expect(() => applyPatch(document, [{ op: 'add', path, value: 1 }])).toThrow(PatchError);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });
});
