import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import type { Frame } from '../piece/piece.ts';
import type { GlyphsNode, PictureNode, Scene } from '../scene/scene.ts';
import { blend, type BlendContext } from './blend.ts';
import { clockLength, NO_FACTS, type Recording } from './recording.ts';
import { manners } from './manner.ts';
import { FIRST_FRAME, risePx, sceneAt, shiftPx, textState, textTimes } from './motion.ts';
import { motionLayers } from './motion-layers.ts';
import { planShot } from './render-plan.ts';
import { readingMs, shotLengthMs, startInClipMs } from './shot-times.ts';
import { readSubtitles, writeSrt, writeVtt } from './subtitles.ts';
import { speechSpans, timeScript } from './time-script.ts';
import { SWEEP_EDGE, sweepBand, sweepLeftPx } from './sweep.ts';
import { momentAt, timelineOf } from './timeline.ts';

const clip = (durationMs: number): Recording => ({ kind: 'clip', durationMs, hasSound: true, facts: NO_FACTS });
const recordings = new Map([['c1', clip(6_000)], ['c2', clip(1_200)]]);
const shot = (id: string, mediaId: string | null, more: Frame['shot'] = {}, headline = ''): Frame => ({ id, shot: more, slots: { ...(mediaId ? { film: { kind: 'picture' as const, mediaId } } : {}), ...(headline ? { headline: { kind: 'text' as const, text: headline } } : {}) } });

describe('how long a shot lasts', () => {
  it.each([
    ['a clip, its usual while', shot('a', 'c1'), 4_000],
    ['a short clip, all of it', shot('a', 'c2'), 1_200],
    ['as a person has said', shot('a', 'c1', { lengthMs: 2_500 }), 2_500],
    ['no longer than what is left of its clip', shot('a', 'c1', { lengthMs: 9_000, fromMs: 4_000 }), 2_000],
    ['a card, until it is read', shot('a', null, {}, 'x'.repeat(60)), 1_500 + 60 * 60],
    ['an empty card, long enough to be seen', shot('a', null), 2_500],
    ['a clip whose words take longer', shot('a', 'c1', {}, 'x'.repeat(70)), 1_500 + 70 * 60],
  ])('%s', (_, frame, ms) => {
    expect(shotLengthMs(frame, recordings)).toBe(ms);
  });

  it('leaves at least the shortest shot of a clip', () => {
    expect(startInClipMs(shot('a', 'c2', { fromMs: 60_000 }), clip(1_200))).toBe(700);
    expect(readingMs(shot('a', 'c1'))).toBe(0);
  });
});

describe('the timeline', () => {
  const frames = [shot('a', 'c1', { lengthMs: 3_000 }), shot('b', 'c1', { lengthMs: 2_000, into: { kind: 'fade', ms: 500 }, fromMs: 1_000 }), shot('c', null, { lengthMs: 2_000, into: { kind: 'cut', ms: 0 } })];

  it('lets transitions overlap, in whole frames', () => {
    const { shots, lengthFrames } = timelineOf(frames, recordings);
    expect(shots.map(({ startFrame, lengthFrames: length, into }) => [startFrame, length, into.kind, into.frames])).toEqual([[0, 90, 'cut', 0], [75, 60, 'fade', 15], [135, 60, 'cut', 0]]);
    expect(lengthFrames).toBe(195);
    expect(shots[1]?.clip).toEqual({ mediaId: 'c1', fromFrame: 30, volume: 1, hasSound: true });
  });

  it('keeps a transition within half of the shorter shot', () => {
    const { shots } = timelineOf([shot('a', null, { lengthMs: 600 }), shot('b', null, { lengthMs: 600, into: { kind: 'push', ms: 2_000 } })], recordings);
    expect(shots[1]?.into.frames).toBe(9);
  });

  it('knows what is to be seen at every frame', () => {
    const timeline = timelineOf(frames, recordings);
    const seen = Array.from({ length: timeline.lengthFrames }, (_, frame) => momentAt(timeline, frame));
    expect(seen.map((moment) => moment?.shot.frame.id).join('').replace(/(.)\1*/g, '$1')).toBe('abc');
    expect(seen.filter((moment) => moment?.over).map((moment) => moment?.over?.progress)).toHaveLength(15);
    expect(seen[75]?.over?.progress).toBeCloseTo(0.5 / 15);
    expect(momentAt(timeline, 9_999)?.shot.frame.id).toBe('c');
    expect(momentAt(timelineOf([], recordings), 0)).toBeNull();
  });
});

const glyphs = (slot: string | undefined, yPx = 100): GlyphsNode => ({ kind: 'glyphs', sizePx: 10, colour: '#000000', alpha: 1, slot, glyphs: [{ fontKey: 'f', id: 1, xPx: 0, yPx }] });
const picture = (pictureId: string, widthPx: number): PictureNode => ({ kind: 'picture', pictureId, box: { xPx: 0, yPx: 0, widthPx, heightPx: widthPx }, window: { x: 0, y: 0, width: 1, height: 1 } });
const fill = { kind: 'fill', path: 'M0 0H1V1Z', colour: '#ffffff', alpha: 1 } as const;
const scene: Scene = { size: { widthPx: 1000, heightPx: 1000 }, nodes: [fill, picture('c1', 1000), fill, glyphs('headline'), glyphs('headline'), glyphs('line'), glyphs(undefined)] };

