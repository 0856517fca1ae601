import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { getPlacement, type NetworkSheet } from '../network/network-sheet.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Frame, Piece } from '../piece/piece.ts';
import { NO_FACTS, type Film } from '../video/film.ts';
import type { CutToCheck, PictureTerms } from './finding.ts';
import { videoFindings } from './video-findings.ts';

const film = (kind: Film['kind'], durationMs: number, more: Partial<Film['facts']> = {}): Film => ({ kind, durationMs, hasSound: true, facts: { ...NO_FACTS, ...more } });
const media = (id: string, of: Film | null, licence = 'CC0'): PictureTerms => ({ id, name: `${id}.mp4`, altText: '', film: of, licence, licenceUntil: null, widthPx: 1920, heightPx: 1080 });
const shot = (id: string, lengthMs: number, mediaId?: string, headline = ''): Frame => ({ id, shot: { lengthMs }, slots: { ...(mediaId ? { film: { kind: 'picture' as const, mediaId } } : {}), headline: { kind: 'text', text: headline } } });
const video = (frames: readonly [Frame, ...Frame[]], track: Piece['track'] = {}): Piece => ({ ...plainPiece, kind: 'video', template: { key: 'gust' }, frames, track });
const petalry = shippedSheets.find((sheet) => sheet.key === 'petalry') as NetworkSheet;
const story: CutToCheck = { ref: { channelId: 'c1', placement: 'story' }, channelName: 'Petalry', sheet: petalry, placement: getPlacement(petalry, 'story'), slides: [], left: [] };
const sentences = (piece: Piece, pictures: readonly PictureTerms[] = [], cuts: readonly CutToCheck[] = []): readonly string[] => videoFindings(piece, cuts, pictures).map(({ sentence }) => sentence);

describe('preflight of a video', () => {
  it('is silent where all is well, and about other pieces', () => {
    expect(sentences(video([shot('a', 4_000, 'm')]), [media('m', film('clip', 6_000))], [story])).toEqual([]);
    expect(videoFindings(plainPiece, [story], [])).toEqual([]);
  });

  it('stops what is too long or too short for its place', () => {
    const long = videoFindings(video([shot('a', 65_000)]), [story], []);
    expect(long[0]).toMatchObject({ severity: 'stops', cut: 'c1.story', sentence: 'Petalry Story takes 1 to 60 seconds; the video lasts 65.0.' });
    expect(sentences(video([shot('a', 500)]), [], [story])).toEqual(['Petalry Story takes 1 to 60 seconds; the video lasts 0.5.']);
  });

  it('says what cannot be read in time', () => {
    expect(sentences(video([shot('a', 2_000, undefined, 'x'.repeat(50))]))).toEqual(['Shot 1 lasts 2.0 seconds; its words take 4.5 to read.']);
    const cue = (fromMs: number, toMs: number, text: string) => ({ fromMs, toMs, text });
    expect(sentences(video([shot('a', 4_000)], { subtitles: [cue(0, 1_000, 'x'.repeat(21)), cue(1_000, 3_000, 'fine')] }))).toEqual(['1 subtitle at 0:00: more than 20 characters a second, nobody reads that.']);
    expect(sentences(video([shot('a', 4_000)], { subtitles: [cue(9_000, 12_000, 'late')] }))).toEqual(['1 subtitle begins after the video has ended.']);
  });

  it('finds black and stillness in what is shown of a clip', () => {
    const clip = media('m', film('clip', 10_000, { black: [{ fromMs: 3_000, toMs: 5_000 }], frozen: [{ fromMs: 0, toMs: 3_000 }] }));
    expect(sentences(video([shot('a', 4_000, 'm')]), [clip])).toEqual(['Shot 1 is black for 1.0 seconds.', 'Shot 1 stands still for 3.0 seconds.']);
    const later = video([{ ...shot('a', 4_000, 'm'), shot: { lengthMs: 4_000, fromMs: 6_000 } }]);
    expect(sentences(later, [clip])).toEqual([]);
  });

  it('minds the voice and the music', () => {
    const sounds = [media('v', film('sound', 6_000)), media('s', film('sound', 20_000), '')];
    expect(sentences(video([shot('a', 4_000)], { voice: 'v', music: 's' }), sounds)).toEqual(['Somebody speaks, and there are no subtitles: most people watch without sound.', 'The voice lasts 2.0 seconds longer than the video and is cut off.', 'No licence is noted for the music “s.mp4”.']);
  });
});
