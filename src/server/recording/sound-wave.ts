import { readFile, writeFile } from 'node:fs/promises';
import { WAVE_PEAKS_A_SECOND } from '../../contract/media-contracts.ts';
import { madeOnce } from '../media/made-once.ts';
import type { MediaStore } from '../media/media-store.ts';
import { readSamples } from './read-samples.ts';

const RATE = 8_000;

/** How loud a sound is, `WAVE_PEAKS_A_SECOND` values a second in [0, 1]. */
export async function soundWave(store: MediaStore, storedHash: string): Promise<readonly number[]> {
  const path = await madeOnce(store, store.derivedPathOf(storedHash, 'wave.json'), async (to) => writeFile(to, JSON.stringify(await peaksOf(store.pathOf(storedHash)))));
  return JSON.parse(await readFile(path, 'utf8')) as readonly number[];
}

async function peaksOf(sound: string): Promise<readonly number[]> {
  const samples = await readSamples(sound, RATE);
  const step = RATE / WAVE_PEAKS_A_SECOND;
  return Array.from({ length: Math.ceil(samples.length / step) }, (_, index) => {
    const most = samples.subarray(index * step, (index + 1) * step).reduce((peak, value) => Math.max(peak, Math.abs(value)), 0);
    return Math.round(most * 1000) / 1000;
  });
}
