import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { PictureNode, Scene } from '../../src/core/scene/scene.ts';
import { softShadow, withShadow } from '../../src/core/scene/shadow.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import { sceneToSvg } from '../../src/server/render/scene-to-svg.ts';
import { testTypesetter } from '../fixtures/typesetter.ts';

const SIDE = 200;
let folder: string;
let sources: ReadonlyMap<string, { readonly filePath: string; readonly widthPx: number; readonly heightPx: number }>;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-shadow-'));
  // A red disc on nothing.
  const disc = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}"><circle cx="${SIDE / 2}" cy="${SIDE / 2}" r="${SIDE / 2 - 2}" fill="#d7263d"/></svg>`;
  const filePath = join(folder, 'disc.png');
  await sharp(Buffer.from(disc)).png().toFile(filePath);
  sources = new Map([['p', { filePath, widthPx: SIDE, heightPx: SIDE }]]);
});
afterAll(() => rmSync(folder, { recursive: true }));

const node: PictureNode = { kind: 'picture', pictureId: 'p', box: { xPx: 100, yPx: 80, widthPx: SIDE, heightPx: SIDE }, window: { x: 0, y: 0, width: 1, height: 1 }, cutOut: true, shadow: softShadow('#12355B', 40) };
const sceneOf = (...pictures: readonly PictureNode[]): Scene => ({ size: { widthPx: 400, heightPx: 400 }, nodes: [{ kind: 'fill', path: 'M0 0H400V400H0Z', colour: '#ffffff', alpha: 1 }, ...pictures] });

it('a cut-out throws a soft shadow below it, in a picture and in an SVG alike', async () => {
  const painted = Buffer.from((await paintScene(sceneOf(node), testTypesetter(), sources)).rgba);
  const green = (x: number, y: number): number => painted[(y * 400 + x) * 4 + 1] ?? 0;
  // Below the disc the ground is darker than above it, and far away it is as it was.
  expect(green(200, 286)).toBeLessThan(220);
  expect(green(200, 74)).toBeGreaterThan(green(200, 286) + 10);
  expect([green(8, 8), green(392, 392)]).toEqual([255, 255]);

  const svg = await sceneToSvg({ scene: sceneOf(node), typesetter: testTypesetter(), sources, metadata: { title: '', altText: '', credit: '', licence: '' } });
  if (!node.shadow) throw new Error('It has a shadow');
  const { xPx, yPx, widthPx } = withShadow(node.box, node.shadow);
  expect(svg.toString()).toContain(`<image x="${xPx}" y="${yPx}" width="${widthPx}"`);
  const drawn = await sharp(svg).resize(400, 400).removeAlpha().raw().toBuffer();
  let off = 0;
  for (let at = 0; at < 400 * 400; at += 1) off += Math.abs((drawn[at * 3 + 1] ?? 0) - (painted[at * 4 + 1] ?? 0));
  expect(off / (400 * 400)).toBeLessThan(1.5);
});

it('what is painted after it throws none', async () => {
  const bare = { ...node, shadow: undefined };
  const one = Buffer.from((await paintScene(sceneOf(bare), testTypesetter(), sources)).rgba);
  await paintScene(sceneOf(node), testTypesetter(), sources);
  expect(Buffer.from((await paintScene(sceneOf(bare), testTypesetter(), sources)).rgba).equals(one)).toBe(true);
});
