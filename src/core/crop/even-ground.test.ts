import { describe, expect, it } from 'vitest';
import { smallPicture, type Rgb } from '../../../tests/fixtures/small-picture.ts';
import { evenGround } from './even-ground.ts';

const [WIDTH, HEIGHT] = [160, 120];
const DARK: Rgb = [40, 45, 50];
const groundOf = (colourAt: (x: number, y: number) => Rgb): Uint8Array | null => evenGround(smallPicture(WIDTH, HEIGHT, colourAt));
/** Paler from row to row, without an edge on the way. */
const sky = (_: number, y: number): Rgb => [110 + y * 0.4, 150 + y * 0.35, 215 + y * 0.1];
/** A tower that stands on the lower edge. */
const isTower = (x: number, y: number): boolean => x >= 60 && x < 100 && y >= 50;

describe('an even ground', () => {
  it('is all of a sky that changes slowly, and ends where something stands before it', () => {
    const ground = groundOf((x, y) => (isTower(x, y) ? DARK : sky(x, y)));
    for (let y = 0; y < HEIGHT; y += 1) for (let x = 0; x < WIDTH; x += 1) expect(ground?.[y * WIDTH + x], `${x}, ${y}`).toBe(isTower(x, y) ? 0 : 1);
  });

  it('does not jump: what has its colour on the other side of an edge is none of it', () => {
    // A window in the tower shows the same sky.
    const isWindow = (x: number, y: number): boolean => x >= 75 && x < 85 && y >= 70 && y < 85;
    const ground = groundOf((x, y) => (isTower(x, y) && !isWindow(x, y) ? DARK : sky(x, y)));
    expect(ground?.[77 * WIDTH + 80]).toBe(0);
  });

  it('is there only where it is open above', () => {
    const isRoof = (x: number, y: number): boolean => y < 8 && x < 40;
    expect(groundOf((x, y) => (isRoof(x, y) ? DARK : sky(x, y)))).toBeNull();
    const isMast = (x: number, y: number): boolean => x >= 70 && x < 80 && y < 120;
    expect(groundOf((x, y) => (isMast(x, y) ? DARK : sky(x, y)))).not.toBeNull();
  });

  it('is none before which things fade in, as hills in a haze', () => {
    const hazy = groundOf((x, y) => {
      const share = Math.min(1, Math.max(0, (y - 40) / 60));
      const [r, g, b] = sky(x, 40);
      return [r * (1 - share) + DARK[0] * share, g * (1 - share) + DARK[1] * share, b * (1 - share) + DARK[2] * share];
    });
    expect(hazy).toBeNull();
  });
});
