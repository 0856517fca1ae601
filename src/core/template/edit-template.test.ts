import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addPart, changePart, changeSlideView, movePart, newPart, partAt, removePart, slideView, walkPaths, type PartPath } from './edit-template.ts';
import { getShippedTemplate } from './shipped-templates.ts';
import { walkParts, type StackPart } from './parts.ts';
import { readTemplate } from './template.ts';

const root = getShippedTemplate('headland').arrangements[0]?.root as StackPart;
const paths = [...walkPaths(root)].map((each) => each.path);
const names = (tree: StackPart): readonly string[] => [...walkParts(tree)].map((part) => ('slot' in part ? `${part.part} ${part.slot}` : part.part)).toSorted();

describe('the tree of parts', () => {
  it('names every part by a path that leads to it', () => {
    for (const { part, path } of walkPaths(root)) expect(partAt(root, path)).toBe(part);
    expect(partAt(root, [99])).toBeNull();
  });

  it('changes one part and shares all others', () => {
    const path = paths.find((each) => partAt(root, each)?.part === 'text') ?? [];
    const changed = changePart(root, path, (part) => (part.part === 'text' ? { ...part, ink: 'accent' } : part));
    expect(partAt(changed, path)).toMatchObject({ ink: 'accent' });
    expect(changePart(root, path, (part) => part)).toBe(root);
    expect(changePart(root, [42, 1], () => root)).toBe(root);
  });

  it('takes parts in and out, but never the root', () => {
    const added = addPart(root, [], { part: 'mark', heightM: 2 });
    expect(added.children.at(-1)).toEqual({ part: 'mark', heightM: 2 });
    expect(removePart(added, [added.children.length - 1])).toEqual(root);
    expect(removePart(root, [])).toBe(root);
  });

  it('moves any part up and down without losing or doubling one', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(), fc.constantFrom(-1 as const, 1 as const)), { maxLength: 30 }), (moves) => {
        let tree = root;
        for (const [pick, by] of moves) {
          const all: PartPath[] = [...walkPaths(tree)].map((each) => [...each.path]);
          const path = all[pick % all.length] ?? [];
          const part = partAt(tree, path);
          const moved = movePart(tree, path, by);
          expect(partAt(moved.root, moved.path)).toEqual(part);
          tree = moved.root;
        }
        expect(names(tree)).toEqual(names(root));
      }),
    );
  });
});

describe('new parts', () => {
  it.each(['stack', 'text', 'picture', 'mark', 'rule', 'sign', 'motif', 'rows', 'echo'] as const)('a %s makes a template that is still one', (kind) => {
    const template = getShippedTemplate('ledger');
    const part = newPart(kind, template);
    if (kind === 'picture') return expect(part).toBeNull();
    const [first, ...rest] = template.arrangements;
    if (!first || !part) throw new Error('Nothing to add to');
    expect(() => readTemplate(JSON.parse(JSON.stringify({ ...template, arrangements: [{ ...first, root: addPart(first.root, [], part) }, ...rest] })))).not.toThrow();
  });
});

describe('the kinds of slides of a carousel', () => {
  const strand = getShippedTemplate('strand');

  it('are seen as templates of their own, and changed through them alone', () => {
    const view = slideView(strand, 'closing');
    expect(view).toMatchObject({ name: 'Closing card', scheme: 'dark' });
    const changed = changeSlideView(strand, 'closing', (each) => ({ ...each, name: 'Farewell', drop: [] }));
    expect(changed.slides?.find(({ key }) => key === 'closing')).toMatchObject({ name: 'Farewell', scheme: 'dark', drop: [], use: 'closing' });
    expect({ ...changed, slides: changed.slides?.filter(({ key }) => key !== 'closing') }).toEqual({ ...strand, slides: strand.slides?.filter(({ key }) => key !== 'closing') });
    expect(readTemplate(changed)).toEqual(changed);
  });

  it('keep no scheme of their own that is the cover’s, and stay the same value where nothing changes', () => {
    expect(changeSlideView(strand, 'closing', (each) => ({ ...each, scheme: strand.scheme })).slides?.find(({ key }) => key === 'closing')).not.toHaveProperty('scheme');
    expect(changeSlideView(strand, 'point', (each) => each)).toBe(strand);
    expect(changeSlideView(strand, 'cover', (each) => ({ ...each, name: 'Beach' })).name).toBe('Beach');
  });
});
