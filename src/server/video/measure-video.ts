import { FLASH_CELLS, mostFlashesASecond } from '../../core/video/flashes.ts';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

const MAX_MS = 10 * 60 * 1000;
/** Points of a video's picture that are looked at across and down: taking single points costs next to nothing. */
const POINTS_A_CELL = 4;
export const METER_SIDE_PX = FLASH_CELLS * POINTS_A_CELL;

/** Gathers the small grey pictures of a video while it is made. */
export class FlashMeter {
  readonly #frames: Uint8Array[] = [];
  #rest = Buffer.alloc(0);

  take(bytes: Buffer): void {
    const frameBytes = METER_SIDE_PX * METER_SIDE_PX;
    let rest = Buffer.concat([this.#rest, bytes]);
    for (; rest.length >= frameBytes; rest = rest.subarray(frameBytes)) this.#frames.push(cellsOf(rest.subarray(0, frameBytes)));
    this.#rest = Buffer.from(rest);
  }

  flashesASecond(): number {
    return mostFlashesASecond(this.#frames, VIDEO_FPS);
  }
}

/** Loudness and true peak of a finished video, from the sound that is in it. */
export async function measureLoudness(path: string, signal: AbortSignal): Promise<Pick<VideoMeasures, 'loudnessLufs' | 'truePeakDb'>> {
  const { messages } = await runFfmpeg([...inputFile(path), '-map', '0:a:0', '-af', 'ebur128=peak=true:framelog=verbose', '-f', 'null', '-'], { mostMs: MAX_MS, signal });
  const summary = messages.slice(messages.lastIndexOf('Summary:'));
  const read = (pattern: RegExp): number | null => {
    const value = Number(pattern.exec(summary)?.[1] ?? Number.NaN);
    return Number.isFinite(value) && value > -70 ? value : null;
  };
  return { loudnessLufs: read(/I:\s+(-?[\d.]+) LUFS/), truePeakDb: read(/Peak:\s+(-?[\d.]+|-inf) dBFS/) };
}

/** The mean of the points of every cell. */
function cellsOf(points: Uint8Array): Uint8Array {
  const sums = new Uint16Array(FLASH_CELLS * FLASH_CELLS);
  points.forEach((value, index) => {
    const cell = Math.floor(index / METER_SIDE_PX / POINTS_A_CELL) * FLASH_CELLS + Math.floor((index % METER_SIDE_PX) / POINTS_A_CELL);
    sums[cell] = (sums[cell] ?? 0) + value;
  });
  return Uint8Array.from(sums, (sum) => Math.round(sum / POINTS_A_CELL ** 2));
}
