import { describe, expect, it } from 'vitest';
import { changedBox } from './changed-box.ts';
import type { ArtworkNode, FillNode, GlyphsNode, PictureNode, SceneNode } from './scene.ts';

const reachOf = () => ({ topEm: 0.7, bottomEm: 0.2, leftEm: 0, rightEm: 0.5 });
const fill = (x: number, colour = '#112233'): FillNode => ({ kind: 'fill', path: `M${x} 0H${x + 10}V10H${x}Z`, colour, alpha: 1 });
const ground = fill(0);
const glyphs = (xs: readonly number[], sizePx = 100): GlyphsNode => ({ kind: 'glyphs', sizePx, colour: '#000000', alpha: 1, glyphs: xs.map((xPx) => ({ fontKey: 'f', id: 1, xPx, yPx: 200 })) });
const picture: PictureNode = { kind: 'picture', pictureId: 'p', box: { xPx: 300, yPx: 300, widthPx: 100, heightPx: 50 }, window: { x: 0, y: 0, width: 1, height: 1 } };
const artwork: ArtworkNode = { kind: 'artwork', xPx: 50, yPx: 60, scale: 2, paths: [{ d: 'M1 1H11V21H1Z', fill: '#ff0000' }] };
const between = (before: readonly SceneNode[], after: readonly SceneNode[]) => changedBox({ size: { widthPx: 1000, heightPx: 1000 }, nodes: before }, { size: { widthPx: 1000, heightPx: 1000 }, nodes: after }, reachOf);

describe('what differs between two scenes', () => {
  it('is nothing where all nodes are the same, also as copies', () => {
    expect(between([ground, picture, glyphs([10])], structuredClone([ground, picture, glyphs([10])]))).toBeNull();
  });

  it('is the ink of the letters that come, go or move where a text is set as before', () => {
    expect(between([ground, glyphs([10])], [ground, glyphs([10, 60])])).toEqual({ xPx: 60, yPx: 130, widthPx: 50, heightPx: 90 });
    expect(between([glyphs([10, 60, 110])], [glyphs([10, 65, 110])])).toEqual({ xPx: 60, yPx: 130, widthPx: 55, heightPx: 90 });
    const inOtherWords = { ...glyphs([10, 60]), glyphs: glyphs([10, 60]).glyphs.map((glyph) => ({ ...glyph, word: 3 })) };
    expect(between([glyphs([10, 60])], [inOtherWords])).toBeNull();
  });

  it('is all the ink of a text that is set otherwise, or under something else', () => {
    expect(between([ground, glyphs([10], 300)], [ground, glyphs([10])])).toEqual({ xPx: 10, yPx: -10, widthPx: 150, heightPx: 270 });
    expect(between([ground, glyphs([10, 60])], [ground, { ...glyphs([10, 60]), colour: '#ffffff' }])).toEqual({ xPx: 10, yPx: 130, widthPx: 100, heightPx: 90 });
    // What lies over the letters before lies below them now.
    expect(between([glyphs([10, 60]), ground], [ground, glyphs([10, 60, 110])])).toEqual({ xPx: 10, yPx: 130, widthPx: 150, heightPx: 90 });
  });

  it('is what comes and what goes, and the edge and the shadow of each', () => {
    expect(between([ground], [ground, fill(500)])).toEqual({ xPx: 500, yPx: 0, widthPx: 10, heightPx: 10 });
    expect(between([ground, artwork], [ground])).toEqual({ xPx: 52, yPx: 62, widthPx: 20, heightPx: 40 });
    expect(between([], [{ ...glyphs([10]), edge: { colour: '#ffffff', widthPx: 8 } }])).toEqual({ xPx: 6, yPx: 126, widthPx: 58, heightPx: 98 });
    expect(between([], [picture])).toEqual(picture.box);
    const shadowed = between([], [{ ...picture, shadow: { colour: '#000000', alpha: 0.3, blurPx: 20, downPx: 8 } }]);
    expect(shadowed).toEqual({ xPx: 262, yPx: 262, widthPx: 176, heightPx: 126 });
  });

  it('is what is painted in another order', () => {
    const [left, right] = [fill(100, '#ff0000'), fill(105, '#00ff00')];
    const box = between([ground, left, right], [ground, right, left]);
    expect(box?.xPx).toBeLessThanOrEqual(105);
    expect((box?.xPx ?? 0) + (box?.widthPx ?? 0)).toBeGreaterThanOrEqual(110);
  });

  it('passes over what paints nothing', () => {
    expect(between([ground], [ground, glyphs([]), { ...artwork, paths: [] }])).toBeNull();
  });
});
