import { describe, expect, it } from 'vitest';
import type { Frame } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { BEAT_RATE, findBeats, nearestBeat } from './beats.ts';
import { judgeFrames, lookAtFrame, LOOKS_A_SECOND, shiftBetween } from './clip-look.ts';
import { NO_FACTS, type Recording, type RecordingFacts } from './recording.ts';
import { goodParts } from './good-part.ts';
import { shorten } from './shorten.ts';
import { snapToBeats } from './snap-to-beats.ts';
import { lastPauseBefore, voiceEndMs } from './speech.ts';
import { splitShot } from './split-shot.ts';
import { timelineOf, toMs } from './timeline.ts';

const clip = (durationMs: number, more: Partial<RecordingFacts> = {}, hasSound = false): Recording => ({ kind: 'clip', durationMs, hasSound, facts: { ...NO_FACTS, ...more } });

/** A picture of a textured ground, moved by whole pixels, with a bright thing somewhere on it. */
function picture({ shift = [0, 0], thing = null, soft = false }: { readonly shift?: readonly [number, number]; readonly thing?: readonly [number, number] | null; readonly soft?: boolean }): { widthPx: number; heightPx: number; rgba: Uint8Array } {
  const [widthPx, heightPx] = [96, 54];
  const rgba = new Uint8Array(widthPx * heightPx * 4).fill(255);
  const ground = (x: number, y: number): number => (soft ? 110 + 30 * Math.sin(x / 24) + 20 * Math.cos(y / 17) : 90 + 60 * Math.sin(x * 0.9) * Math.cos(y * 0.7) + 40 * Math.sin(x / 9) + 30 * Math.cos(y / 7));
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const isThing = thing !== null && Math.abs(x - thing[0] * widthPx) < 5 && Math.abs(y - thing[1] * heightPx) < 5;
      const grey = Math.max(0, Math.min(255, Math.round(ground(x + shift[0], y + shift[1]))));
      rgba.set(isThing ? [255, 40, 30] : [grey, grey, grey], (y * widthPx + x) * 4);
    }
  }
  return { widthPx, heightPx, rgba };
}

const looksOf = (frames: readonly Parameters<typeof picture>[0][]) => frames.map((frame, index) => lookAtFrame(picture(frame), (index * 1000) / LOOKS_A_SECOND, index % 5 === 0));
const whole = (count: number) => ({ durationMs: (count * 1000) / LOOKS_A_SECOND, sceneChangesMs: [] });

describe('what is seen in a clip', () => {
  it('finds by how much a picture has moved, to a fraction of a pixel', () => {
    const before = Float64Array.from({ length: 96 }, (_, x) => 90 + 60 * Math.sin(x / 5));
    const after = Float64Array.from({ length: 96 }, (_, x) => 90 + 60 * Math.sin((x - 3.4) / 5));
    expect(Math.abs(shiftBetween(before, after) - 3.4)).toBeLessThan(0.1);
    expect(Math.abs(shiftBetween(before, before))).toBeLessThan(0.01);
  });

  it('tells a shaking hand from a steady pan', () => {
    const steady = Array.from({ length: 30 }, (_, index) => ({ shift: [index, 0] as const }));
    const shaking = Array.from({ length: 30 }, (_, index) => ({ shift: [index >= 12 ? [4, -4, 3, -3][index % 4] ?? 0 : 0, index >= 12 ? [-3, 4, -4, 3][index % 4] ?? 0 : 0] as const }));
    expect(judgeFrames(looksOf(steady), whole(30)).shaking).toEqual([]);
    const [span] = judgeFrames(looksOf(shaking), whole(30)).shaking;
    expect(span?.fromMs).toBeGreaterThanOrEqual(800);
    expect(span?.toMs).toBeGreaterThanOrEqual(2_800);
  });

  it('finds where the lens was not sharp', () => {
    const looks = looksOf(Array.from({ length: 30 }, (_, index) => ({ soft: index >= 10 && index < 20 })));
    expect(judgeFrames(looks, whole(30)).blurred).toEqual([{ fromMs: 1_000, toMs: 2_000 }]);
    expect(judgeFrames(looksOf(Array.from({ length: 20 }, () => ({ soft: true }))), whole(20)).blurred).toEqual([]);
  });

  it('follows a thing that moves over a still ground, and leaves alone what stands still', () => {
    const at = (index: number): readonly [number, number] => [0.2 + (0.6 * index) / 40, 0.5];
    const { subject } = judgeFrames(looksOf(Array.from({ length: 41 }, (_, index) => ({ thing: at(index) }))), whole(41));
    expect(subject.length).toBeGreaterThanOrEqual(2);
    for (const { atMs, x } of subject) expect(Math.abs(x - at(atMs / 100)[0])).toBeLessThan(0.12);
    expect(judgeFrames(looksOf(Array.from({ length: 41 }, () => ({ thing: [0.3, 0.5] as const }))), whole(41)).subject).toEqual([]);
  });
});

