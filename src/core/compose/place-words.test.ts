import { describe, expect, it } from 'vitest';
import { patchRaster, testPicture } from '../../../tests/fixtures/pictures.ts';
import type { Picture } from '../crop/crop-window.ts';
import { takePictureFacts } from '../crop/picture-facts.ts';
import { calmPlaces, type CalmPlace, type StackPart } from '../template/parts.ts';
import { cutFrame } from './cut-frame.ts';
import { placeWords, sidesOf } from './place-words.ts';

const frameOf = (width: number, height: number) => cutFrame({ key: 'k', name: 'k', surface: 'k', exportPx: { width, height }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } });

/** A picture in the shape of the cut, with its subject at a place: nothing can be cropped away. */
function pictureWith(at: { readonly x: number; readonly y: number }, [widthPx, heightPx]: readonly [number, number] = [120, 120]): Picture {
  const facts = takePictureFacts(patchRaster({ widthPx, heightPx, ground: [90, 140, 210], patch: [230, 40, 50], at, size: 0.35 }));
  return testPicture({ widthPx: widthPx * 20, heightPx: heightPx * 20, facts, focal: at });
}

const root = (places: readonly CalmPlace[]): StackPart => ({
  part: 'stack',
  direction: 'column',
  children: [
    { part: 'picture', slot: 'photo', grow: 1 },
    { part: 'stack', direction: 'row', over: { top: 1, right: 1, bottom: 1, left: 1 }, afloat: { picture: 'photo', places: [...places], width: 0.5, height: 0.4 }, children: [{ part: 'stack', direction: 'column', children: [] }] },
  ],
});

function placeOf(places: readonly CalmPlace[], photo: Picture | null, [width, height]: readonly [number, number] = [1080, 1080]): { readonly place: CalmPlace | undefined; readonly stack: StackPart } {
  const stack = placeWords(root(places), { frame: frameOf(width, height), pictures: photo ? { photo } : {}, crops: {}, meetsSubject: false, isBound: false }).children[1];
  if (stack?.part !== 'stack') throw new Error('The block is gone');
  return { place: stack.afloat?.places[0], stack };
}

describe('placeWords', () => {
  it.each([
    [{ x: 0.25, y: 0.25 }, 'bottom-right'],
    [{ x: 0.75, y: 0.25 }, 'bottom-left'],
    [{ x: 0.25, y: 0.75 }, 'top-right'],
    [{ x: 0.75, y: 0.75 }, 'top-left'],
  ] as const)('keeps words away from a subject at %o', (at, opposite) => {
    const corners: readonly CalmPlace[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];
    const { place } = placeOf(corners, pictureWith(at));
    const [across, down] = sidesOf(place ?? 'top');
    const [, oppositeDown] = sidesOf(opposite);
    expect(place).not.toBeUndefined();
    // The other side of the subject, across or down: either leaves it alone.
    expect(down === oppositeDown || across === sidesOf(opposite)[0]).toBe(true);
    expect([across, down]).not.toEqual([at.x < 0.5 ? 'start' : 'end', at.y < 0.5 ? 'start' : 'end']);
  });

  it('takes the first of places that are as calm as each other, and the first where there is no picture', () => {
    const even = testPicture({ facts: takePictureFacts(patchRaster({ widthPx: 100, heightPx: 100, ground: [90, 140, 210], patch: [90, 140, 210], at: { x: 0.5, y: 0.5 }, size: 0.1 })), focal: { x: 0.5, y: 0.5 } });
    expect(placeOf(['top-right', 'bottom-left'], even).place).toBe('top-right');
    expect(placeOf(['bottom', 'top'], null).place).toBe('bottom');
  });

  it('gives the block the width of its place, and stands it at its sides', () => {
    const { stack } = placeOf(['bottom-right'], null);
    expect(stack).toMatchObject({ direction: 'row', justify: 'end', align: 'end' });
    expect(stack.children[0]?.share).toBe(0.5);
    expect(placeOf(['top'], null).stack.children[0]?.share).toBe(1);
  });

  it('follows a crop that a person has moved', () => {
    const photo = pictureWith({ x: 0.2, y: 0.5 }, [240, 120]);
    const at = (x: number): CalmPlace | undefined => {
      const stack = placeWords(root(['left', 'right']), { frame: frameOf(1080, 1080), pictures: { photo }, crops: { photo: { x, y: 0.5, zoom: 1 } }, meetsSubject: false, isBound: false }).children[1];
      return stack?.part === 'stack' ? stack.afloat?.places[0] : undefined;
    };
    // The subject is at the left of one crop and at the right of the other, or out of it.
    expect(at(0.3)).toBe('right');
    expect(at(0)).toBe('right');
    expect(at(0.45)).toBe('right');
  });

  it('keeps a block to the part of the cut that was measured, at the edge where it stands', () => {
    const overOf = (place: CalmPlace) => placeWords(root([place]), { frame: frameOf(1000, 1000), pictures: {}, crops: {}, meetsSubject: false, isBound: true }).children[1]?.over;
    // m is 60 px: of 1000 px the block may take 400, and 60 lie below it.
    expect(overOf('bottom')).toMatchObject({ bottom: 1, left: 1, right: 1 });
    expect(overOf('bottom')?.top).toBeCloseTo(540 / 60, 6);
    expect(overOf('top-left')?.bottom).toBeCloseTo(540 / 60, 6);
    expect(overOf('left')?.top).toBeCloseTo(5, 6);
    expect(overOf('left')?.bottom).toBeCloseTo(5, 6);
  });

  it('leaves a tree without such blocks as it is', () => {
    const plain: StackPart = { part: 'stack', direction: 'column', children: [] };
    expect(placeWords(plain, { frame: frameOf(1080, 1080), pictures: {}, crops: {}, meetsSubject: false, isBound: false })).toBe(plain);
  });

  it('knows the sides of every place', () => {
    expect(new Set(calmPlaces.map((place) => sidesOf(place).join(' '))).size).toBe(calmPlaces.length);
  });
});
