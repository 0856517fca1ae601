import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Frame, Piece } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { getCut, resolveCut, resolveCuts, type CutChannel } from './resolve-cuts.ts';

const channels: readonly CutChannel[] = [
  { id: 'c1', name: '@kite', network: 'petalry' },
  { id: 'c2', name: 'Kite', network: 'quipline' },
  { id: 'c3', name: 'Gone', network: 'nowhere' },
];
const context = { piece: plainPiece, template: getShippedTemplate('headland'), channels, sheets: shippedSheets };
const slides: Piece['frames'] = [{ id: 's0', slots: {} }, ...Array.from({ length: 5 }, (_, index): Frame => ({ id: `s${index + 1}`, slide: 'point', slots: {} }))];
const carousel = { ...context, piece: { ...plainPiece, kind: 'carousel', template: { key: 'strand' }, frames: slides } as const, template: getShippedTemplate('strand') };

describe('the cuts of a piece', () => {
  it('are those whose channel, sheet and placement are there, in their order', () => {
    const quipline = shippedSheets.find(({ key }) => key === 'quipline')?.placements[0]?.key ?? '';
    const refs = [
      { channelId: 'c2', placement: quipline },
      { channelId: 'c1', placement: 'feed-square' },
      { channelId: 'c1', placement: 'no-such-place' },
      { channelId: 'c3', placement: 'feed-square' },
      { channelId: 'gone', placement: 'feed-square' },
    ];
    const there = resolveCuts(context, refs).map(({ channel, placement }) => `${channel.id} ${placement.key}`);
    expect(there).toEqual([`c2 ${quipline}`, 'c1 feed-square']);
  });

  it('of a graphic have one slide that is named as the cut', () => {
    const cut = resolveCut(context, { channelId: 'c1', placement: 'feed-square' });
    expect(cut?.slides.map(({ key, frame, family }) => [key, frame.id, family])).toEqual([[cut?.key, 'f1', 'cover']]);
  });

  it('of a carousel keep what fits the network, and say which slides stay behind and why', () => {
    const cutOf = (channelId: string, placement: string) => {
      const cut = resolveCut(carousel, { channelId, placement });
      if (!cut) throw new Error('The cut is there');
      return { shown: cut.slides.map(({ frame }) => frame.id), left: cut.left.map(({ frame, because }) => `${frame.id} ${because}`), keys: new Set(cut.slides.map(({ key }) => key)).size };
    };
    expect(cutOf('c1', 'feed-square')).toEqual({ shown: slides.map(({ id }) => id), left: [], keys: slides.length });
    const story = cutOf('c1', 'story');
    expect(story.shown).toHaveLength(1);
    expect(story.left.every((each) => each.endsWith('single'))).toBe(true);
  });

  it('count their pages, and know the first and the last', () => {
    const places = resolveCut(carousel, { channelId: 'c1', placement: 'feed-square' })?.slides.map(({ place }) => place);
    expect(places?.map(({ index, count }) => [index, count])).toEqual(slides.map((_, index) => [index, slides.length]));
  });

  it('are found by a network alone, or say which is missing', () => {
    expect(getCut(context, 'petalry', { channelId: 'kept', placement: 'feed-square' })).toMatchObject({ channel: { id: 'kept', network: 'petalry' }, placement: { key: 'feed-square' } });
    expect(() => getCut(context, 'nowhere', { channelId: 'kept', placement: 'feed-square' })).toThrow(/no network sheet 'nowhere'/);
    expect(() => getCut(context, 'petalry', { channelId: 'kept', placement: 'nowhere' })).toThrow(RangeError);
  });
});
