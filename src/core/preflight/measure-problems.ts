import { LOUDNESS_LUFS, MAX_TRUE_PEAK_DB, type VideoMeasures } from '../video/video-measures.ts';
import { MAX_FLASHES_A_SECOND } from '../video/flashes.ts';

/** What is wrong with a video by what was measured on it, in sentences. */
export function measureProblems({ loudnessLufs, truePeakDb, flashesASecond }: VideoMeasures): readonly string[] {
  const { aim, tolerance } = LOUDNESS_LUFS;
  return [
    ...(flashesASecond > MAX_FLASHES_A_SECOND ? [`It flashes ${flashesASecond} times in a second; more than ${MAX_FLASHES_A_SECOND} can bring on seizures.`] : []),
    ...(loudnessLufs !== null && Math.abs(loudnessLufs - aim) > tolerance ? [`Its sound is ${loudnessLufs.toFixed(1)} LUFS; networks play at about ${aim}.`] : []),
    ...(truePeakDb !== null && truePeakDb > MAX_TRUE_PEAK_DB ? [`Its loudest peak is ${truePeakDb.toFixed(1)} dBTP and will crackle; the most is ${MAX_TRUE_PEAK_DB}.`] : []),
  ];
}
