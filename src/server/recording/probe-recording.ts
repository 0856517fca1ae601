import { array, number, object, string } from 'yup';
import { ProblemError } from '../errors.ts';
import { FfmpegError, runFfprobe } from '../ffmpeg/run-ffmpeg.ts';

/** What a file of moving pictures or sound says of itself. */
export interface RecordingProbe {
  readonly durationMs: number;
  /** Its pictures, upright; null for sound alone. */
  readonly video: ClipPictures | null;
  readonly hasSound: boolean;
  /** The sound is AAC in stereo already. */
  readonly isSoundReady: boolean;
}

export interface ClipPictures {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly isHdr: boolean;
  /** They are as working copies have them already: H.264, 8 bit 4:2:0 in BT.709, upright, at `RECORDING_FPS`. */
  readonly isReady: boolean;
}

/** All working copies have this rate, whatever their sources had. */
export const RECORDING_FPS = 30;
/** Longest side of a working copy. */
export const WORK_SIDE_PX = 2_560;
/** Longest clip or sound. */
export const MAX_RECORDING_MS = 30 * 60 * 1000;
/** Longest side of a clip: what decodes in reasonable memory and time. */
export const MAX_RECORDING_SIDE_PX = 4_096;
const MIN_RECORDING_MS = 100;
const MIN_SIDE_PX = 64;
const PROBE_MS = 20_000;

const probeSchema = object({
  format: object({ duration: string() }).required(),
  streams: array(
    object({
      codec_type: string().required(),
      codec_name: string(),
      pix_fmt: string(),
      color_space: string(),
      r_frame_rate: string(),
      avg_frame_rate: string(),
      channels: number(),
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
export async function probeRecording(path: string, name: string): Promise<RecordingProbe> {
  const { format, streams } = await read(path, name);
  const video = streams.find((stream) => stream.codec_type === 'video' && stream.disposition?.attached_pic !== 1);
  const sound = streams.find((stream) => stream.codec_type === 'audio');
  const hasSound = sound !== undefined;
  const isSoundReady = sound?.codec_name === 'aac' && sound.channels === 2;
  if (!video && !hasSound) throw new ProblemError(422, 'empty-recording', `“${name}” holds neither pictures nor sound.`);
  const durationMs = Math.round(Number(format.duration ?? 0) * 1000);
  if (!(durationMs >= MIN_RECORDING_MS)) throw new ProblemError(422, 'empty-recording', `“${name}” has no length: there is not a single picture or sound in it.`);
  if (durationMs > MAX_RECORDING_MS) throw new ProblemError(422, 'too-long', `“${name}” is ${lengthInWords(durationMs)} long; the most is ${lengthInWords(MAX_RECORDING_MS)}. Cut out the part that is needed and import that.`);
  if (!video) return { durationMs, video: null, hasSound, isSoundReady };
  const rotation = Number(video.side_data_list?.find((each) => each.rotation !== undefined)?.rotation ?? video.tags?.rotate ?? 0);
  const turned = Math.abs(rotation) % 180 === 90;
  const [width, height] = [video.width ?? 0, video.height ?? 0];
  if (Math.max(width, height) > MAX_RECORDING_SIDE_PX) throw new ProblemError(422, 'too-many-pixels', `“${name}” is ${width} × ${height}; the most is ${MAX_RECORDING_SIDE_PX} pixels on a side. Export it smaller and import it again.`);
  if (Math.min(width, height) < MIN_SIDE_PX) throw new ProblemError(422, 'too-small', `“${name}” is only ${width} × ${height} pixels. No placement can use that.`);
  const rate = `${RECORDING_FPS}/1`;
  const isReady = video.codec_name === 'h264' && video.pix_fmt === 'yuv420p' && video.color_space === 'bt709' && video.r_frame_rate === rate && video.avg_frame_rate === rate && rotation === 0 && Math.max(width, height) <= WORK_SIDE_PX && width % 2 === 0 && height % 2 === 0;
  return { durationMs, video: { widthPx: turned ? height : width, heightPx: turned ? width : height, isHdr: HDR_TRANSFERS.has(video.color_transfer ?? ''), isReady }, hasSound, isSoundReady };
}

async function read(path: string, name: string) {
  try {
    return probeSchema.validateSync(await runFfprobe(['-protocol_whitelist', 'file', '-show_format', '-show_streams', path], { mostMs: PROBE_MS }));
  } catch (error) {
    if (!(error instanceof FfmpegError)) throw error;
    throw damagedRecording(name, error);
  }
}

export function damagedRecording(name: string, error: FfmpegError): ProblemError {
  return new ProblemError(422, 'damaged-recording', `“${name}” is damaged or cut off and cannot be read to its end. Get a whole copy and import it again.`, { reason: error.messages.slice(-300) });
}

function lengthInWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  return minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
}
