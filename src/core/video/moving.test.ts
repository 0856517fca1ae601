import { describe, expect, it } from 'vitest';
import type { Frame } from '../piece/piece.ts';
import type { PictureNode, Scene } from '../scene/scene.ts';
import { coverOf } from './cover.ts';
import { NO_FACTS, type Recording } from './recording.ts';
import { FLASH_CELLS, mostFlashesASecond } from './flashes.ts';
import { moveCue } from './move-cue.ts';
import { manners } from './manner.ts';
import { sceneAt } from './motion.ts';
import { followingWindow, moves, shotMovements, slowPart, subjectAt, type Movement } from './movement.ts';
import { planShot } from './render-plan.ts';
import { timelineOf } from './timeline.ts';

const recording: Recording = { kind: 'clip', durationMs: 6_000, hasSound: false, facts: { ...NO_FACTS, subject: [{ atMs: 0, x: 0.2, y: 0.5 }, { atMs: 2_000, x: 0.8, y: 0.5 }, { atMs: 4_000, x: 0.4, y: 0.5 }] } };
const pictures = new Map([['c1', { focal: { x: 0.5, y: 0.5 }, recording }], ['p1', { focal: { x: 0.7, y: 0.4 }, recording: null }]]);
const recordings = new Map([['c1', recording]]);
const frame = (mediaId: string, shot: Frame['shot'] = {}): Frame => ({ id: 'f', slots: { film: { kind: 'picture', mediaId } }, shot });
const shotOf = (each: Frame) => {
  const [shot] = timelineOf([each], recordings).shots;
  if (!shot) throw new Error('There is a shot');
  return shot;
};
const node = (pictureId: string, more: Partial<PictureNode> = {}): PictureNode => ({ kind: 'picture', pictureId, box: { xPx: 0, yPx: 0, widthPx: 1080, heightPx: 1920 }, window: { x: 0.34, y: 0, width: 0.32, height: 1 }, ...more });

describe('a crop that follows its subject', () => {
  const movement = shotMovements(shotOf(frame('c1', { fromMs: 1_000, lengthMs: 3_000 })), pictures, {}).get('c1');
  const follow = movement as Movement & { kind: 'follow' };

  it('knows where the subject is while its shot plays, and no more of the clip than that', () => {
    expect(follow.points.map(({ frame: at, x }) => [at, x])).toEqual([[-30, 0.2], [30, 0.8], [90, 0.4]]);
    expect(subjectAt(recording.facts.subject, 1_000)).toEqual({ x: 0.5, y: 0.5 });
    expect(subjectAt(recording.facts.subject, 9_000)).toEqual({ x: 0.4, y: 0.5 });
    expect(subjectAt([], 0)).toBeNull();
  });

  it('keeps the subject within the window at every frame, and the window within the picture', () => {
    for (let at = 0; at < 90; at += 1) {
      const { x, width } = followingWindow(node('c1').window, follow, at);
      const subject = subjectAt(recording.facts.subject, 1_000 + (at * 1000) / 30)?.x ?? 0;
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x + width).toBeLessThanOrEqual(1 + 1e-9);
      expect(subject).toBeGreaterThan(x);
      expect(subject).toBeLessThan(x + width);
    }
    expect(followingWindow(node('c1').window, follow, 0)).not.toEqual(followingWindow(node('c1').window, follow, 30));
  });

  it('stays where a person has set the crop, and where nothing is known of a subject', () => {
    expect(shotMovements(shotOf(frame('c1')), pictures, { film: { x: 0.5, y: 0.5, zoom: 1 } }).size).toBe(0);
    expect(shotMovements(shotOf(frame('c1')), new Map([['c1', { focal: { x: 0.5, y: 0.5 }, recording: { ...recording, subject: [] } }]]), {}).size).toBe(0);
  });

  it('is a path of windows in the plan, and the very same windows in the preview', () => {
    const scene: Scene = { size: { widthPx: 1080, heightPx: 1920 }, nodes: [node('c1')] };
    const movements = new Map<string, Movement>([['c1', follow]]);
    const [layer] = planShot(scene, { lengthFrames: 90, isLast: false, standsAtStart: false, movements }, new Set(['c1']), manners.calm);
    const path = layer?.kind === 'clip' ? layer.path : [];
    expect(path.map(({ frame: at }) => at)).toEqual([0, 30, 90]);
    for (const { frame: at, window } of path) {
      const [seen] = sceneAt(scene, { frame: at, lengthFrames: 90, isLast: false, standsAtStart: false, movements }, manners.calm).nodes;
      expect(seen).toMatchObject({ window });
    }
  });
});

