import type { FilmFacts, Span } from '../../core/video/film.ts';
import { inputFile, runFfmpeg } from './run-ffmpeg.ts';

/** The pictures are looked at this wide: enough to tell scenes apart. */
const LOOK_WIDTH_PX = 320;
/** Score of a scene change, of 100 (ffmpeg's scdet). */
const SCENE_THRESHOLD = 12;
/** Quieter than this for this long is silence. */
const SILENCE = 'noise=-38dB:duration=0.25';
const MOST_MS = 10 * 60 * 1000;

/** Finds scene changes, black, stills and silence, in one pass. */
export async function analyseFilm(path: string, { hasPictures, hasSound, durationMs }: { readonly hasPictures: boolean; readonly hasSound: boolean; readonly durationMs: number }): Promise<FilmFacts> {
  const pictures = hasPictures ? ['-map', '0:v:0', '-vf', `scale=${LOOK_WIDTH_PX}:-2,scdet=threshold=${SCENE_THRESHOLD},blackdetect=d=0.2:pix_th=0.08,freezedetect=n=-60dB:d=0.8`] : [];
  const sound = hasSound ? ['-map', '0:a:0', '-af', `silencedetect=${SILENCE}`] : [];
  const { messages } = await runFfmpeg([...inputFile(path), ...pictures, ...sound, '-f', 'null', '-'], { mostMs: MOST_MS });
  return readFindings(messages, durationMs);
}

/** What ffmpeg's detectors print, as values. A span that is still open at the end lasts until the end. */
export function readFindings(messages: string, durationMs: number): FilmFacts {
  const toMs = (seconds: string | undefined): number => Math.max(0, Math.min(durationMs, Math.round(Number(seconds) * 1000)));
  const spans = (start: RegExp, end: RegExp): readonly Span[] => {
    const ends = [...messages.matchAll(end)].map((found) => toMs(found[1]));
    return [...messages.matchAll(start)].map((found, index): Span => ({ fromMs: toMs(found[1]), toMs: ends[index] ?? durationMs }));
  };
  return {
    sceneChangesMs: [...messages.matchAll(/lavfi\.scd\.time: ([\d.]+)/g)].map((found) => toMs(found[1])),
    black: spans(/black_start:([\d.]+)/g, /black_end:([\d.]+)/g),
    silent: spans(/silence_start: (-?[\d.]+)/g, /silence_end: ([\d.]+)/g),
    frozen: spans(/freeze_start: ([\d.]+)/g, /freeze_end: ([\d.]+)/g),
  };
}
