import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { getShippedTemplate } from '../../core/template/shipped-templates.ts';
import { wallRequests, type WallSource } from './wall-requests.ts';

const brandData = { slug: 'gullwick', channels: [{ id: 'c1', name: '@kite', network: 'petalry' }], sheets: shippedSheets, markPictures: [], book: gullwickBook } as unknown as WallSource['brandData'];
const cuts = ['feed-square', 'feed-portrait'].map((placement) => ({ channelId: 'c1', placement }));
const source: WallSource = { brandData, piece: { ...plainPiece, cuts }, template: getShippedTemplate('headland'), media: new Map(), wallScale: 0.2 };
const saying = (text: string): Piece => ({ ...source.piece, frames: [{ id: 'f1', slots: { headline: { kind: 'text', text } } }] });

describe('what a wall is asked for', () => {
  it('is the same request for the same piece, whoever asks, so that a key is painted once', () => {
    const wallOf = wallRequests();
    const piece = saying('Fly');
    const { request } = wallOf({ ...source, piece });
    expect(wallOf({ ...source, piece: { ...piece, title: 'Another name', words: { ...piece.words, shared: { caption: 'Another caption', altText: '' } } } }).request).toBe(request);
    expect(request.cuts.map(({ key, scale, frame }) => [key.endsWith('feed-square'), scale, frame.slots['headline']])).toEqual([
      [true, 0.2, { kind: 'text', text: 'Fly' }],
      [false, 0.2, { kind: 'text', text: 'Fly' }],
    ]);
  });

  it('is another one with another letter, from content that is not told the painters again', () => {
    const wallOf = wallRequests();
    const before = wallOf({ ...source, piece: saying('Fly') });
    const after = wallOf({ ...source, piece: saying('Fly!') });
    expect(after.request).not.toBe(before.request);
    expect(after.content).toBe(before.content);
    expect(wallOf({ ...source, media: new Map(), piece: saying('Fly!') }).content).not.toBe(before.content);
  });

  it('has the shots of a video fitted and not painted, and all slides at one width', () => {
    const wallOf = wallRequests();
    expect(wallOf({ ...source, piece: { ...saying('Fly'), kind: 'video' } }).request.cuts.every(({ unseen }) => unseen)).toBe(true);
    const slides = wallOf({ ...source, piece: { ...saying('Fly'), kind: 'carousel' } }).request.cuts;
    expect(new Set(slides.map(({ scale, placement }) => Math.round(scale * placement.exportPx.width)))).toEqual(new Set([152]));
  });
});