describe('motion', () => {
  it('moves what is read, in reading order, and nothing else', () => {
    expect(motionLayers(scene, manners.calm).map((layer) => (layer.kind === 'text' ? `text ${layer.order} ${layer.nodes.length}` : `still ${layer.nodes.length}`))).toEqual(['still 3', 'text 0 2', 'text 1 1', 'still 1']);
  });

  it('brings a text in by a fade and a rise that eases out, and takes it away at the end', () => {
    const ends = { lengthFrames: 90, isLast: false, standsAtStart: false };
    const times = textTimes({ order: 1, count: 2 }, ends, manners.calm);
    expect(textState(times, 0)).toEqual({ alpha: 0, rise: 1 });
    expect(textState(times, times.enterAt + manners.calm.enterFrames)).toEqual({ alpha: 1, rise: 0 });
    const half = textState(times, times.enterAt + manners.calm.enterFrames / 2);
    expect([half.alpha, half.rise]).toEqual([0.5, 0.125]);
    expect(textState(times, 87).alpha).toBe(0.5);
    expect(textState(times, 90).alpha).toBe(0);
    expect(textState(textTimes({ order: 1, count: 2 }, { ...ends, isLast: true }, manners.calm), 90).alpha).toBe(1);
  });

  it('makes a scene of every frame: nothing, on its way, in place', () => {
    const at = (frame: number): readonly GlyphsNode[] => sceneAt(scene, { frame, lengthFrames: 90, isLast: false, standsAtStart: false, movements: new Map() }, manners.calm).nodes.filter((node): node is GlyphsNode => node.kind === 'glyphs' && node.slot === 'headline');
    expect(at(0)).toHaveLength(0);
    const [moving] = at(FIRST_FRAME + manners.calm.enterFrames / 2);
    expect([moving?.alpha, moving?.glyphs[0]?.yPx]).toEqual([0.5, 100 + shiftPx(0.125, risePx(scene))]);
    expect(shiftPx(0.125, 45.36)).toBe(4);
    expect(at(60)[0]).toBe(scene.nodes[3]);
  });
});

describe('the plan of a shot', () => {
  const clips = new Set(['c1']);
  const times = { lengthFrames: 90, isLast: false, standsAtStart: false, movements: new Map() };

  it('leaves out what a clip covers, and keeps what stands before it', () => {
    expect(planShot(scene, times, clips, manners.calm).map(({ kind }) => kind)).toEqual(['clip', 'still', 'text', 'text', 'still']);
  });

  it('keeps the ground of a clip that covers a part, and still pictures among what is still', () => {
    const part: Scene = { ...scene, nodes: [fill, picture('c1', 500), picture('p', 300), glyphs('line')] };
    expect(planShot(part, times, clips, manners.calm).map((layer) => (layer.kind === 'still' ? `still ${layer.nodes.length}` : layer.kind))).toEqual(['still 1', 'clip', 'still 1', 'text']);
    expect(planShot(part, times, new Set(), manners.calm).map(({ kind }) => kind)).toEqual(['still', 'text']);
  });
});

describe('a transition', () => {
  const drawn = (kind: 'fade' | 'push' | 'wipe' | 'sweep', progress = 0.25): readonly string[] => {
    const calls: string[] = [];
    const context: BlendContext<string> = { globalAlpha: 1, save: () => undefined, restore: () => undefined, setTransform: () => undefined, drawImage: (picture, sx, _, sw, __, dx) => void calls.push(`${picture} from ${sx} to ${dx} wide ${sw} at ${context.globalAlpha}`) };
    blend(context, 'a', 'b', { kind, progress }, { width: 100, height: 10 });
    return calls;
  };

  it('sweeps behind a band: the edge runs in the middle of it, from one side to the other', () => {
    expect(drawn('sweep', 0.1)).toEqual(['a from 0 to 0 wide 100 at 1']);
    expect(drawn('sweep', 0.5)).toEqual(['a from 0 to 0 wide 100 at 1', 'b from 50 to 50 wide 50 at 1']);
    expect(drawn('sweep', 0.9)).toEqual(['a from 0 to 0 wide 100 at 1', 'b from 0 to 0 wide 100 at 1']);
    const band = sweepBand(gullwickBook, { widthPx: 1000, heightPx: 500 });
    expect(band.size).toEqual({ widthPx: 600, heightPx: 500 });
    expect(band.nodes.length).toBeGreaterThan(5);
    expect(sweepBand(gullwickBook, { widthPx: 1000, heightPx: 500 })).toEqual(band);
    for (const progress of [0.3, 0.5, 0.7]) {
      const left = sweepLeftPx(progress, 1000, 600);
      const edge = 1000 - 1000 * ((progress - SWEEP_EDGE.comes) / (SWEEP_EDGE.leaves - SWEEP_EDGE.comes));
      expect(edge).toBeCloseTo(left + 300, 6);
    }
    expect([sweepLeftPx(0, 1000, 600), sweepLeftPx(1, 1000, 600)]).toEqual([1000, -600]);
  });

  it('fades, pushes to the left, and wipes from the right', () => {
    expect(drawn('fade')).toEqual(['a from 0 to 0 wide 100 at 1', 'b from 0 to 0 wide 100 at 0.25']);
    expect(drawn('push')).toEqual(['a from 25 to 0 wide 75 at 1', 'b from 0 to 75 wide 25 at 1']);
    expect(drawn('wipe')).toEqual(['a from 0 to 0 wide 100 at 1', 'b from 75 to 75 wide 25 at 1']);
  });
});

