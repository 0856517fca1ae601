import { describe, expect, it } from 'vitest';
import { gestureOf, proposeAnswers, type AnswerBrief } from './propose-answers.ts';

const brief = (given: Partial<AnswerBrief>): AnswerBrief => ({
  language: 'en',
  said: '',
  tone: 'bright',
  facts: [{ key: 'hours-sat', name: 'Hours Saturday', text: '9 to 6' }, { key: 'hours-sun', name: 'Hours Sunday', text: '11 to 4' }, { key: 'hours-mon', name: 'Hours Monday', text: 'closed' }, { key: 'workshop', name: 'Workshop', text: 'The Old Net Loft' }],
  known: [{ name: 'Ages', text: 'Children from eight build a kite of their own; younger ones with a grown-up.' }],
  post: '',
  turn: 0,
  ...given,
});

describe('short answers from what the brand knows', () => {
  it('tell the fact that was asked for', () => {
    expect(proposeAnswers(brief({ said: 'Are you open on Sunday?' }))[0]).toEqual({ text: 'Hours Sunday: 11 to 4.', used: 'the fact Hours Sunday' });
    expect(proposeAnswers(brief({ said: 'Where is it?' }))[0]?.text).toBe('Workshop: The Old Net Loft.');
  });

  it('take a saved answer that speaks of the same', () => {
    expect(proposeAnswers(brief({ said: 'Can my children of eight build a kite too?' })).map(({ used }) => used)).toContain('“Ages”');
  });

  it('thank for praise in the brand’s manner, and claim nothing', () => {
    const answers = proposeAnswers(brief({ said: 'I love this!' }));
    expect(answers[0]?.text).toBe('You have just made our day!');
    expect(proposeAnswers(brief({ said: 'I love this!', tone: 'formal, calm' }))[0]?.text).toBe('Thank you for your kind words.');
  });

  it('answer trouble with an apology, never with a fact', () => {
    expect(gestureOf('The kite came broken. Where do I send it?', 'en')).toBe('cross');
    expect(proposeAnswers(brief({ said: 'It came damaged, I am angry' }))[0]?.text).toMatch(/sorry/i);
  });

  it('say nothing in a language that the desk does not know', () => {
    expect(proposeAnswers(brief({ language: 'it', said: 'Grazie!' }))).toEqual([]);
  });

  it('speak German', () => {
    expect(proposeAnswers(brief({ language: 'de', said: 'Wann haben Sie geöffnet, auch Sonntag?', facts: [{ key: 'hours', name: 'Öffnungszeiten', text: 'Di–Sa 7–13 Uhr' }] }))[0]?.text).toBe('Öffnungszeiten: Di–Sa 7–13 Uhr.');
  });
});
