import { describe, expect, it } from 'vitest';
import type { GlyphsNode, Scene, SceneGlyph } from '../scene/scene.ts';
import type { VideoRule } from '../network/network-sheet.ts';
import { manners, MOST_WORDS } from './manner.ts';
import { motionLayers } from './motion-layers.ts';
import { sceneAt, textTimes, throughWindow, travelAt, type ShotMoment } from './motion.ts';
import { shotEnds, takesCover } from './shot-ends.ts';
import { timelineOf } from './timeline.ts';

/** A text of words of two letters, two words a line. */
function text(slot: string, words: number, sizePx = 40, more: Partial<GlyphsNode> = {}): GlyphsNode {
  const glyphs = Array.from({ length: words * 2 }, (_, at): SceneGlyph => {
    const word = Math.floor(at / 2);
    return { fontKey: 'f', id: 1, xPx: 100 + (at % 4) * 30, yPx: 200 + Math.floor(word / 2) * 50, line: Math.floor(word / 2), word };
  });
  return { kind: 'glyphs', sizePx, colour: '#000000', alpha: 1, slot, glyphs, ...more };
}
const sceneOf = (...nodes: Scene['nodes']): Scene => ({ size: { widthPx: 1080, heightPx: 1080 }, nodes });
const partsOf = (scene: Scene, manner: keyof typeof manners): readonly string[] => motionLayers(scene, manners[manner]).map((layer) => (layer.kind === 'text' ? `${layer.order}: ${layer.nodes.reduce((sum, node) => sum + (node.kind === 'glyphs' ? node.glyphs.length : 1), 0)}` : 'still'));
const moment = (frame: number, more: Partial<ShotMoment> = {}): ShotMoment => ({ frame, lengthFrames: 90, isLast: false, standsAtStart: false, movements: new Map(), ...more });

describe('a manner', () => {
  const scene = sceneOf(text('headline', 5, 90), text('line', 6));

  it('brings texts in whole, by line, or the leading one by word', () => {
    expect(partsOf(scene, 'calm')).toEqual(['0: 10', '1: 12']);
    expect(partsOf(scene, 'brisk')).toEqual(['0: 4', '1: 4', '2: 2', '3: 4', '4: 4', '5: 4']);
    expect(partsOf(scene, 'playful')).toEqual(['0: 2', '1: 2', '2: 2', '3: 2', '4: 2', '5: 4', '6: 4', '7: 4']);
  });

  it('brings a leading text of many words in by line', () => {
    expect(partsOf(sceneOf(text('headline', MOST_WORDS + 1, 90)), 'playful')).toEqual(['0: 4', '1: 4', '2: 4', '3: 4', '4: 2']);
  });

  it('takes an emoji along with the line it stands in', () => {
    const emoji = { kind: 'artwork', xPx: 170, yPx: 220, scale: 1, paths: [], text: { slot: 'line', line: 1, word: 3, sizePx: 40 } } as const;
    const layers = motionLayers(sceneOf(emoji, text('line', 4)), manners.brisk);
    expect(layers.map((layer) => (layer.kind === 'text' ? `${layer.order} ${layer.nodes.map(({ kind }) => kind).join()}` : 'still'))).toEqual(['1 artwork', '0 glyphs', '1 glyphs']);
    const at = sceneAt(sceneOf(emoji), moment(8), manners.calm).nodes[0];
    expect(at?.kind === 'artwork' && at.alpha !== undefined && at.alpha > 0 && at.alpha < 1 && at.yPx > 220).toBe(true);
  });

  it('has all parts in their place before half of the shot is over, however many they are', () => {
    for (const manner of Object.values(manners)) {
      for (const count of [1, 3, 40]) {
        const times = textTimes({ order: count - 1, count }, moment(0, { lengthFrames: 60 }), manner);
        expect(times.enterAt + times.enterFrames).toBeLessThanOrEqual(30);
      }
    }
  });

  it('neither bounces nor goes back, and stands between coming and leaving', () => {
    for (const manner of [manners.brisk, manners.playful]) {
      const times = textTimes({ order: 0, count: 1 }, moment(0), manner);
      const way = Array.from({ length: 91 }, (_, frame) => travelAt(times, frame));
      expect(way[0]).toBe(0);
      expect(way[45]).toBe(1);
      expect(way[90]).toBe(2);
      expect(way.every((travel, at) => at === 0 || travel >= (way[at - 1] ?? 0))).toBe(true);
    }
  });
});

describe('a window', () => {
  const window = { box: { xPx: 100, yPx: 40, widthPx: 200, heightPx: 60 }, along: 'across', rightToLeft: false } as const;

  it('opens in the direction a text is read, and closes behind it', () => {
    expect(throughWindow(window, 0).within).toBeNull();
    expect(throughWindow(window, 0.25).within).toMatchObject({ xPx: 100, widthPx: 50 });
    expect(throughWindow(window, 1.75).within).toMatchObject({ xPx: 250, widthPx: 50 });
    expect(throughWindow({ ...window, rightToLeft: true }, 0.25).within).toMatchObject({ xPx: 250, widthPx: 50 });
    expect(throughWindow({ ...window, rightToLeft: true }, 1.75).within).toMatchObject({ xPx: 100, widthPx: 50 });
  });

  it('lets a text climb through from below', () => {
    const up = { ...window, along: 'up' } as const;
    expect([0.5, 1, 1.5].map((travel) => throughWindow(up, travel).downPx)).toEqual([30, 0, -30]);
    expect([0, 2].map((travel) => throughWindow(up, travel).within)).toEqual([null, null]);
    expect(throughWindow(up, 0.5).within).toEqual(window.box);
  });

  it('lies around its line in whole pairs of pixels, and inside the cut', () => {
    const edge = text('headline', 2, 90, { glyphs: [{ fontKey: 'f', id: 1, xPx: 3, yPx: 60, line: 0, word: 0 }] });
    const [layer] = motionLayers(sceneOf(edge), manners.brisk);
    const box = layer?.kind === 'text' ? layer.window?.box : null;
    expect([box?.xPx, box?.yPx]).toEqual([0, 0]);
    expect([box?.widthPx, box?.heightPx].map((side) => (side ?? 1) % 2)).toEqual([0, 0]);
  });
});

describe('the first frame', () => {
  const timeline = timelineOf([{ id: 'a', slots: {} }, { id: 'b', slots: {} }], new Map());
  const rule: VideoRule = { leastSeconds: 1, mostSeconds: 60 };

  it('says all it has to say where nothing else can stand for the video', () => {
    const cover = { kind: 'frame', atMs: 500 } as const;
    expect([takesCover(undefined, { ...rule, cover: 'any' }), takesCover(cover, rule), takesCover(cover, undefined), takesCover(cover, { ...rule, cover: 'frame' })]).toEqual([false, false, false, true]);
    expect([0, 1].map((index) => shotEnds(timeline, index, false).standsAtStart)).toEqual([true, false]);
    expect(shotEnds(timeline, 0, true).standsAtStart).toBe(false);
    const scene = sceneOf(text('headline', 3, 90));
    for (const manner of Object.values(manners)) {
      expect(sceneAt(scene, moment(0), manner).nodes).toEqual([]);
      const [first, later] = [0, 40].map((frame) => sceneAt(scene, moment(frame, { standsAtStart: true }), manner).nodes);
      expect(first).toEqual(later);
      expect(first).not.toEqual([]);
    }
  });
});