describe('subtitles', () => {
  const srt = '1\n00:00:00,350 --> 00:00:04,082\nCome to the <i>workshop</i>.\n\n2\n00:01:04,632 --> 01:00:08,824\nWe cut & tie,\n2 < 3.\n';

  it('are read from SubRip and WebVTT, and written as both without loss', () => {
    const cues = readSubtitles(srt);
    expect(cues).toEqual([{ fromMs: 350, toMs: 4_082, text: 'Come to the workshop.' }, { fromMs: 64_632, toMs: 3_608_824, text: 'We cut & tie,\n2 < 3.' }]);
    expect(readSubtitles(writeSrt(cues))).toEqual(cues);
    expect(readSubtitles(writeVtt(cues))).toEqual(cues);
    expect(readSubtitles('\uFEFFWEBVTT\r\n\r\nNOTE nothing\r\n\r\nintro\r\n00:01.500 --> 00:02.000 align:start\r\nHello\r\n')).toEqual([{ fromMs: 1_500, toMs: 2_000, text: 'Hello' }]);
  });

  it.each([
    ['ends before it begins', '00:00:02,000 --> 00:00:01,000\nx', /Line 1 ends before it begins/],
    ['overlaps the one before', '00:00:00,000 --> 00:00:02,000\nx\n\n00:00:01,500 --> 00:00:03,000\ny', /Line 4 begins while the subtitle before it is still there/],
    ['begins before the video', '-00:00:01,000 --> 00:00:01,000\nx', /begins before the video/],
    ['has no times', 'kites --> sky\nx', /Line 1 is no time span: “kites --> sky”/],
    ['is no subtitle file', 'Dear all,', /There are no subtitles in it/],
    ['is endless', `00:00:00,000 --> 00:00:02,000\n${'x'.repeat(400)}`, /has 400 characters; the most is 300/],
  ])('that %s is refused, with its line', (_, text, sentence) => {
    expect(() => readSubtitles(text)).toThrow(sentence);
  });
});

describe('a script', () => {
  // Somebody speaks for four seconds, is quiet for one, and speaks for two.
  const recording = { durationMs: 8_000, facts: { ...NO_FACTS, silent: [{ fromMs: 0, toMs: 500 }, { fromMs: 4_500, toMs: 5_500 }, { fromMs: 7_500, toMs: 8_000 }] } };

  it('is timed against the speech, by its syllables', () => {
    expect(speechSpans(recording)).toEqual([{ fromMs: 500, toMs: 4_500 }, { fromMs: 5_500, toMs: 7_500 }]);
    const cues = timeScript('We cut the sails and you pick the colours. We tie knots.', recording);
    expect(cues.map(({ text }) => text)).toEqual(['We cut the sails and you pick the colours.', 'We tie knots.']);
    expect(cues[0]).toMatchObject({ fromMs: 500, toMs: 4_500 });
    expect(cues[1]).toMatchObject({ fromMs: 5_500, toMs: 7_500 });
  });

  it('is parted where a line would be too long, and is nothing where nobody speaks', () => {
    const long = timeScript('By three o’clock the glue is dry, the wind is usually just right, and everybody who came is out on the dunes with something that flies.', recording);
    expect(long.length).toBeGreaterThan(1);
    expect(Math.max(...long.map(({ text }) => text.length))).toBeLessThanOrEqual(74);
    expect(long.every((cue, index) => cue.toMs > cue.fromMs && cue.fromMs >= (long[index - 1]?.toMs ?? 0))).toBe(true);
    expect(timeScript('Hello.', { durationMs: 1_000, facts: { ...NO_FACTS, silent: [{ fromMs: 0, toMs: 1_000 }] } })).toEqual([]);
    expect(timeScript('  ', recording)).toEqual([]);
  });
});

it('a length is written as a clock', () => {
  expect([6_000, 65_400, 3_725_000].map(clockLength)).toEqual(['0:06', '1:05', '1:02:05']);
});
