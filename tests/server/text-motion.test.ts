import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadYoga } from 'yoga-layout/load';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { motionManners, type BrandBook } from '../../src/core/brand/brand-book.ts';
import { compose } from '../../src/core/compose/compose.ts';
import { networkSheetSchema } from '../../src/core/network/network-sheet.ts';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import type { Scene } from '../../src/core/scene/scene.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import type { Template } from '../../src/core/template/template.ts';
import { manners } from '../../src/core/video/manner.ts';
import { sceneAt } from '../../src/core/video/motion.ts';
import { styledSubtitle, subtitleStyle } from '../../src/core/video/subtitle-style.ts';
import { runFfmpeg } from '../../src/server/ffmpeg/run-ffmpeg.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import { paintCue } from '../../src/server/render/paint-cue.ts';
import { paintShot } from '../../src/server/render/paint-layers.ts';
import { pictureGraph, type VideoToJoin } from '../../src/server/video/picture-graph.ts';
import { testTypesetter } from '../fixtures/typesetter.ts';

const typesetter = testTypesetter();
const [placement] = networkSheetSchema.validateSync(petalry).placements;
if (!placement) throw new Error('There is a placement');
const engines = { typesetter, yoga: await loadYoga() };
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-motion-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const sceneOf = (template: Template, texts: Readonly<Record<string, string>>, book: BrandBook = gullwickBook): Scene =>
  compose({ template, frame: { id: 'f', slots: Object.fromEntries(Object.entries(texts).map(([slot, text]) => [slot, { kind: 'text', text }])) }, book, placement, pictures: new Map(), ghosts: false, adjustment: linkedCut }, engines).scene;

/** A scene as the preview paints it. The canvas is painted on again: its pixels are kept. */
async function painted(scene: Scene): Promise<Buffer> {
  return Buffer.from((await paintScene(scene, typesetter, new Map())).rgba);
}

/** Frames of a video by their numbers, three bytes a pixel. */
async function framesOf(video: VideoToJoin, wanted: readonly number[]): Promise<readonly Buffer[]> {
  const { inputs, filter } = pictureGraph(video, new Map());
  const select = wanted.map((frame) => `eq(n,${frame})`).join('+');
  const { stdout } = await runFfmpeg([...inputs, '-filter_complex', `${filter};[picture]select='${select}',scale=in_color_matrix=bt709:in_range=tv,format=rgb24[out]`, '-map', '[out]', '-fps_mode', 'passthrough', '-f', 'rawvideo', 'pipe:1'], { mostMs: 120_000 });
  const bytes = video.size.widthPx * video.size.heightPx * 3;
  return wanted.map((_, index) => stdout.subarray(index * bytes, (index + 1) * bytes));
}

/** Share of the pixels that look different, in percent. */
function differencePercent(video: Buffer, preview: Buffer): number {
  let off = 0;
  const pixels = video.length / 3;
  for (let at = 0; at < pixels; at += 1) if (Math.abs((video[at * 3 + 1] ?? 0) - (preview[at * 4 + 1] ?? 0)) > 70) off += 1;
  return (100 * off) / pixels;
}

describe('texts on their way', () => {
  const lengthFrames = 60;
  const frames = [0, 6, 9, 14, 30, 57, 58];
  const shot = { lengthFrames, isLast: false, standsAtStart: false, movements: new Map() };

  it.each(motionManners)('are in a video where the preview has them: %s', async (name) => {
    const scene = sceneOf(getShippedTemplate('hush'), { label: 'Saturday', headline: 'Build your own kite', quote: 'Build your own kite in one afternoon', line: 'The Old Net Loft, from two' });
    const manner = manners[name];
    const layers = await paintShot(scene, shot, { clips: new Set(), manner, name }, { typesetter, sources: new Map(), folder });
    const seen = await framesOf({ size: scene.size, shots: [{ ...layers, into: { kind: 'cut', frames: 0 }, clip: null }], cues: [], band: null }, frames);
    const previews: Buffer[] = [];
    for (const frame of frames) previews.push(await painted(sceneAt(scene, { ...shot, frame }, manner)));
    const rest = previews[frames.indexOf(30)];
    for (const [index, frame] of frames.entries()) {
      const [video, preview] = [seen[index], previews[index]];
      if (!video || !preview || !rest) throw new Error('Every frame is there');
      expect([name, frame, differencePercent(video, preview) < 0.1]).toEqual([name, frame, true]);
      // A frame on its way is another one than that in which all texts stand.
      if ([0, 6, 58].includes(frame)) expect([name, frame, differencePercent(video, rest) > 0.2]).toEqual([name, frame, true]);
    }
  });
});

describe('the spoken word', () => {
  it('has its colour in the frames in which it is spoken', async () => {
    const book: BrandBook = { ...gullwickBook, video: { subtitles: 'edge', coloursSaidWord: true } };
    const style = subtitleStyle(book);
    const scene = sceneOf(style.template, { line: 'Hold the line' }, book);
    const layer = await paintCue(scene, style, [5, 12, 20], 'line.rgba', { typesetter, sources: new Map(), folder });
    if (!layer) throw new Error('It has ink');
    const wanted = [4, 5, 11, 12, 19, 20, 29, 30];
    const seen = await framesOf({ size: scene.size, shots: [{ lengthFrames: 40, layers: [], into: { kind: 'cut', frames: 0 }, clip: null }], cues: [{ layer, fromFrame: 5, toFrame: 30 }], band: null }, wanted);
    const ground = { kind: 'fill', path: `M0 0H${scene.size.widthPx}V${scene.size.heightPx}H0Z`, colour: '#000000', alpha: 1 } as const;
    const words: Buffer[] = [];
    for (const word of [null, 0, 1, 2]) words.push(await painted({ ...scene, nodes: [ground, ...(word === null ? [] : styledSubtitle(scene, style, word, typesetter).nodes)] }));
    const nearest = seen.map((video) => {
      const apart = words.map((preview) => differencePercent(video, preview));
      return apart.indexOf(Math.min(...apart)) - 1;
    });
    expect(nearest).toEqual([-1, 0, 0, 1, 1, 2, 2, -1]);
  });
});
