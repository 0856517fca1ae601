import { describe, expect, it } from 'vitest';
import { writeThread } from '../words/thread.ts';
import { howFarOut, sequenceOf } from './follow-ups.ts';

const thread = (pictureEach: boolean, ...parts: string[]): string => writeThread({ parts, pictureEach });

describe('sequenceOf', () => {
  it('leaves a post alone that nothing follows', () => {
    expect(sequenceOf({ caption: 'Hello', title: 'T' }, 3)).toEqual({ words: { caption: 'Hello', title: 'T' }, pictures: 3, followUps: [] });
    expect(sequenceOf({ caption: 'Hello', firstComment: ' ' }, 1).followUps).toEqual([]);
    expect(sequenceOf({}, 1)).toEqual({ words: {}, pictures: 1, followUps: [] });
  });

  it('puts the first part out with all pictures, then the others, then the comment', () => {
    expect(sequenceOf({ caption: 'One. Two. Three.', thread: thread(false, 'One. 1/3', 'Two. 2/3', 'Three. 3/3'), firstComment: 'Ask us' }, 4)).toEqual({
      words: { caption: 'One. 1/3' },
      pictures: 4,
      followUps: [
        { kind: 'part', text: 'Two. 2/3', pictures: [0, 0] },
        { kind: 'part', text: 'Three. 3/3', pictures: [0, 0] },
        { kind: 'comment', text: 'Ask us', pictures: [0, 0] },
      ],
    });
  });

  it.each([
    [1, 1, [[1, 1], [1, 1]]],
    [2, 1, [[1, 2], [2, 2]]],
    [3, 1, [[1, 2], [2, 3]]],
    [6, 1, [[1, 2], [2, 6]]],
  ])('gives each part a picture of its own out of %i, and the last those that are left', (pictures, first, spans) => {
    const sequence = sequenceOf({ caption: 'x', thread: thread(true, 'a', 'b', 'c') }, pictures);
    expect([sequence.pictures, sequence.followUps.map((each) => each.pictures)]).toEqual([first, spans]);
  });
});

describe('howFarOut', () => {
  const { followUps } = sequenceOf({ caption: 'x', thread: thread(false, 'a', 'b', 'c'), firstComment: 'd' }, 1);
  it.each([
    [0, 'It is out up to part 1 of 3.'],
    [1, 'It is out up to part 2 of 3.'],
    [2, 'It is out; its first comment is not.'],
    [3, ''],
  ])('after %i follow-ups', (done, sentence) => {
    expect(howFarOut(followUps, done)).toBe(sentence);
  });
});