describe('a photograph that moves slowly', () => {
  const slow = (move: 'closer' | 'away' | 'left' | 'right'): Movement & { kind: 'slow' } => shotMovements(shotOf(frame('p1', { move, lengthMs: 3_000 })), pictures, {}).get('p1') as Movement & { kind: 'slow' };

  it.each(['closer', 'away', 'left', 'right'] as const)('%s stays within its crop and keeps its shape', (move) => {
    for (let at = 0; at <= 90; at += 1) {
      const part = slowPart(node('p1').window, slow(move), at);
      expect(Math.min(part.x, part.y)).toBeGreaterThanOrEqual(0);
      expect(Math.max(part.x + part.width, part.y + part.height)).toBeLessThanOrEqual(1 + 1e-9);
      expect(part.width).toBeCloseTo(part.height, 9);
    }
  });

  it('comes closer to its subject without anything being said, which keeps its place', () => {
    const movement = shotMovements(shotOf(frame('p1')), pictures, {}).get('p1') as Movement & { kind: 'slow' };
    expect(movement.move).toBe('closer');
    const [window, part] = [node('p1').window, slowPart(node('p1').window, movement, movement.lengthFrames)];
    const place = Math.min(1, (0.7 - window.x) / window.width);
    expect((place - part.x) / part.width).toBeCloseTo(place, 6);
    expect(slowPart(window, movement, 0)).toEqual({ x: 0, y: 0, width: 1, height: 1 });
  });

  it('stands where a person wants it to, as a cut-out and behind a mask', () => {
    expect(shotMovements(shotOf(frame('p1', { move: 'still' })), pictures, {}).size).toBe(0);
    expect(moves(node('p1', { cutOut: true }), slow('closer'))).toBe(false);
    expect(moves(node('p1', { mask: 'M0 0Z' }), slow('closer'))).toBe(false);
    expect(moves(node('p1'), slow('closer'))).toBe(true);
  });

  it('is painted once in the plan, with the parts it begins and ends with', () => {
    const [layer] = planShot({ size: { widthPx: 1080, heightPx: 1920 }, nodes: [node('p1')] }, { lengthFrames: 90, isLast: false, standsAtStart: false, movements: new Map<string, Movement>([['p1', slow('away')]]) }, new Set(), manners.calm);
    expect(layer).toMatchObject({ kind: 'moving', to: { x: 0, y: 0, width: 1, height: 1 } });
    expect(layer?.kind === 'moving' && layer.from.width).toBeCloseTo(0.92);
  });
});

describe('the cover', () => {
  const frames: readonly Frame[] = [{ id: 'a', slots: {}, shot: { lengthMs: 3_000 } }, { id: 'b', slots: { film: { kind: 'picture', mediaId: 'p1' } }, shot: { lengthMs: 3_000 } }, { id: 'card', slots: {}, shot: { onlyCover: true, lengthMs: 3_000 } }];
  const timeline = timelineOf(frames, new Map());
  const rule = (cover: 'any' | 'frame' | undefined) => ({ leastSeconds: 1, mostSeconds: 60, cover });

  it('is not played when it is a card', () => {
    expect(timeline.shots.map(({ frame: { id } }) => id)).toEqual(['a', 'b']);
  });

  it.each([
    ['a picture where any is taken', { kind: 'picture', mediaId: 'p1' }, 'any', { kind: 'picture', mediaId: 'p1' }],
    ['the moment that shows the same picture, elsewhere', { kind: 'picture', mediaId: 'p1' }, 'frame', { kind: 'frame', frame: 144, proposed: true }],
    ['the opening, for a picture that is nowhere in it', { kind: 'picture', mediaId: 'zz' }, 'frame', { kind: 'frame', frame: 54, proposed: true }],
    ['a card where any is taken', { kind: 'shot', frameId: 'card' }, 'any', { kind: 'card', frame: frames[2] }],
    ['the opening, for a card, elsewhere', { kind: 'shot', frameId: 'card' }, 'frame', { kind: 'frame', frame: 54, proposed: true }],
    ['a shot with all its words', { kind: 'shot', frameId: 'b' }, 'any', { kind: 'frame', frame: 144, proposed: false }],
    ['a moment, no later than the last', { kind: 'frame', atMs: 99_000 }, 'frame', { kind: 'frame', frame: 179, proposed: false }],
    ['nothing where none is taken', { kind: 'frame', atMs: 0 }, undefined, null],
  ] as const)('is %s', (_, cover, taken, expected) => {
    expect(coverOf(cover, rule(taken), frames, timeline)).toEqual(expected);
  });
});

describe('flashes', () => {
  const frames = (levels: readonly number[], share = 1): readonly Uint8Array[] => levels.map((level) => Uint8Array.from({ length: FLASH_CELLS ** 2 }, (_, cell) => (cell < FLASH_CELLS ** 2 * share ? level : 90)));
  const blinking = (every: number): readonly number[] => Array.from({ length: 60 }, (_, index) => (Math.floor(index / every) % 2 === 0 ? 20 : 230));

  it('are counted in the worst second', () => {
    expect(mostFlashesASecond(frames(blinking(3)), 30)).toBe(5);
    expect(mostFlashesASecond(frames(blinking(15)), 30)).toBe(1);
    expect(mostFlashesASecond(frames(Array.from({ length: 60 }, (_, index) => index * 4)), 30)).toBe(0);
  });

  it('do no harm when small, or when even the dark is bright', () => {
    expect(mostFlashesASecond(frames(blinking(3), 0.2), 30)).toBe(0);
    expect(mostFlashesASecond(frames(blinking(3).map((level) => (level > 100 ? 255 : 238))), 30)).toBe(0);
    expect(mostFlashesASecond([], 30)).toBe(0);
  });
});

describe('moving a subtitle', () => {
  const cues = [{ fromMs: 0, toMs: 1_000, text: 'a' }, { fromMs: 1_500, toMs: 2_500, text: 'b' }, { fromMs: 3_000, toMs: 4_000, text: 'c' }];
  it('goes as far as those beside it leave room', () => {
    expect(moveCue(cues, 1, { fromMs: 800, toMs: 3_400 })[1]).toEqual({ fromMs: 1_000, toMs: 3_000, text: 'b' });
    expect(moveCue(cues, 1, { fromMs: 2_950, toMs: 3_050 })[1]).toEqual({ fromMs: 2_700, toMs: 3_000, text: 'b' });
    expect(moveCue(cues, 2, { fromMs: 3_500, toMs: 9_000 })[2]).toEqual({ fromMs: 3_500, toMs: 9_000, text: 'c' });
    expect(moveCue(cues, 9, { fromMs: 0, toMs: 1 })).toBe(cues);
  });
});
