import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { getPlacement, type NetworkSheet } from '../network/network-sheet.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Frame, Piece } from '../piece/piece.ts';
import { NO_FACTS, type Recording } from '../video/recording.ts';
import type { CutToCheck, PictureTerms } from './finding.ts';
import type { CutReport } from '../compose/report.ts';
import { withOwnTimes } from '../video/shot-times.ts';
import { timelineOf } from '../video/timeline.ts';
import { fixed } from './fix.ts';
import { measureProblems } from './measure-problems.ts';
import { videoFindings } from './video-findings.ts';

const recording = (kind: Recording['kind'], durationMs: number, more: Partial<Recording['facts']> = {}): Recording => ({ kind, durationMs, hasSound: true, facts: { ...NO_FACTS, ...more } });
const media = (id: string, of: Recording | null, licence = 'CC0'): PictureTerms => ({ id, name: `${id}.mp4`, altText: '', recording: of, licence, licenceUntil: null, widthPx: 1920, heightPx: 1080 });
const shot = (id: string, lengthMs: number, mediaId?: string, headline = ''): Frame => ({ id, shot: { lengthMs }, slots: { ...(mediaId ? { film: { kind: 'picture' as const, mediaId } } : {}), headline: { kind: 'text', text: headline } } });
const cue = (fromMs: number, toMs: number, text: string) => ({ fromMs, toMs, text });
const video = (frames: readonly [Frame, ...Frame[]], track: Piece['track'] = {}): Piece => ({ ...plainPiece, kind: 'video', template: { key: 'gust' }, frames, track });
const report: CutReport = { arrangement: 'post', texts: [], placed: [], pictures: [], blocks: [], fronts: [], panels: [], marks: [], findings: [] };
/** A place with all shots of a piece. */
const place = (piece: Piece, network: string, placement: string): CutToCheck => {
  const sheet = shippedSheets.find(({ key }) => key === network) as NetworkSheet;
  return { ref: { channelId: network, placement }, channelName: sheet.name, sheet, placement: getPlacement(sheet, placement), slides: piece.frames.map((frame) => ({ frame, report })), left: [] };
};
const sentences = (piece: Piece, pictures: readonly PictureTerms[] = [], cuts: readonly CutToCheck[] = []): readonly string[] => videoFindings(piece, cuts, pictures).map(({ sentence }) => sentence);

