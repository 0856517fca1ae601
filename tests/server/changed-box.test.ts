import { beforeAll, describe, expect, it } from 'vitest';
import { lanternfallBook } from '../../demo/brands/lanternfall.ts';
import { compose } from '../../src/core/compose/compose.ts';
import { neededGlyphs } from '../../src/core/compose/needed-glyphs.ts';
import type { Engines } from '../../src/core/compose/set-cut.ts';
import { growBox, type Box } from '../../src/core/geometry/box.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import type { Frame } from '../../src/core/piece/piece.ts';
import { changedBox } from '../../src/core/scene/changed-box.ts';
import type { ReachOf } from '../../src/core/scene/node-box.ts';
import type { Scene } from '../../src/core/scene/scene.ts';
import { sceneInBox } from '../../src/core/scene/scene-in-box.ts';
import type { Template } from '../../src/core/template/template.ts';
import { paintScene, type PaintedCut } from '../../src/server/render/canvas-painter.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { contents } from '../corpus/contents.ts';
import { fillTemplate } from '../corpus/fill.ts';
import { corpusPictures, type CorpusPictures } from '../corpus/pictures.ts';
import { corpusPlacements } from '../corpus/placements.ts';
import { corpusTemplates } from '../corpus/templates.ts';

const SCALE = 0.3;
/** Room for the smoothed edge, as the painter of the wall leaves it. */
const SMOOTHED_PX = 2;

let engines: Engines;
let pictures: CorpusPictures;
const usual = contents.find(({ name }) => name === 'usual');
if (!usual) throw new Error('The corpus has lost its usual content');

beforeAll(async () => {
  const server = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
  for (const template of corpusTemplates) await server.load(neededGlyphs(lanternfallBook, [{ template, frame: edited(template, ' Ægir’s 9') }]), {});
  engines = server.engines;
  pictures = await corpusPictures();
});

/** The usual frame, with something typed behind its headline, or else its first text. */
function edited(template: Template, typed: string): Frame {
  const frame = fillTemplate(template, usual as NonNullable<typeof usual>);
  const key = (template.slots.find(({ key: name }) => name === 'headline' || name === 'heading') ?? template.slots.find((slot) => frame.slots[slot.key]?.kind === 'text'))?.key ?? '';
  const value = frame.slots[key];
  return { ...frame, slots: { ...frame.slots, ...(value?.kind === 'text' ? { [key]: { ...value, text: value.text + typed } } : {}) } };
}

/** How many pixels differ outside of a box and inside it. */
function differing(a: PaintedCut, b: PaintedCut, { xPx, yPx, widthPx, heightPx }: Box): { readonly outside: number; readonly inside: number } {
  const found = { outside: 0, inside: 0 };
  for (let y = 0; y < a.heightPx; y += 1) {
    for (let x = 0; x < a.widthPx; x += 1) {
      const at = 4 * (y * a.widthPx + x);
      const where = x >= xPx && x < xPx + widthPx && y >= yPx && y < yPx + heightPx ? 'inside' : 'outside';
      if (a.rgba.compare(b.rgba, at, at + 4, at, at + 4) !== 0) found[where] += 1;
    }
  }
  return found;
}

/** The share of a cut that a box of pixels covers. */
function shareOf({ widthPx, heightPx }: Box, cut: PaintedCut): number {
  return (widthPx * heightPx) / (cut.widthPx * cut.heightPx);
}

describe('what a keystroke changes of a painted cut', () => {
  const shares: number[] = [];

  it.each(corpusTemplates.map((template, row) => [template.key, template, row] as const))('%s: no pixel outside of the box, and inside it all that is there when all is painted', async (_key, template, row) => {
    const reachOf: ReachOf = (fontKey, glyphId) => engines.typesetter.glyphReach(fontKey, glyphId);
    for (const [step, typed] of [[0, 's'], [1, ' and'], [2, ' Ægir’s 9']] as const) {
      const placement = corpusPlacements[(row + 5 * step) % corpusPlacements.length];
      if (!placement) throw new Error('The corpus has lost its placements');
      const sceneOf = (frame: Frame): Scene => compose({ template, frame, book: lanternfallBook, placement, pictures: pictures.pictures, ghosts: false, adjustment: linkedCut }, engines).scene;
      const [before, after] = [sceneOf(edited(template, '')), sceneOf(edited(template, typed))];
      const box = changedBox(before, after, reachOf);
      const scaled = box ?? { xPx: 0, yPx: 0, widthPx: 0, heightPx: 0 };
      const room = growBox({ xPx: Math.floor(scaled.xPx * SCALE), yPx: Math.floor(scaled.yPx * SCALE), widthPx: Math.ceil(scaled.widthPx * SCALE) + 1, heightPx: Math.ceil(scaled.heightPx * SCALE) + 1 }, SMOOTHED_PX);
      const painted = (scene: Scene): Promise<PaintedCut> => paintScene(scene, engines.typesetter, pictures.sources, SCALE);
      const whole = await painted(after);
      expect(differing(await painted(before), whole, room).outside, placement.key).toBe(0);
      const part = growBox(room, SMOOTHED_PX);
      const partBox = { xPx: part.xPx / SCALE, yPx: part.yPx / SCALE, widthPx: part.widthPx / SCALE, heightPx: part.heightPx / SCALE };
      expect(differing(await painted(sceneInBox(after, partBox, reachOf)), whole, room).inside, placement.key).toBe(0);
      shares.push(shareOf(room, whole));
    }
  });

  it('is a small part of most cuts', () => {
    const sorted = shares.toSorted((a, b) => a - b);
    expect(sorted[Math.floor(sorted.length / 2)]).toBeLessThan(0.35);
  });
});
