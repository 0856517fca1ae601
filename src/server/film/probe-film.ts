import { array, number, object, string } from 'yup';
import { ProblemError } from '../errors.ts';
import { FfmpegError, runFfprobe } from './run-ffmpeg.ts';

/** What a file of moving pictures or sound says of itself. */
export interface FilmProbe {
  readonly durationMs: number;
  /** Its pictures, upright; null for sound alone. */
  readonly video: { readonly widthPx: number; readonly heightPx: number; readonly isHdr: boolean } | null;
  readonly hasSound: boolean;
}

/** Longest clip or sound. */
export const MOST_FILM_MS = 30 * 60 * 1000;
/** Longest side of a clip: what decodes in reasonable memory and time. */
export const MOST_FILM_SIDE_PX = 4_096;
const LEAST_FILM_MS = 100;
const LEAST_SIDE_PX = 64;
const PROBE_MS = 20_000;

const probeSchema = object({
  format: object({ duration: string() }).required(),
  streams: array(
    object({
      codec_type: string().required(),
      width: number(),
      height: number(),
      color_transfer: string(),
      disposition: object({ attached_pic: number() }),
      side_data_list: array(object({ rotation: number() })),
      tags: object({ rotate: string() }),
    }).required(),
  ).required(),
});

/** Transfer curves of high dynamic range (ITU-R BT.2100): perceptual quantizer and hybrid log-gamma. */
const HDR_TRANSFERS: ReadonlySet<string> = new Set(['smpte2084', 'arib-std-b67']);

/**
 * Reads what a file holds, by its bytes.
 * @throws ProblemError saying what is wrong with the file
 */
export async function probeFilm(path: string, name: string): Promise<FilmProbe> {
  const { format, streams } = await read(path, name);
  const video = streams.find((stream) => stream.codec_type === 'video' && stream.disposition?.attached_pic !== 1);
  const hasSound = streams.some((stream) => stream.codec_type === 'audio');
  if (!video && !hasSound) throw new ProblemError(422, 'empty-film', `“${name}” holds neither pictures nor sound.`);
  const durationMs = Math.round(Number(format.duration ?? 0) * 1000);
  if (!(durationMs >= LEAST_FILM_MS)) throw new ProblemError(422, 'empty-film', `“${name}” has no length: there is not a single picture or sound in it.`);
  if (durationMs > MOST_FILM_MS) throw new ProblemError(422, 'too-long', `“${name}” is ${lengthInWords(durationMs)} long; the most is ${lengthInWords(MOST_FILM_MS)}. Cut out the part that is needed and bring that in.`);
  if (!video) return { durationMs, video: null, hasSound };
  const turned = Math.abs(Number(video.side_data_list?.find(({ rotation }) => rotation !== undefined)?.rotation ?? video.tags?.rotate ?? 0)) % 180 === 90;
  const [width, height] = [video.width ?? 0, video.height ?? 0];
  if (Math.max(width, height) > MOST_FILM_SIDE_PX) throw new ProblemError(422, 'too-many-pixels', `“${name}” is ${width} × ${height}; the most is ${MOST_FILM_SIDE_PX} pixels on a side. Export it smaller and bring it in again.`);
  if (Math.min(width, height) < LEAST_SIDE_PX) throw new ProblemError(422, 'too-small', `“${name}” is only ${width} × ${height} pixels. No placement can use that.`);
  return { durationMs, video: { widthPx: turned ? height : width, heightPx: turned ? width : height, isHdr: HDR_TRANSFERS.has(video.color_transfer ?? '') }, hasSound };
}

async function read(path: string, name: string) {
  try {
    return probeSchema.validateSync(await runFfprobe(['-protocol_whitelist', 'file', '-show_format', '-show_streams', path], { mostMs: PROBE_MS }));
  } catch (error) {
    if (!(error instanceof FfmpegError)) throw error;
    throw damagedFilm(name, error);
  }
}

export function damagedFilm(name: string, error: FfmpegError): ProblemError {
  return new ProblemError(422, 'damaged-film', `“${name}” is damaged or cut off and cannot be read to its end. Get a whole copy and bring it in again.`, { reason: error.messages.slice(-300) });
}

function lengthInWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  return minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
}
