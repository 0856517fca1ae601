import { describe, expect, it } from 'vitest';
import { smallPicture, type Rgb } from '../../../tests/fixtures/small-picture.ts';
import { clearEdges, type LabPlane } from './lab-plane.ts';
import { unlikeBorder } from './unlike-border.ts';

const [WIDTH, HEIGHT] = [160, 120];
const CENTRE = { x: 0.5, y: 0.5 };
const RED: Rgb = [205, 40, 35];

const pictureOf = (colourAt: (x: number, y: number) => Rgb): LabPlane => smallPicture(WIDTH, HEIGHT, colourAt);

/** A sky that gets paler towards the horizon. */
const sky = (_: number, y: number): Rgb => [110 + y, 150 + y, 215];
const isWithin = (radius: number, cx = WIDTH / 2, cy = HEIGHT / 2) => (x: number, y: number): boolean => Math.hypot(x - cx, y - cy) <= radius;
const countOf = (mask: Uint8Array | null): number => mask?.reduce((sum, each) => sum + each, 0) ?? 0;

describe('things unlike the border of their picture', () => {
  it('are found to the pixel, whatever the ground does from top to bottom', () => {
    const disc = isWithin(18);
    const found = unlikeBorder(pictureOf((x, y) => (disc(x, y) ? RED : sky(x, y))), CENTRE);
    for (let y = 0; y < HEIGHT; y += 1) for (let x = 0; x < WIDTH; x += 1) expect(found?.[y * WIDTH + x], `${x}, ${y}`).toBe(disc(x, y) ? 1 : 0);
  });

  it('are none where the picture is its ground alone', () => {
    expect(unlikeBorder(pictureOf(sky), CENTRE)).toBeNull();
  });

  it('are not taken where none of them is the subject', () => {
    const disc = isWithin(12, 30, 30);
    const plane = pictureOf((x, y) => (disc(x, y) ? RED : sky(x, y)));
    expect(countOf(unlikeBorder(plane, { x: 0.27, y: 0.35 }))).toBeGreaterThan(400);
    expect(unlikeBorder(plane, { x: 0.85, y: 0.8 })).toBeNull();
  });

  it('all count once one is the subject, but for dust', () => {
    const [large, small] = [isWithin(16, 45, 45), isWithin(9, 88, 40)];
    // Nine pixels, too few for a thing of a picture of this size.
    const isDust = (x: number, y: number): boolean => Math.abs(x - 100) <= 1 && Math.abs(y - 70) <= 1;
    const found = unlikeBorder(pictureOf((x, y) => (large(x, y) || small(x, y) || isDust(x, y) ? RED : sky(x, y))), { x: 0.37, y: 0.5 });
    expect([found?.[45 * WIDTH + 45], found?.[40 * WIDTH + 88], found?.[70 * WIDTH + 100]]).toEqual([1, 1, 0]);
  });

  it('do not run off the picture: what the edge cuts is seen whole nowhere', () => {
    // So little of it touches the border that its colour is none of the ground's.
    const stalk = (x: number, y: number): boolean => (Math.abs(x - 80) <= 1 && y > 60) || isWithin(14)(x, y);
    expect(unlikeBorder(pictureOf((x, y) => (stalk(x, y) ? RED : sky(x, y))), CENTRE)).toBeNull();
  });

  it('have clear edges: what fades into its ground is none', () => {
    const mix = (a: Rgb, b: Rgb, share: number): Rgb => [0, 1, 2].map((index) => Math.round((a[index] ?? 0) * (1 - share) + (b[index] ?? 0) * share)) as unknown as Rgb;
    const faded = pictureOf((x, y) => mix(RED, sky(x, y), Math.min(1, Math.hypot(x - WIDTH / 2, y - HEIGHT / 2) / 36)));
    expect(unlikeBorder(faded, CENTRE)).toBeNull();
  });

  it('are whole: stripes with the ground between them are left alone', () => {
    const isStripe = (x: number, y: number): boolean => x >= 30 && x < 90 && y >= 25 && y < 65 && x % 6 < 3;
    expect(unlikeBorder(pictureOf((x, y) => (isStripe(x, y) ? RED : [245, 245, 245])), CENTRE)).toBeNull();
    const isField = (x: number, y: number): boolean => x >= 30 && x < 90 && y >= 25 && y < 65;
    expect(countOf(unlikeBorder(pictureOf((x, y) => (isField(x, y) ? RED : [245, 245, 245])), CENTRE))).toBe(60 * 40);
  });
});

describe('edges of labels', () => {
  it('are clear where the colour changes at once, for both that meet there', () => {
    const isLeft = (x: number): boolean => x < 40;
    const labels = Int32Array.from({ length: WIDTH * HEIGHT }, (_, index) => (isLeft(index % WIDTH) ? 1 : index % WIDTH < 80 ? 2 : 3));
    const shares = clearEdges(pictureOf((x) => (isLeft(x) ? RED : [200, 200, 200])), labels);
    // Between 2 and 3 nothing is to be seen.
    expect([shares.get(1), shares.get(2), shares.get(3)]).toEqual([1, 0.5, 0]);
  });
});
