import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

const MAX_MS = 5 * 60 * 1000;

/** The sound of a file as one channel of samples in [-1, 1]. */
export async function readSamples(path: string, rate: number, signal?: AbortSignal): Promise<Float32Array> {
  const { stdout } = await runFfmpeg([...inputFile(path), '-map', '0:a:0', '-ac', '1', '-ar', String(rate), '-c:a', 'pcm_s16le', '-f', 's16le', 'pipe:1'], { mostMs: MAX_MS, signal });
  return Float32Array.from({ length: Math.floor(stdout.length / 2) }, (_, index) => stdout.readInt16LE(index * 2) / 32_768);
}
