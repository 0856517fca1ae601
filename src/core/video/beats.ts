import FFT from 'fft.js';

/** Samples a second of the sound that beats are looked for in: all a beat needs. */
export const BEAT_RATE = 11_025;

const WINDOW = 512;
const HOP = 128;
const HOP_MS = (HOP * 1000) / BEAT_RATE;
/** A beat stands out this many times from what is around it, within this reach. */
const STANDS_OUT = 1.6;
const AROUND_MS = 400;
/** Two beats are at least so far apart. */
const MIN_GAP_MS = 180;

/**
 * Where sounds begin in a piece of music: peaks of the spectral flux, the growth of energy over all frequencies.
 * @param samples one channel at `BEAT_RATE`, in [-1, 1]
 * @returns moments in milliseconds, in order
 * @see Bello et al., A Tutorial on Onset Detection in Music Signals (2005)
 */
export function findBeats(samples: Float32Array): readonly number[] {
  const flux = spectralFlux(samples);
  const reach = Math.round(AROUND_MS / HOP_MS);
  const loudest = flux.reduce((most, value) => Math.max(most, value), 0);
  const beats: { readonly atMs: number; readonly strength: number }[] = [];
  flux.forEach((value, index) => {
    if (value <= (flux[index - 1] ?? 0) || value < (flux[index + 1] ?? 0) || value < loudest * 0.05) return;
    const around = flux.slice(Math.max(0, index - reach), index + reach + 1);
    if (value < STANDS_OUT * mean(around)) return;
    const atMs = Math.round(index * HOP_MS);
    const last = beats.at(-1);
    if (!last || atMs - last.atMs >= MIN_GAP_MS) beats.push({ atMs, strength: value });
    else if (value > last.strength) beats[beats.length - 1] = { atMs, strength: value };
  });
  return beats.map(({ atMs }) => atMs);
}

function spectralFlux(samples: Float32Array): Float64Array {
  const fft = new FFT(WINDOW);
  const input = new Array<number>(WINDOW).fill(0);
  const output = fft.createComplexArray();
  const hann = Float64Array.from({ length: WINDOW }, (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / WINDOW));
  let before = new Float64Array(WINDOW / 2);
  // The first window ends with the first hop, so that what begins at once begins from silence.
  return Float64Array.from({ length: Math.floor(samples.length / HOP) }, (_, hop) => {
    const start = (hop + 1) * HOP - WINDOW;
    for (let index = 0; index < WINDOW; index += 1) input[index] = (samples[start + index] ?? 0) * (hann[index] ?? 0);
    fft.realTransform(output, input);
    const now = Float64Array.from({ length: WINDOW / 2 }, (_, bin) => Math.log1p(100 * Math.hypot(output[2 * bin] ?? 0, output[2 * bin + 1] ?? 0)));
    const grown = now.reduce((sum, value, bin) => sum + Math.max(0, value - (before[bin] ?? 0)), 0);
    before = now;
    return grown;
  });
}

function mean(values: Float64Array): number {
  return values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
}

/** The beat nearest to a moment, where there is one within reach. */
export function nearestBeat(beatsMs: readonly number[], atMs: number, reachMs: number): number | null {
  const nearest = beatsMs.reduce<number | null>((best, beat) => (best === null || Math.abs(beat - atMs) < Math.abs(best - atMs) ? beat : best), null);
  return nearest !== null && Math.abs(nearest - atMs) <= reachMs ? nearest : null;
}
