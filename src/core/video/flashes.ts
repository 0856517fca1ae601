import { srgbToLinear } from '../colour/contrast.ts';

/** Side of the small grey pictures that flashes are looked for in, in cells. */
export const FLASH_CELLS = 24;
/** A general flash: luminance changes by this share of white and back, where the darker state is below `DARK` (WCAG 2.2, 2.3.1). */
const CHANGE = 0.1;
const DARK = 0.8;
/** Flashes in a smaller share of the picture do no harm. */
const AREA_SHARE = 0.25;
/** Cells that change within so many frames of each other change together. */
const TOGETHER_FRAMES = 2;
/** No more than this in any second. */
export const MAX_FLASHES_A_SECOND = 3;

/**
 * The most flashes that any second of a video has.
 * @param frames luma of `FLASH_CELLS` squared cells a frame, in [0, 255]
 */
export function mostFlashesASecond(frames: readonly Uint8Array[], fps: number): number {
  const turns = globalTurns(frames);
  // A flash is a pair of opposing changes.
  return turns.reduce((most, from, index) => Math.max(most, Math.floor(turns.slice(index).filter((at) => at < from + fps).length / 2)), 0);
}

/** Frames at which a great part of the picture has turned from growing lighter to growing darker, or back. */
function globalTurns(frames: readonly Uint8Array[]): readonly number[] {
  const count = FLASH_CELLS * FLASH_CELLS;
  const extreme = new Float64Array(count);
  const direction = new Int8Array(count);
  const turnedAt = { up: new Float64Array(count).fill(-Infinity), down: new Float64Array(count).fill(-Infinity) };
  const turns: number[] = [];
  let last: 'up' | 'down' | null = null;
  frames.forEach((frame, at) => {
    for (let cell = 0; cell < count; cell += 1) {
      const luminance = LUMINANCE[frame[cell] ?? 0] ?? 0;
      if (at === 0) extreme[cell] = luminance;
      const before = extreme[cell] ?? 0;
      const going = direction[cell] ?? 0;
      if ((going > 0 && luminance > before) || (going < 0 && luminance < before)) extreme[cell] = luminance;
      else if (Math.abs(luminance - before) >= CHANGE && Math.min(luminance, before) < DARK) {
        direction[cell] = luminance > before ? 1 : -1;
        turnedAt[luminance > before ? 'up' : 'down'][cell] = at;
        extreme[cell] = luminance;
      }
    }
    for (const turn of ['up', 'down'] as const) {
      if (turn === last) continue;
      const together = turnedAt[turn].reduce((sum, turned) => sum + (at - turned <= TOGETHER_FRAMES ? 1 : 0), 0);
      if (together < count * AREA_SHARE) continue;
      turns.push(at);
      last = turn;
      break;
    }
  });
  return turns;
}

const LUMINANCE = Float64Array.from({ length: 256 }, (_, luma) => srgbToLinear(luma / 255));
