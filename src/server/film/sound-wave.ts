import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { WAVE_PEAKS_A_SECOND } from '../../contract/media-contracts.ts';
import { exists } from '../media/derivatives.ts';
import type { MediaStore } from '../media/media-store.ts';
import { readSamples } from './read-samples.ts';

const RATE = 8_000;

/** How loud a sound is, `WAVE_PEAKS_A_SECOND` values a second in [0, 1]. */
export async function soundWave(store: MediaStore, storedHash: string): Promise<readonly number[]> {
  const path = store.derivedPathOf(storedHash, 'wave.json');
  if (await exists(path)) return JSON.parse(await readFile(path, 'utf8')) as readonly number[];
  const samples = await readSamples(store.pathOf(storedHash), RATE);
  const step = RATE / WAVE_PEAKS_A_SECOND;
  const peaks = Array.from({ length: Math.ceil(samples.length / step) }, (_, index) => {
    const most = samples.subarray(index * step, (index + 1) * step).reduce((peak, value) => Math.max(peak, Math.abs(value)), 0);
    return Math.round(most * 1000) / 1000;
  });
  const temporary = await store.temporaryPath();
  await writeFile(temporary, JSON.stringify(peaks));
  await mkdir(dirname(path), { recursive: true });
  await rename(temporary, path);
  return peaks;
}
