import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { OUTLINE_UNITS } from '../crop/subject-outline.ts';
import { cutFrame } from './cut-frame.ts';
import { subjectInCut, veilOver } from './veil-over.ts';

const cut = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 1000 };
const frame = cutFrame({ key: 'k', name: 'k', surface: 'k', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 0, right: 0, bottom: 0, left: 0 } });
const ink = { colour: '#101010', strength: 0.7 };
const words = { xPx: 60, yPx: 700, widthPx: 500, heightPx: 240 };
const at = (xPx: number, yPx: number) => ({ xPx, yPx, widthPx: 4, heightPx: 4 });

describe('veilOver', () => {
  it('is even where no subject is seen', () => {
    const { node, veiling } = veilOver(cut, null, [words], frame, ink);
    expect(node).toMatchObject({ alpha: 0.7, colour: '#101010' });
    expect(node.fade).toBeUndefined();
    expect(veiling.sharesIn(at(500, 500))).toEqual([0.7, 0.7]);
  });

  it('opens around a subject that has room away from the words', () => {
    const { node, veiling } = veilOver(cut, { xPx: 600, yPx: 250, reachPx: 150 }, [words], frame, ink);
    expect(node.fade).toMatchObject({ kind: 'round', middle: { xPx: 600, yPx: 250 } });
    expect(veiling.sharesIn(at(300, 800))).toEqual([0.7, 0.7]);
  });

  it.each([
    ['is larger than the opening would be', { xPx: 600, yPx: 330, reachPx: 420 }],
    ['stands close to the words', { xPx: 600, yPx: 520, reachPx: 0 }],
  ])('comes from the side of the words where the subject %s, and is even behind them', (_, subject) => {
    const { node, veiling } = veilOver(cut, subject, [words], frame, ink);
    expect(node.fade).toMatchObject({ kind: 'line', from: { yPx: 1000 } });
    expect(veiling.sharesIn(at(300, 720))).toEqual([0.7, 0.7]);
    expect(veiling.sharesIn(at(300, 10))).toEqual([0, 0]);
    expect(veiling.sharesIn(at(subject.xPx, subject.yPx))[1]).toBeLessThan(0.3);
  });

  it('stays round where the opening shows all of a small subject beside the words that a veil from the side would hide', () => {
    expect(veilOver(cut, { xPx: 580, yPx: 690, reachPx: 80 }, [words], frame, ink).node.fade).toMatchObject({ kind: 'round' });
  });

  it.each([
    ['is too large for it', 300],
    ['may be, as its outline is not known', 0],
  ])('lights a subject beside the words from one side rather than a ball of it, where it %s, and says that it hides the rest', (_, reachPx) => {
    const { node, hidesSubject } = veilOver(cut, { xPx: 580, yPx: 690, reachPx }, [words], frame, ink);
    expect(node.fade).toMatchObject({ kind: 'line' });
    expect(hidesSubject).toBe(true);
  });

  it('comes from the left for words at the left, and is round where the subject lies among the words, or there are none', () => {
    const side = { xPx: 60, yPx: 200, widthPx: 380, heightPx: 600 };
    expect(veilOver(cut, { xPx: 600, yPx: 500, reachPx: 300 }, [side], frame, ink).node.fade).toMatchObject({ kind: 'line', from: { xPx: 0 } });
    expect(veilOver(cut, { xPx: 300, yPx: 500, reachPx: 300 }, [side], frame, ink).node.fade).toMatchObject({ kind: 'round' });
    expect(veilOver(cut, { xPx: 450, yPx: 500, reachPx: 0 }, [side], frame, ink).hidesSubject).toBe(true);
    expect(veilOver(cut, { xPx: 700, yPx: 500, reachPx: 100 }, [side], frame, ink).hidesSubject).toBe(false);
    expect(veilOver(cut, { xPx: 300, yPx: 500, reachPx: 900 }, [], frame, ink).node.fade).toMatchObject({ kind: 'round' });
  });
});

describe('subjectInCut', () => {
  const ring = [0.25, 0.25, 0.75, 0.25, 0.75, 0.5, 0.25, 0.5].map((share) => share * OUTLINE_UNITS);
  const placed = { slot: 'photo', pictureId: 'p', box: cut, window: { x: 0, y: 0, width: 0.8, height: 1 }, subject: { xPx: 600, yPx: 400 } };

  it('is the middle of the outline or of a thing, or where a person points, and reaches as far as that does in the window that the cut shows', () => {
    const { facts } = testPicture();
    const outlined = testPicture({ focal: { x: 0.5, y: 0.4 }, facts: { ...facts, outline: [ring] } });
    expect(subjectInCut(placed, outlined)).toEqual({ xPx: 625, yPx: 375, reachPx: 312.5 });
    expect(subjectInCut(placed, { ...outlined, focalBy: 'person' })).toEqual({ xPx: 600, yPx: 400, reachPx: 312.5 });
    const thing = testPicture({ focal: { x: 0.5, y: 0.4 }, facts: { ...facts, saliency: [], things: [{ x: 0.48, y: 0.3, width: 0.08, height: 0.3 }] } });
    const found = subjectInCut(placed, thing);
    expect([found?.xPx, found?.yPx, found?.reachPx].map((each) => Math.round(each ?? 0))).toEqual([650, 450, 150]);
  });

  it('reaches nowhere where only a point is known, and is nothing where it is cut off', () => {
    expect(subjectInCut(placed, undefined)).toEqual({ xPx: 600, yPx: 400, reachPx: 0 });
    expect(subjectInCut({ ...placed, subject: null }, undefined)).toBeNull();
  });
});
