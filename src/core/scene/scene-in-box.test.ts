import { describe, expect, it } from 'vitest';
import type { Box } from '../geometry/box.ts';
import type { ArtworkNode, FillNode, GlyphsNode, PictureNode, SceneNode } from './scene.ts';
import { sceneInBox } from './scene-in-box.ts';

const reachOf = () => ({ topEm: 0.7, bottomEm: 0.2, leftEm: 0, rightEm: 0.5 });
const ground: FillNode = { kind: 'fill', path: 'M0 0H1000V1000H0Z', colour: '#112233', alpha: 1 };
const dot: FillNode = { kind: 'fill', path: 'M500 500H510V510H500Z', colour: '#445566', alpha: 1 };
const glyphs: GlyphsNode = { kind: 'glyphs', sizePx: 100, colour: '#000000', alpha: 1, glyphs: [10, 60, 110].map((xPx) => ({ fontKey: 'f', id: 1, xPx, yPx: 200 })) };
const picture: PictureNode = { kind: 'picture', pictureId: 'p', box: { xPx: 300, yPx: 300, widthPx: 100, heightPx: 50 }, window: { x: 0, y: 0, width: 1, height: 1 } };
const mark: ArtworkNode = { kind: 'artwork', xPx: 50, yPx: 60, scale: 2, paths: [{ d: 'M1 1H11V21H1Z', fill: '#ff0000' }] };
const nodesIn = (box: Box, ...nodes: readonly SceneNode[]): readonly SceneNode[] => sceneInBox({ size: { widthPx: 1000, heightPx: 1000 }, nodes }, box, reachOf).nodes;

describe('a scene in a box', () => {
  it('keeps what paints inside the box, in its order', () => {
    expect(nodesIn({ xPx: 0, yPx: 0, widthPx: 600, heightPx: 600 }, ground, mark, picture, glyphs, dot)).toEqual([ground, mark, picture, glyphs, dot]);
    expect(nodesIn({ xPx: 45, yPx: 55, widthPx: 10, heightPx: 10 }, ground, mark, picture, glyphs, dot)).toEqual([ground, mark]);
    expect(nodesIn({ xPx: 390, yPx: 340, widthPx: 115, heightPx: 165 }, mark, picture, dot)).toEqual([picture, dot]);
  });

  it('keeps the letters of a text that reach into the box', () => {
    expect(nodesIn({ xPx: 70, yPx: 150, widthPx: 30, heightPx: 10 }, glyphs)).toEqual([{ ...glyphs, glyphs: [glyphs.glyphs[1]] }]);
    const edged: GlyphsNode = { ...glyphs, edge: { colour: '#ffffff', widthPx: 24 } };
    expect(nodesIn({ xPx: 70, yPx: 150, widthPx: 30, heightPx: 10 }, edged)).toEqual([{ ...edged, glyphs: edged.glyphs }]);
  });

  it('counts the shadow of a picture', () => {
    const shadowed: PictureNode = { ...picture, shadow: { colour: '#000000', alpha: 0.3, blurPx: 20, downPx: 8 } };
    const below: Box = { xPx: 320, yPx: 365, widthPx: 20, heightPx: 10 };
    expect(nodesIn(below, picture)).toEqual([]);
    expect(nodesIn(below, shadowed)).toEqual([shadowed]);
  });
});