describe('the good parts of a clip', () => {
  it('are of one scene, and neither black, still, blurred nor shaking; the longest first', () => {
    const recording = clip(10_000, { sceneChangesMs: [6_000], black: [{ fromMs: 0, toMs: 500 }], blurred: [{ fromMs: 3_000, toMs: 3_600 }], shaking: [{ fromMs: 8_000, toMs: 10_000 }] });
    expect(goodParts(recording)).toEqual([{ fromMs: 500, toMs: 3_000 }, { fromMs: 3_600, toMs: 6_000 }, { fromMs: 6_000, toMs: 8_000 }]);
    expect(goodParts(clip(1_000, { frozen: [{ fromMs: 0, toMs: 1_000 }] }))).toEqual([]);
  });
});

describe('beats', () => {
  /** Decaying tones every half second over a quiet hum. */
  const samples = Float32Array.from({ length: BEAT_RATE * 4 }, (_, index) => {
    const since = (index / BEAT_RATE) % 0.5;
    return 0.02 * Math.sin(index / 20) + 0.8 * Math.exp(-since * 18) * Math.sin(index * (0.25 + 0.1 * (Math.floor(index / BEAT_RATE / 0.5) % 3)));
  });

  it('are found where sounds begin', () => {
    const beats = findBeats(samples);
    expect(beats).toHaveLength(8);
    beats.forEach((beat, index) => expect(Math.abs(beat - index * 500)).toBeLessThanOrEqual(35));
    expect(findBeats(new Float32Array(BEAT_RATE))).toEqual([]);
  });

  it('are the nearest within reach, or none', () => {
    expect(nearestBeat([0, 500, 1_000], 620, 200)).toBe(500);
    expect(nearestBeat([0, 500, 1_000], 760, 200)).toBeNull();
    expect(nearestBeat([], 0, 1_000)).toBeNull();
  });

  it('take the cuts along, as far as clips are long enough, also when the music begins again', () => {
    const frames: readonly Frame[] = [{ id: 'a', slots: {}, shot: { lengthMs: 2_100 } }, { id: 'b', slots: {}, shot: { lengthMs: 2_300, into: { kind: 'fade', ms: 400 } } }, { id: 'c', slots: { film: { kind: 'picture', mediaId: 'c1' } }, shot: { lengthMs: 1_950 } }, { id: 'd', slots: {}, shot: { lengthMs: 1_000 } }];
    const recordings = new Map([['c1', clip(2_000)]]);
    const music = { durationMs: 3_000, facts: { ...NO_FACTS, beatsMs: [0, 500, 1_000, 1_500, 2_000, 2_500] } };
    const lengths = snapToBeats(frames, recordings, music);
    const timeline = timelineOf(frames.map((frame) => ({ ...frame, shot: { ...frame.shot, lengthMs: lengths.get(frame.id) ?? frame.shot?.lengthMs } })), recordings);
    const seen = timeline.shots.slice(1).map(({ startFrame, into }) => toMs(startFrame + into.frames / 2));
    for (const ms of seen.slice(0, 2)) expect(Math.min(ms % 500, 500 - (ms % 500))).toBeLessThanOrEqual(34);
    expect(lengths.get('c') ?? 1_950).toBeLessThanOrEqual(2_000);
    expect(lengths.has('d')).toBe(false);
  });
});