describe('preflight of a video', () => {
  it('is silent where all is well, and about other pieces', () => {
    const piece = video([shot('a', 4_000, 'm')]);
    expect(sentences(piece, [media('m', recording('clip', 6_000))], [place(piece, 'petalry', 'story')])).toEqual([]);
    expect(videoFindings(plainPiece, [place(plainPiece, 'petalry', 'story')], [])).toEqual([]);
  });

  it('stops what is too long or too short for its place', () => {
    const piece = video([shot('a', 40_000), shot('b', 25_000)]);
    const [long] = videoFindings(piece, [place(piece, 'petalry', 'story')], []);
    expect(long).toMatchObject({ severity: 'stops', cut: 'petalry.story', sentence: 'Petalry Story takes 1 to 60 seconds; the video lasts 65.0.', fix: { label: 'Make it 60 s here' } });
    const mended = long?.fix ? fixed(piece, long.fix.change) : piece;
    const frames = mended.frames.map((frame) => withOwnTimes(frame, mended.adjustments[`petalry.story/${frame.id}`] ?? {}));
    expect(timelineOf(frames, new Map()).lengthFrames).toBeLessThanOrEqual(60 * 30);
    expect(mended.frames).toEqual(piece.frames);
    const short = video([shot('a', 500)]);
    expect(sentences(short, [], [place(short, 'petalry', 'story')])).toEqual(['Petalry Story takes 1 to 60 seconds; the video lasts 0.5.']);
  });

  it('asks for a cover where one is taken, and says where another goes', () => {
    const piece = video([shot('a', 4_000)]);
    const places = [place(piece, 'petalry', 'vertical'), place(piece, 'whirlo', 'clip'), place(piece, 'petalry', 'story')];
    const [none] = videoFindings(piece, places, []);
    expect(none).toMatchObject({ severity: 'warns', sentence: 'No cover is chosen: Petalry Vertical video and 1 more will show whatever comes first.', fix: { label: 'Take a moment of the opening' } });
    const covered = none?.fix ? fixed(piece, none.fix.change) : piece;
    expect(covered.cover).toEqual({ kind: 'frame', atMs: 2_400 });
    expect(sentences(covered, [], places)).toEqual([]);
    expect(sentences({ ...piece, cover: { kind: 'picture', mediaId: 'p' } }, [], places)).toEqual(['Whirlo Clip takes no cover of its own but a moment of the video: it gets 2.4 s, the nearest.']);
  });

  it('says what cannot be read in time', () => {
    expect(sentences(video([shot('a', 2_000, undefined, 'x'.repeat(50))]))).toEqual(['Shot 1 lasts 2.0 seconds; its words take 4.5 to read.']);
    expect(sentences(video([shot('a', 4_000)], { subtitles: [cue(0, 1_000, 'x'.repeat(21)), cue(1_000, 3_000, 'fine')] }))).toEqual(['1 subtitle at 0:00: more than 20 characters a second, nobody reads that.']);
    expect(sentences(video([shot('a', 4_000)], { subtitles: [cue(9_000, 12_000, 'late')] }))).toEqual(['1 subtitle begins after the video has ended.']);
  });

  it('sees a subtitle that ends after the video, and ends it there', () => {
    const given = video([shot('a', 4_000)], { subtitles: [cue(2_000, 6_000, 'too long')] });
    expect(sentences(given)).toEqual(['The subtitle at 0:02 ends 2.0 seconds after the video; it is cut off there.']);
    const [finding] = videoFindings(given, [], []);
    expect(finding?.fix && sentences(fixed(given, finding.fix.change))).toEqual([]);
  });

  it('finds black and stillness in what is shown of a clip', () => {
    const clip = media('m', recording('clip', 10_000, { black: [{ fromMs: 3_000, toMs: 5_000 }], frozen: [{ fromMs: 0, toMs: 3_000 }] }));
    expect(sentences(video([shot('a', 4_000, 'm')]), [clip])).toEqual(['Shot 1 is black for 1.0 seconds.', 'Shot 1 stands still for 3.0 seconds.']);
    const unsteady = media('u', recording('clip', 10_000, { shaking: [{ fromMs: 500, toMs: 1_500 }], blurred: [{ fromMs: 2_000, toMs: 4_000 }] }));
    expect(sentences(video([shot('a', 3_000, 'u')]), [unsteady])).toEqual(['Shot 1 is out of focus for 1.0 seconds.', 'Shot 1 shakes for 1.0 seconds.']);
    const later = video([{ ...shot('a', 4_000, 'm'), shot: { lengthMs: 4_000, fromMs: 6_000 } }]);
    expect(sentences(later, [clip])).toEqual([]);
  });

  it('minds the voice and the music', () => {
    const sounds = [media('v', recording('sound', 6_000)), media('s', recording('sound', 20_000), '')];
    expect(sentences(video([shot('a', 4_000)], { voice: 'v', music: 's' }), sounds)).toEqual(['Somebody speaks, and there are no subtitles: most people watch without sound.', 'The voice lasts 2.0 seconds longer than the video; it ends with its last whole words there.', 'No licence is noted for the music “s.mp4”.']);
  });
});

describe('what was measured on a recording', () => {
  it('is reported where it harms viewers or is too loud or too quiet', () => {
    expect(measureProblems({ loudnessLufs: -14.3, truePeakDb: -1.4, flashesASecond: 3 })).toEqual([]);
    expect(measureProblems({ loudnessLufs: null, truePeakDb: null, flashesASecond: 0 })).toEqual([]);
    expect(measureProblems({ loudnessLufs: -19, truePeakDb: 0.2, flashesASecond: 5 })).toEqual(['It flashes 5 times in a second; more than 3 can bring on seizures.', 'Its sound is -19.0 LUFS; networks play at about -14.', 'Its loudest peak is 0.2 dBTP and will crackle; the most is -1.']);
  });
});
