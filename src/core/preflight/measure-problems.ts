import { LOUDNESS_LUFS, MOST_TRUE_PEAK_DB, type FilmMeasures } from '../video/film-measures.ts';
import { MOST_FLASHES_A_SECOND } from '../video/flashes.ts';

/** What is wrong with a film by what was measured on it, in sentences. */
export function measureProblems({ loudnessLufs, truePeakDb, flashesASecond }: FilmMeasures): readonly string[] {
  const { aim, tolerance } = LOUDNESS_LUFS;
  return [
    ...(flashesASecond > MOST_FLASHES_A_SECOND ? [`It flashes ${flashesASecond} times in a second; more than ${MOST_FLASHES_A_SECOND} can bring on seizures.`] : []),
    ...(loudnessLufs !== null && Math.abs(loudnessLufs - aim) > tolerance ? [`Its sound is ${loudnessLufs.toFixed(1)} LUFS; networks play at about ${aim}.`] : []),
    ...(truePeakDb !== null && truePeakDb > MOST_TRUE_PEAK_DB ? [`Its loudest peak is ${truePeakDb.toFixed(1)} dBTP and will crackle; the most is ${MOST_TRUE_PEAK_DB}.`] : []),
  ];
}