describe('speech', () => {
  const voice = { durationMs: 8_000, facts: { ...NO_FACTS, silent: [{ fromMs: 2_000, toMs: 2_600 }, { fromMs: 5_000, toMs: 5_080 }, { fromMs: 6_000, toMs: 6_400 }] } };
  it('ends between words: in the last pause that is long enough', () => {
    expect(lastPauseBefore(voice, 0, 5_500)).toBe(2_600);
    expect(lastPauseBefore(voice, 0, 6_200)).toBe(6_200);
    expect(lastPauseBefore(voice, 2_700, 5_500)).toBeNull();
    expect(voiceEndMs(voice, 9_000)).toBe(8_000);
    expect(voiceEndMs(voice, 5_900)).toBe(2_600);
    expect(voiceEndMs(voice, 1_000)).toBe(0);
  });
});

describe('a shorter video', () => {
  const card = (id: string, lengthMs: number, headline: string): Frame => ({ id, slots: { headline: { kind: 'text', text: headline } }, shot: { lengthMs } });
  const frames = [card('a', 5_000, 'Short'), card('b', 6_000, 'x'.repeat(30)), card('c', 4_000, ''), card('d', 5_000, 'The end')];
  const none = new Map<string, Recording>();

  it.each([18_000, 12_000, 9_000, 7_000])('of at most %i ms keeps words long enough to be read, and the first and last shot', (target) => {
    const found = shorten(frames, none, target);
    expect(found?.lengthMs).toBeLessThanOrEqual(target);
    expect(found?.lengthMs).toBeGreaterThan(target * 0.75);
    expect(found?.without).not.toContain('a');
    expect(found?.without).not.toContain('d');
    expect(found?.lengths.get('a')).toBeGreaterThanOrEqual(1_500 + 5 * 60);
    if (!found?.without.includes('b')) expect(found?.lengths.get('b')).toBeGreaterThanOrEqual(1_500 + 30 * 60);
  });

  it('goes without the shot that says least before any other, and says when it cannot be', () => {
    expect(shorten(frames, none, 7_500)?.without).toEqual(['c']);
    expect(shorten(frames, none, 2_000)).toBeNull();
    expect(shorten(frames, none, 60_000)).toMatchObject({ without: [], lengthMs: 20_000 });
  });

  it('cuts no spoken word in two', () => {
    const spoken = clip(9_000, { silent: [{ fromMs: 2_800, toMs: 3_300 }, { fromMs: 5_900, toMs: 6_200 }] }, true);
    const recordings = new Map([['s', spoken]]);
    const talking: readonly Frame[] = [card('a', 3_000, 'Hello'), { id: 't', slots: { film: { kind: 'picture', mediaId: 's' } }, shot: { lengthMs: 8_900 } }, card('z', 3_000, 'Bye')];
    for (const target of [14_000, 12_000, 10_000, 8_500]) {
      const lengthMs = shorten(talking, recordings, target)?.lengths.get('t');
      if (lengthMs === undefined) continue;
      expect(lengthMs === 8_900 || spoken.facts.silent.some(({ fromMs, toMs: endMs }) => lengthMs >= fromMs && lengthMs <= endMs)).toBe(true);
    }
    expect(shorten(talking, recordings, 10_000)?.lengths.get('t')).toBeLessThan(6_201);
  });
});

describe('splitting a shot', () => {
  const template = getShippedTemplate('gust');
  const frame: Frame = { id: 'a', slots: { film: { kind: 'picture', mediaId: 'c1' }, headline: { kind: 'text', text: 'News' } }, shot: { fromMs: 1_000, lengthMs: 4_000, into: { kind: 'fade', ms: 400 } } };
  const [shot] = timelineOf([frame], new Map([['c1', clip(6_000)]])).shots;

  it('gives the words to the first part, and continues the clip in the second after a cut', () => {
    const parts = shot && splitShot(shot, 45, template, 'b');
    expect(parts?.[0]).toMatchObject({ id: 'a', slots: frame.slots, shot: { fromMs: 1_000, lengthMs: 1_500 } });
    expect(parts?.[1]).toEqual({ id: 'b', slide: 'moment', slots: { film: { kind: 'picture', mediaId: 'c1' } }, shot: { fromMs: 2_500, lengthMs: 2_500, into: { kind: 'cut', ms: 0 } } });
  });

  it('leaves alone what would become too short, and what has no clip', () => {
    expect(shot && splitShot(shot, 5, template, 'b')).toBeNull();
    expect(shot && splitShot(shot, 115, template, 'b')).toBeNull();
    expect(shot && splitShot({ ...shot, clip: null }, 60, template, 'b')).toBeNull();
  });
});
