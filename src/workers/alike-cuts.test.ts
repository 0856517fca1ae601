import { describe, expect, it } from 'vitest';
import { shippedSheets } from '../core/network/shipped-sheets.ts';
import { linkedCut } from '../core/piece/adjustment.ts';
import { ALONE } from '../core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../core/template/shipped-templates.ts';
import { shareOut } from './alike-cuts.ts';
import type { WantedCut } from './wall-protocol.ts';

const template = getShippedTemplate('headland');
const cuts = shippedSheets.flatMap((sheet) =>
  sheet.placements.filter((placement) => !placement.onlyCarousel).map((placement): WantedCut => ({ key: `${sheet.key}.${placement.key}`, template, frame: { id: 'f', slots: {} }, placement, adjustment: linkedCut, scale: 0.2, run: `${sheet.key}.${placement.key}`, place: ALONE, family: 'cover' })),
);
const painterOf = (shares: readonly (readonly WantedCut[])[], key: string): number => shares.findIndex((share) => share.some((cut) => cut.key === key));

describe('sharing a wall out among painters', () => {
  it('gives every cut to one of them', () => {
    const keys = shareOut(cuts, 2).flatMap((share) => share.map(({ key }) => key));
    expect(keys.toSorted()).toEqual(cuts.map(({ key }) => key).toSorted());
  });

  it('keeps together what comes out the same, and lets no painter idle', () => {
    const shares = shareOut(cuts, 2);
    expect(painterOf(shares, 'petalry.feed-square')).toBe(painterOf(shares, 'guildrow.update-square'));
    expect(shares.every((share) => share.length > 0)).toBe(true);
  });

  it('sends a cut to the same painter again, whatever is written in it', () => {
    const before = shareOut(cuts, 2);
    const after = shareOut(cuts.map((cut) => ({ ...cut, frame: { id: 'f', slots: { headline: { kind: 'text', text: 'New' } } } })), 2);
    for (const { key } of cuts) expect(painterOf(after, key)).toBe(painterOf(before, key));
  });

  it('keeps the slides of one run together, as they are fitted together', () => {
    const slides = cuts.slice(0, 4).flatMap((cut) => [0, 1, 2].map((index): WantedCut => ({ ...cut, key: `${cut.key}/${index}`, frame: { id: String(index), slots: {} }, place: { index, count: 3, ordinal: null } })));
    const shares = shareOut(slides, 2);
    for (const { run } of slides) expect(new Set(slides.filter((each) => each.run === run).map(({ key }) => painterOf(shares, key))).size).toBe(1);
  });
});
