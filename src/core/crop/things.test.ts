import { describe, expect, it } from 'vitest';
import { barrierDistance } from './barrier-distance.ts';
import { labPlane } from './lab-plane.ts';
import { takePictureFacts, type Raster } from './picture-facts.ts';
import type { BoxInPicture } from './subject-box.ts';
import { thingBox, thingsIn } from './things.ts';

type Colour = readonly [number, number, number];
const RED: Colour = [215, 50, 40];
const YELLOW: Colour = [240, 200, 40];

/** A raster of a colour at each pixel, as shares of its sides. */
function drawn(colourAt: (x: number, y: number) => Colour, [widthPx, heightPx] = [150, 100]): Raster {
  const rgba = new Uint8ClampedArray(widthPx * heightPx * 4);
  for (let y = 0; y < heightPx; y += 1) for (let x = 0; x < widthPx; x += 1) rgba.set([...colourAt((x + 0.5) / widthPx, (y + 0.5) / heightPx), 255], (y * widthPx + x) * 4);
  return { widthPx, heightPx, rgba };
}

const within = (value: number, from: number, to: number): boolean => value >= from && value <= to;
/** A sky that gets much lighter towards the horizon. */
const sky = (y: number): Colour => [40 + 150 * y, 90 + 110 * y, 190 + 50 * y];

function expectBox(box: BoxInPicture | null | undefined, wanted: BoxInPicture): void {
  if (!box) throw new Error('No thing was found');
  for (const side of ['x', 'y', 'width', 'height'] as const) expect(Math.abs(box[side] - wanted[side]), side).toBeLessThan(0.04);
}

describe('barrierDistance', () => {
  it('is next to nothing all over an even sky, and high inside what has an edge', () => {
    const distance = barrierDistance(labPlane(drawn((x, y) => (within(x, 0.4, 0.6) && within(y, 0.3, 0.6) ? RED : sky(y)))));
    const at = (x: number, y: number): number => distance[Math.floor(y * 100) * 150 + Math.floor(x * 150)] ?? 0;
    expect(at(0.2, 0.5)).toBeLessThan(0.03);
    expect(at(0.8, 0.9)).toBeLessThan(0.03);
    expect(at(0.5, 0.45)).toBeGreaterThan(0.3);
  });

  it('counts the climb, not the way: through a gap in a wall the inside is as near as the outside', () => {
    const wall = (hasGap: boolean) => (x: number, y: number): Colour => {
      const onWall = within(x, 0.3, 0.7) && within(y, 0.25, 0.75) && !(within(x, 0.36, 0.64) && within(y, 0.34, 0.66));
      return onWall && !(hasGap && x > 0.6 && within(y, 0.4, 0.6)) ? RED : [200, 210, 220];
    };
    const middle = (hasGap: boolean): number => barrierDistance(labPlane(drawn(wall(hasGap))))[50 * 150 + 75] ?? 0;
    expect(middle(true)).toBeLessThan(0.02);
    expect(middle(false)).toBeGreaterThan(0.2);
  });
});

describe('thingsIn', () => {
  it('boxes all of a kite whose middle has the colour of the sky, and not its string', () => {
    const kite = drawn((x, y) => {
      if (within(x, 0.4, 0.7) && within(y, 0.2, 0.5)) return within(x, 0.53, 0.57) ? sky(y) : x < 0.55 ? RED : YELLOW;
      if (within(x, 0.1, 0.26) && within(y, 0.6, 0.8)) return [225, 228, 232];
      return within(x, 0.537, 0.563) && within(y, 0.5, 0.75) ? RED : sky(y);
    });
    const [thing, ...others] = thingsIn(kite);
    expectBox(thing, { x: 0.4, y: 0.2, width: 0.3, height: 0.3 });
    expect(others.every((each) => each.width < 0.2)).toBe(true);
  });

  it('keeps a lantern apart from the next one that hangs close to it', () => {
    const lanterns = drawn((x, y) => (within(y, 0.3, 0.7) && (within(x, 0.2, 0.44) || within(x, 0.47, 0.7)) ? YELLOW : [20, 12, 40]));
    const facts = takePictureFacts(lanterns);
    expectBox(thingBox(facts, { x: 0.32, y: 0.5 }), { x: 0.2, y: 0.3, width: 0.24, height: 0.4 });
    expectBox(thingBox(facts, { x: 0.6, y: 0.5 }), { x: 0.47, y: 0.3, width: 0.23, height: 0.4 });
  });

  it('finds nothing in plain ground, dust, or what only reaches in from the border', () => {
    expect(thingsIn(drawn((_, y) => sky(y)))).toEqual([]);
    expect(thingsIn(drawn((x, y) => (within(x, 0.5, 0.53) && within(y, 0.5, 0.53) ? RED : sky(0.5))))).toEqual([]);
    const pole = thingsIn(drawn((x, y) => (within(x, 0.4, 0.6) && y > 0.4 ? [90, 60, 40] : sky(0.5))));
    expect(pole.every(({ width, height }) => width * height < 0.02)).toBe(true);
  });
});

describe('thingBox', () => {
  const facts = { ...takePictureFacts(drawn((_, y) => sky(y))), things: [{ x: 0.1, y: 0.1, width: 0.6, height: 0.6 }, { x: 0.2, y: 0.2, width: 0.2, height: 0.2 }, { x: 0.8, y: 0.2, width: 0.1, height: 0.1 }, { x: 0.8, y: 0.36, width: 0.1, height: 0.1 }] };

  it('is the smallest thing that a focal point lies on', () => {
    expect(thingBox(facts, { x: 0.3, y: 0.3 })).toEqual(facts.things[1]);
    expect(thingBox(facts, { x: 0.6, y: 0.6 })).toEqual(facts.things[0]);
  });

  it('is both parts where the focal point lies between them, and nothing far from all', () => {
    expectBox(thingBox(facts, { x: 0.85, y: 0.33 }), { x: 0.8, y: 0.2, width: 0.1, height: 0.26 });
    expect(thingBox(facts, { x: 0.85, y: 0.9 })).toBeNull();
    expect(thingBox({ ...facts, things: undefined }, { x: 0.3, y: 0.3 })).toBeNull();
  });
});
