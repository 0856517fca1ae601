import { writeFile } from 'node:fs/promises';
import { WAVE_PEAKS_A_SECOND } from '../../contract/media-contracts.ts';
import { madeOnce } from '../media/made-once.ts';
import type { MediaStore } from '../media/media-store.ts';
import { readSamples } from './read-samples.ts';

const RATE = 8_000;

/** Where the wave form of a sound lies. */
export const soundWavePath = (store: MediaStore, storedHash: string): string => store.derivedPathOf(storedHash, 'wave.json');

/**
 * How loud a sound is, as a JSON list of `WAVE_PEAKS_A_SECOND` values a second in [0, 1].
 * @returns the path of the file
 */
export function soundWave(store: MediaStore, storedHash: string, signal?: AbortSignal): Promise<string> {
  return madeOnce(store, soundWavePath(store, storedHash), async (to) => writeFile(to, JSON.stringify(await peaksOf(store.pathOf(storedHash), signal))));
}

async function peaksOf(sound: string, signal?: AbortSignal): Promise<readonly number[]> {
  const samples = await readSamples(sound, RATE, signal);
  const step = RATE / WAVE_PEAKS_A_SECOND;
  return Array.from({ length: Math.ceil(samples.length / step) }, (_, index) => {
    const most = samples.subarray(index * step, (index + 1) * step).reduce((peak, value) => Math.max(peak, Math.abs(value)), 0);
    return Math.round(most * 1000) / 1000;
  });
}
