import { array, boolean, number, object, string } from 'yup';
import type { Checked } from '../document/schema.ts';

export const MAX_CUES = 500;
export const MAX_CUE = 300;
const LATEST_MS = 24 * 3_600_000;

const mediaId = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id');
const moment = () => number().integer().min(0).max(LATEST_MS).required();

/** A line of subtitles: its text, from one moment of the video to another, in milliseconds. */
const cueSchema = object({ fromMs: moment(), toMs: moment(), text: string().max(MAX_CUE).defined() })
  .noUnknown()
  .test('order', 'A subtitle ends after it begins', (cue) => cue.toMs > cue.fromMs)
  .required();

/** Music, voice and subtitles, which run through all shots of a video. */
export const trackSchema = object({
  /** A sound of the media that plays under everything, from its start again when it ends. */
  music: mediaId(),
  /** 0 is silent, 1 as loud as it is. */
  musicVolume: number().min(0).max(1),
  /** A sound with speech; the music is lowered under it. */
  voice: mediaId(),
  /** Where a place takes them as a file they go along as one; elsewhere they are laid over the pictures. */
  subtitleFile: boolean<true>().oneOf([true]),
  subtitles: array(cueSchema).max(MAX_CUES),
}).noUnknown();

export type Cue = Checked<typeof cueSchema>;
export type Track = Checked<typeof trackSchema>;
