import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { fadeAround, fadeFromEdge } from '../../src/core/compose/soft-fills.ts';
import type { FillNode, Scene } from '../../src/core/scene/scene.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import { scenesToPdf } from '../../src/server/render/scene-to-pdf.ts';
import { sceneToSvg } from '../../src/server/render/scene-to-svg.ts';
import { testTypesetter } from '../fixtures/typesetter.ts';
import { paintPdf } from '../fixtures/paint-pdf.ts';

const SIDE = 300;
const cut = { xPx: 0, yPx: 0, widthPx: SIDE, heightPx: SIDE };
const GROUND = [214, 198, 160];
const VEIL = [18, 40, 96];
const hex = ([r = 0, g = 0, b = 0]: readonly number[]): string => `#${((r << 16) | (g << 8) | b).toString(16).padStart(6, '0')}`;

const metadata = { title: '', altText: '', credit: '', licence: '' };
const sceneOf = (veil: FillNode): Scene => ({ size: { widthPx: SIDE, heightPx: SIDE }, nodes: [{ kind: 'fill', path: `M0 0H${SIDE}V${SIDE}H0Z`, colour: hex(GROUND), alpha: 1 }, veil] });

/** The same scene as a picture, a drawing and a page, as pixels of three channels. */
async function paintedThrice(veil: FillNode): Promise<Readonly<Record<'picture' | 'drawing' | 'page', Buffer>>> {
  const scene = sceneOf(veil);
  const input = { scene, typesetter: testTypesetter(), sources: new Map(), metadata };
  const picture = await sharp((await paintScene(scene, testTypesetter(), new Map())).rgba, { raw: { width: SIDE, height: SIDE, channels: 4 } }).removeAlpha().raw().toBuffer();
  const drawing = await sharp(await sceneToSvg(input)).resize(SIDE, SIDE).removeAlpha().raw().toBuffer();
  const page = await paintPdf(await scenesToPdf([{ ...input, texts: [] }]), SIDE);
  return { picture, drawing, page };
}

const at = (pixels: Buffer, [x, y]: readonly [number, number]): readonly number[] => [...pixels.subarray((y * SIDE + x) * 3, (y * SIDE + x) * 3 + 3)];

/** How far a pixel is, in levels of a channel, from the nearest mix of ground and veil. */
function offTheMix(pixel: readonly number[]): number {
  const mixes = Array.from({ length: 1001 }, (_, index) => GROUND.map((ground, channel) => ground + ((VEIL[channel] ?? 0) - ground) * (index / 1000)));
  return Math.min(...mixes.map((mix) => Math.max(...mix.map((value, channel) => Math.abs(value - (pixel[channel] ?? 0))))));
}

describe.each([
  ['from an edge', fadeFromEdge(cut, 'bottom', { solidPx: 100, fadePx: 150 }, hex(VEIL), 0.72), { whole: [150, 295], none: [150, 10] }],
  ['around a subject', fadeAround(cut, { xPx: 150, yPx: 120, clearPx: 40, endPx: 140 }, hex(VEIL), 0.72), { whole: [5, 295], none: [150, 120] }],
] as const)('a soft veil %s', (_name, veil, { whole, none }) => {
  it('has the same colours in a picture, a drawing and a page', async () => {
    const { picture, drawing, page } = await paintedThrice(veil);
    const mixed = GROUND.map((ground, channel) => Math.round(ground + ((VEIL[channel] ?? 0) - ground) * 0.72));
    for (const pixels of [picture, drawing, page]) {
      at(pixels, whole).forEach((value, channel) => expect(Math.abs(value - (mixed[channel] ?? 0))).toBeLessThanOrEqual(2));
      at(pixels, none).forEach((value, channel) => expect(Math.abs(value - (GROUND[channel] ?? 0))).toBeLessThanOrEqual(2));
      const along = Array.from({ length: SIDE }, (_, y) => offTheMix(at(pixels, [150, y])));
      expect(Math.max(...along)).toBeLessThanOrEqual(1.6);
    }
    for (const other of [drawing, page]) {
      let most = 0;
      for (let index = 0; index < picture.length; index += 1) most = Math.max(most, Math.abs((picture[index] ?? 0) - (other[index] ?? 0)));
      expect(most).toBeLessThanOrEqual(4);
    }
  });
});
