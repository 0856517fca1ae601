import { describe, expect, it } from 'vitest';
import { readAudience, writeAudience } from './audience.ts';
import { readPoll, writePoll } from './poll.ts';
import { sentencesOf } from './sentences.ts';
import { brokenTags, capitalsFor, tagInText, tagProblem, wordsOfTag } from './tag-text.ts';
import { diffWords } from './word-diff.ts';

describe('polls and audiences as texts', () => {
  it('come back as they were', () => {
    const poll = { question: 'Which kite first?', options: ['The sled', 'The delta'], days: 1 };
    expect(writePoll(poll)).toBe('Which kite first?\n- The sled\n- The delta\n1 day');
    expect(readPoll(writePoll(poll))).toEqual(poll);
    expect(readPoll('Which?\nSled\n– Delta')).toEqual({ question: 'Which?', options: ['Sled', 'Delta'], days: 3 });
    expect(readPoll(' \n')).toBeNull();
    const audience = { countries: ['GB', 'IE'], fromAge: 18, languages: ['en'] };
    expect(writeAudience(audience)).toBe('countries: GB, IE; age: 18+; languages: en');
    expect(readAudience(writeAudience(audience))).toEqual(audience);
    expect(readAudience('')).toEqual({ countries: [], fromAge: null, languages: [] });
    expect(readAudience('countries: Great Britain')).toBeNull();
  });
});

describe('sentencesOf', () => {
  it.each([
    ['Dr. Finch comes at 2 p.m. on Saturday. Bring string!', 'en', ['Dr. Finch comes at 2 p.m. on Saturday.', 'Bring string!']],
    ['See gullwick.example. It is No. 7.', 'en', ['See gullwick.example.', 'It is No. 7.']],
    ['Am 5. Dezember ab 18 Uhr, z. B. am Kai. Kommt!', 'de', ['Am 5. Dezember ab 18 Uhr, z. B. am Kai.', 'Kommt!']],
    ['“Let it run.” She did. Really?', 'en', ['“Let it run.”', 'She did.', 'Really?']],
    ['One line\n\nAnother line. And more', 'en', ['One line', 'Another line.', 'And more']],
    ['£24.50 is fair. Come!', 'en', ['£24.50 is fair.', 'Come!']],
    ['', 'en', []],
  ] as const)('parts %j', (text, language, sentences) => {
    const found = sentencesOf(text, language);
    expect(found.map((each) => each.text)).toEqual(sentences);
    for (const { text: part, start } of found) expect(text.slice(start, start + part.length)).toBe(part);
  });

  it('takes a million characters without end in time that grows with them', () => {
    const found = sentencesOf('kite wind '.repeat(100_000));
    expect(found).toHaveLength(1);
  });
});

describe('hashtags as texts', () => {
  it.each([
    ['#Kite', null],
    ['#2026', 'digits-only'],
    ['#_', 'digits-only'],
    ['#', 'empty'],
    ['#a b', 'spaces'],
    ['#a-b', 'punctuation'],
    ['#凧', null],
    [`#${'x'.repeat(101)}`, 'too-long'],
  ])('%s: %s', (tag, problem) => {
    expect(tagProblem(tag)).toBe(problem);
  });

  it('finds those that break, and not those at the end of a sentence', () => {
    expect(brokenTags('#build-a-kite, #Kite. (#Wind) #Marlow’s https://a.example/#top a&#39;s')).toEqual([{ written: '#build-a-kite', problem: 'punctuation', mended: '#BuildAKite' }]);
  });

  it('proposes capitals from words that stand somewhere, and knows the words of a tag', () => {
    expect(capitalsFor('#buildakite', ['Come and build a kite'])).toBe('#BuildAKite');
    expect(capitalsFor('#BuildAKite', ['build a kite'])).toBeNull();
    expect(capitalsFor('#buildakite', ['nothing of it'])).toBeNull();
    expect(wordsOfTag('#BuildAKite2026')).toEqual(['Build', 'A', 'Kite', '2026']);
    expect(wordsOfTag('#HTMLDay')).toEqual(['HTML', 'Day']);
  });
});

describe('tagInText', () => {
  it.each([
    ['Come and build a kite with us', '#BuildAKite', 'Come and #BuildAKite with us'],
    ['Build-a-kite day', '#BuildAKite', '#BuildAKite day'],
    ['A kite, a kite', '#Kite', 'A #Kite, a kite'],
    ['#kite only', '#Kite', null],
    ['{kite} and kites', '#Kite', null],
    ['build. A kite', '#BuildAKite', null],
  ])('%s with %s', (text, tag, result) => {
    expect(tagInText(text, tag)).toBe(result);
  });
});

describe('diffWords', () => {
  it('says what was added and removed, word by word', () => {
    expect(diffWords('Come on Saturday at 2', 'Come on Sunday at 2')).toEqual([
      { text: 'Come on ', kind: 'same' },
      { text: 'Saturday', kind: 'removed' },
      { text: 'Sunday', kind: 'added' },
      { text: ' at 2', kind: 'same' },
    ]);
    expect(diffWords('same', 'same')).toEqual([{ text: 'same', kind: 'same' }]);
    expect(diffWords('x '.repeat(5_000), 'y')).toEqual([{ text: 'y', kind: 'added' }]);
  });
});
