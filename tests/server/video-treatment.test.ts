import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { colourTable, type Treatment } from '../../src/core/scene/treatment.ts';
import { runFfmpeg } from '../../src/server/ffmpeg/run-ffmpeg.ts';
import { pictureGraph } from '../../src/server/video/picture-graph.ts';
import { bars, H264, makeRecording } from '../fixtures/recordings.ts';

const size = { widthPx: 160, heightPx: 120 };
let folder: string;
let clip: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-treatment-'));
  clip = await makeRecording(folder, 'bars.mp4', [...bars('160x120', '30', 1), ...H264]);
});
afterAll(() => rmSync(folder, { recursive: true }));

/** The first frame of a clip as a video shows it, three bytes a pixel. */
async function shown(colours: string | undefined): Promise<Buffer> {
  const layer = { kind: 'clip', mediaId: 'm', box: { xPx: 0, yPx: 0, ...size }, path: [{ frame: 0, window: { x: 0, y: 0, width: 1, height: 1 } }], ...(colours === undefined ? {} : { colours }) } as const;
  const { inputs, filter } = pictureGraph({ size, shots: [{ lengthFrames: 3, layers: [layer], into: { kind: 'cut', frames: 0 }, clip: { fromFrame: 0 } }], cues: [], band: null }, new Map([['m', { path: clip, ...size }]]));
  return (await runFfmpeg([...inputs, '-filter_complex', `${filter};[picture]scale=in_color_matrix=bt709:in_range=tv,format=rgb24[out]`, '-map', '[out]', '-frames:v', '1', '-f', 'rawvideo', 'pipe:1'], { mostMs: 30_000 })).stdout;
}

/** How far the channels of a pixel are apart, on the mean. */
const colourfulness = (pixels: Buffer): number => {
  let sum = 0;
  for (let at = 0; at < pixels.length; at += 3) sum += Math.max(pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0) - Math.min(pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0);
  return sum / (pixels.length / 3);
};
const table = (name: string, treatment: Treatment): string => {
  const file = join(folder, name);
  mkdirSync(join(file, '..'), { recursive: true });
  writeFileSync(file, colourTable(treatment));
  return file;
};

it('a clip is shown in the look of the brand’s photographs, wherever the files lie', async () => {
  const plain = await shown(undefined);
  expect(plain).toHaveLength(160 * 120 * 3);
  expect(colourfulness(plain)).toBeGreaterThan(80);
  for (const name of ['mono.cube', "it's, [a] folder: \\; 100%/mono.cube"]) expect([name, colourfulness(await shown(table(name, { kind: 'mono', strength: 1 }))) < 6]).toEqual([name, true]);
  // Where the look leaves all colours, the way through the table changes next to nothing.
  const same = await shown(table('same.cube', { kind: 'grain', strength: 1 }));
  const off = same.reduce((sum, value, at) => sum + Math.abs(value - (plain[at] ?? 0)), 0) / same.length;
  expect(off).toBeLessThan(5);
});
