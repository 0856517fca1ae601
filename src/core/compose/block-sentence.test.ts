import { expect, it } from 'vitest';
import { blockSentence, frontSentence } from './block-sentence.ts';

it('says where words stand and what they got, in one sentence', () => {
  expect(blockSentence({ picture: 'photo', place: 'bottom-left', help: { kind: 'gradient', colour: '#000000', share: 0.45 }, hiddenShare: 0 })).toBe('Words at the bottom left, the calmest place of this crop; a gradient of 45% makes them readable.');
  expect(blockSentence({ picture: 'photo', place: 'top', help: { kind: 'none' }, hiddenShare: 0 })).toBe('Words at the top, the calmest place of this crop; they need no help to be read.');
  expect(blockSentence({ picture: 'photo', place: 'right', help: { kind: 'panel', colour: '#000000' }, hiddenShare: 0 })).toContain('a panel makes them readable');
});

it('says how much of the letters a subject hides', () => {
  expect(frontSentence({ picture: 'photo', hiddenShare: 0.126 })).toBe('The subject stands before the letters and hides 13% of them; each can still be told.');
});
