import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hostileTexts } from '../../../tests/fixtures/hostile.ts';
import { MAX_CUE, MAX_CUES } from '../piece/track.ts';
import { readSubtitles, SubtitleError } from './subtitles.ts';

const good = '1\n00:00:00,500 --> 00:00:02,000\nSchon um vier\n\n2\n00:00:02,100 --> 00:00:04,900\n<i>brennt</i> hier\nLicht.\n\n3\n00:00:05,000 --> 00:00:07,250\n{\\an8}Dinkel, donnerstags\n';

describe('subtitles from outside', () => {
  it('are cues in order within their bounds, or are refused with a sentence and its line', () => {
    fc.assert(
      fc.property(hostileTexts(good), (text) => {
        try {
          const cues = readSubtitles(text);
          expect(cues.length).toBeGreaterThan(0);
          expect(cues.length).toBeLessThanOrEqual(MAX_CUES);
          cues.forEach((cue, index) => {
            expect(cue.toMs).toBeGreaterThan(cue.fromMs);
            expect(cue.fromMs).toBeGreaterThanOrEqual(cues[index - 1]?.toMs ?? 0);
            expect(cue.text.length).toBeLessThanOrEqual(MAX_CUE);
          });
        } catch (error) {
          expect(error).toBeInstanceOf(SubtitleError);
        }
      }),
      { seed: 20261128, numRuns: 400 },
    );
  });
});
