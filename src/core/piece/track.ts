import { array, boolean, number, object, string } from 'yup';

/** A line of subtitles: what is said from one moment of the video to another, in milliseconds. */
export interface Cue {
  readonly fromMs: number;
  readonly toMs: number;
  readonly text: string;
}

/** What sounds and is said through all shots of a video. */
export interface Track {
  /** A sound of the media that plays under everything, from its start again when it ends. */
  readonly music?: string | undefined;
  /** 0 is silent, 1 as loud as it is. */
  readonly musicVolume?: number | undefined;
  /** A sound of the media in which somebody speaks; music gives way to it. */
  readonly voice?: string | undefined;
  readonly subtitles?: readonly Cue[] | undefined;
  /** Where a place takes them as a file they go along as one; elsewhere they are laid over the pictures. */
  readonly subtitleFile?: true | undefined;
}

export const MAX_CUES = 500;
export const MAX_CUE = 300;
const LATEST_MS = 24 * 3_600_000;

const mediaId = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id');
const moment = () => number().integer().min(0).max(LATEST_MS).required();

export const trackSchema = object({
  music: mediaId(),
  musicVolume: number().min(0).max(1),
  voice: mediaId(),
  subtitleFile: boolean().oneOf([true]),
  subtitles: array(
    object({ fromMs: moment(), toMs: moment(), text: string().max(MAX_CUE).defined() })
      .noUnknown()
      .test('order', 'A subtitle ends after it begins', (cue) => cue.toMs > cue.fromMs)
      .required(),
  ).max(MAX_CUES),
}).noUnknown();
