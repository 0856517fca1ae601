/** What was measured on a video after it was made. */
export interface VideoMeasures {
  /** Loudness of the whole in LUFS (EBU R 128); null for silence. */
  readonly loudnessLufs: number | null;
  /** True peak in dBTP; null for silence. */
  readonly truePeakDb: number | null;
  /** The most flashes in any second. */
  readonly flashesASecond: number;
}

/** Where the loudness of networks lies, and how far from it is heard. */
export const LOUDNESS_LUFS = { aim: -14, tolerance: 1.5 } as const;
export const MAX_TRUE_PEAK_DB = -1;
