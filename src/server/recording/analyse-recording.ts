import { setImmediate as nextTurn } from 'node:timers/promises';
import { FACTS_RASTER_PX } from '../../core/crop/picture-facts.ts';
import type { Size } from '../../core/geometry/box.ts';
import { BEAT_RATE, findBeats } from '../../core/video/beats.ts';
import { judgeFrames, lookAtFrame, LOOKS_A_SECOND, type FrameLook } from '../../core/video/clip-look.ts';
import type { RecordingFacts, Span } from '../../core/video/recording.ts';
import { readSamples } from './read-samples.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

/** The pictures are looked at this wide: enough to tell scenes apart. */
const LOOK_WIDTH_PX = 320;
/** Score of a scene change, of 100 (ffmpeg's scdet). */
const SCENE_THRESHOLD = 12;
/** Quieter than this for this long is silence. */
const SILENCE = 'noise=-38dB:duration=0.25';
const MAX_MS = 10 * 60 * 1000;
/** The subject is looked for this often a second, and no more often than this in all: it takes longest. */
const SUBJECTS_A_SECOND = 2;
const MAX_SUBJECTS = 160;

interface RecordingToAnalyse {
  /** Of its pictures; null for a sound. */
  readonly size: Size | null;
  readonly hasSound: boolean;
  readonly durationMs: number;
}

/** Finds scene changes, black, stills, silence, blur, shaking and the way of the subject, in one pass; in a sound alone, its beats. */
export async function analyseRecording(path: string, { size, hasSound, durationMs }: RecordingToAnalyse, signal?: AbortSignal): Promise<RecordingFacts> {
  const looks = size && new FrameReader(smallSize(size), durationMs);
  const detectors = looks ? ['-map', '0:v:0', '-vf', `scale=${LOOK_WIDTH_PX}:-2,scdet=threshold=${SCENE_THRESHOLD},blackdetect=d=0.2:pix_th=0.08,freezedetect=n=-60dB:d=0.8`] : [];
  const sound = hasSound ? ['-map', '0:a:0', '-af', `silencedetect=${SILENCE}`] : [];
  const small = looks ? ['-map', '0:v:0', '-vf', `fps=${LOOKS_A_SECOND},scale=${looks.size.widthPx}:${looks.size.heightPx}:flags=area`, '-pix_fmt', 'rgba', '-f', 'rawvideo', 'pipe:1'] : [];
  const { messages } = await runFfmpeg([...inputFile(path), ...detectors, ...sound, '-f', 'null', '-', ...small], { mostMs: MAX_MS, signal, ...(looks ? { onBytes: (bytes: Buffer) => looks.take(bytes) } : {}) });
  const found = readFindings(messages, durationMs);
  return {
    ...found,
    ...(looks ? judgeFrames(await looks.finish(), { durationMs, sceneChangesMs: found.sceneChangesMs }) : { blurred: [], shaking: [], subject: [] }),
    beatsMs: !size && hasSound ? findBeats(await readSamples(path, BEAT_RATE, signal)) : [],
  };
}

function smallSize({ widthPx, heightPx }: Size): Size {
  const scale = FACTS_RASTER_PX / Math.max(widthPx, heightPx);
  return { widthPx: Math.max(16, Math.round(widthPx * scale)), heightPx: Math.max(16, Math.round(heightPx * scale)) };
}

/** Makes frames of the bytes of raw pictures, and looks at each when there is time. */
class FrameReader {
  readonly #looks: FrameLook[] = [];
  readonly #frames: Buffer[] = [];
  readonly #subjectEvery: number;
  #rest = Buffer.alloc(0);
  #working: Promise<void> | null = null;

  constructor(
    readonly size: Size,
    durationMs: number,
  ) {
    this.#subjectEvery = Math.max(LOOKS_A_SECOND / SUBJECTS_A_SECOND, Math.ceil((durationMs / 1000) * (LOOKS_A_SECOND / MAX_SUBJECTS)));
  }

  take(bytes: Buffer): void {
    const frameBytes = this.size.widthPx * this.size.heightPx * 4;
    let rest = this.#rest.length === 0 ? bytes : Buffer.concat([this.#rest, bytes]);
    for (; rest.length >= frameBytes; rest = rest.subarray(frameBytes)) this.#frames.push(Buffer.from(rest.subarray(0, frameBytes)));
    this.#rest = Buffer.from(rest);
    this.#working ??= this.#work().finally(() => (this.#working = null));
  }

  async finish(): Promise<readonly FrameLook[]> {
    await this.#working;
    return this.#looks;
  }

  async #work(): Promise<void> {
    for (let frame = this.#frames.shift(); frame; frame = this.#frames.shift()) {
      const index = this.#looks.length;
      this.#looks.push(lookAtFrame({ ...this.size, rgba: frame }, (index * 1000) / LOOKS_A_SECOND, index % this.#subjectEvery === 0));
      // Requests of others come in between.
      await nextTurn();
    }
  }
}

/** What ffmpeg's detectors print, as values. A span that is still open at the end lasts until the end. */
export function readFindings(messages: string, durationMs: number): Pick<RecordingFacts, 'sceneChangesMs' | 'black' | 'silent' | 'frozen'> {
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
