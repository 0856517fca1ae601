import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it, vi } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { linkedCut } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { compose, type Composed } from './compose.ts';
import { KnownLayouts, type Asked, type TextRoom, type TextSpace } from './known-layouts.ts';
import type { Engines } from './set-cut.ts';

const room = (widthPx: number): TextRoom => ({ widthPx, isExact: true });
const asked = (text: number, width: number, height: number): Asked => ({ text, room: room(width), space: { width, height } });
/** Answers each text with a height of its own. */
const tall = (...heights: readonly number[]) => (text: number, { widthPx }: TextRoom): TextSpace => ({ width: widthPx, height: heights[text] ?? 0 });

describe('known layouts', () => {
  const known = new KnownLayouts<string>();
  known.add([asked(0, 300, 40), asked(1, 300, 20)], 'a line and a line');
  known.add([asked(0, 300, 80), asked(1, 200, 20)], 'two lines beside a line');

  it('are found by the answers that led to them', () => {
    expect(known.find(tall(40, 20))).toBe('a line and a line');
    expect(known.find(tall(80, 20))).toBe('two lines beside a line');
    expect(known.find(tall(120, 20))).toBeNull();
    expect(known.find(tall(40, 60))).toBeNull();
  });

  it('ask the next question by the answers before', () => {
    const answer = vi.fn(tall(80, 20));
    known.find(answer);
    expect(answer.mock.calls).toEqual([[0, room(300)], [1, room(200)]]);
  });

  it('know the layout of parts without texts', () => {
    const still = new KnownLayouts<string>();
    expect(still.find(tall())).toBeNull();
    still.add([], 'a photograph');
    expect(still.find(tall())).toBe('a photograph');
  });

  it('start anew before there are too many', () => {
    const many = new KnownLayouts<number>();
    for (let height = 0; height < 1_000; height += 1) many.add([asked(0, 300, height)], height);
    const kept = Array.from({ length: 1_000 }, (_, height) => many.find(tall(height))).filter((layout) => layout !== null);
    expect(kept.length).toBeLessThan(200);
    expect(kept).toContain(999);
  });
});

describe('cuts with layouts that are known', () => {
  const picture = testPicture();
  const typesetter = testTypesetter();
  const placements = (shippedSheets[0]?.placements ?? []).filter(({ onlyCarousel }) => !onlyCarousel);
  const typed = 'Build your own kite in an afternoon, and fly it before the tide turns';
  const composeAll = (key: string, headline: string, engines: Engines): readonly Composed[] => {
    const template = getShippedTemplate(key);
    const slots = Object.fromEntries(template.slots.map(({ key: slot, kind }): readonly [string, SlotValue] => [slot, kind === 'picture' ? { kind: 'picture', mediaId: picture.id } : { kind: 'text', text: slot === 'headline' ? headline : 'Saturday on the quay' }]));
    return placements.map((placement) => compose({ template, frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines));
  };

  it.each(['headland', 'lull', 'shade', 'strand', 'corner'])('%s: come out as they do without, letter by letter', async (key) => {
    const engines = { typesetter, yoga: await loadYoga() };
    for (let length = 20; length <= typed.length; length += 7) {
      const fresh = { typesetter, yoga: await loadYoga() };
      expect(composeAll(key, typed.slice(0, length), engines)).toEqual(composeAll(key, typed.slice(0, length), fresh));
    }
  });

  it('are laid out once', async () => {
    const engines = { typesetter, yoga: await loadYoga() };
    const node = engines.yoga.Node.create();
    const layOut = vi.spyOn(Object.getPrototypeOf(node) as typeof node, 'calculateLayout');
    node.free();
    composeAll('headland', typed, engines);
    const first = layOut.mock.calls.length;
    expect(first).toBeGreaterThan(placements.length);
    composeAll('headland', typed, engines);
    expect(layOut.mock.calls.length).toBe(first);
    composeAll('headland', `${typed}.`, engines);
    expect(layOut.mock.calls.length - first).toBeLessThan(first / 2);
  });
});
