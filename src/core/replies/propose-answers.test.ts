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

describe('what a message does', () => {
  const cases: readonly (readonly [language: 'en' | 'de' | 'fr' | 'es' | 'pt', gesture: ReturnType<typeof gestureOf>, ...said: readonly string[]])[] = [
    ['en', 'asks', 'How late are you open on Saturday?', 'Is there a place left?', 'Can I bring my dog?', 'Is the second part missing on purpose, or do I not see it?'],
    ['en', 'glad', 'No complaints here, we loved it!', 'Thanks, that was great.', 'The weather was bad, and the day wonderful.', 'I have never been so happy!'],
    ['en', 'cross', 'My kite broke on the first day.', 'It arrived two weeks late', 'We are not happy with this.', 'It never arrived.', 'You sent me the wrong size', 'The spar fell apart?', 'Still waiting for an answer…', 'It doesn’t work'],
    ['en', 'says', 'I flew mine on Sunday.', 'No thanks.', 'We will be there.'],
    ['de', 'asks', 'Habt ihr am Sonntag auf?', 'Wie komme ich zu euch?'],
    ['de', 'glad', 'Danke, das Brot war toll!', 'Keine Beschwerde, alles wunderbar.'],
    ['de', 'cross', 'Die Lieferung kam zu spät.', 'Ich bin nicht begeistert.', 'Meine Bestellung ist immer noch nicht da', 'Es fehlt ein Teil.'],
    ['de', 'says', 'Ich war gestern bei euch.'],
    ['fr', 'cross', 'Ma commande n’est jamais arrivé.', 'Il manque une pièce'],
    ['fr', 'glad', 'Merci, c’était magnifique !'],
    ['es', 'cross', 'El pedido llegó tarde.', 'Nunca llegó'],
    ['es', 'asks', '¿Abren por la tarde?'],
    ['pt', 'cross', 'Não recebi a encomenda'],
    ['pt', 'glad', 'Adoro, obrigada'],
  ];

  it.each(cases.map(([language, gesture, ...said]) => ({ language, gesture, said })))('$language: $gesture', ({ language, gesture, said }) => {
    for (const each of said) expect([each, gestureOf(each, language)]).toEqual([each, gesture]);
  });

  it('decides what comes first: a fact where it was asked for, else a line', () => {
    expect(proposeAnswers(brief({ said: 'The kite came broken. Where do I send it?' }))[0]?.text).toMatch(/sorry/i);
    expect(proposeAnswers(brief({ said: 'I saw one on Sunday.' }))[0]?.used).toBe('a line of the desk’s');
    const german = { language: 'de' as const, facts: [{ key: 'hours', name: 'Öffnungszeiten', text: 'Di–Sa 7–13 Uhr' }] };
    expect(proposeAnswers(brief({ ...german, said: 'Habt ihr jetzt auf?' }))[0]?.text).toBe('Öffnungszeiten: Di–Sa 7–13 Uhr.');
    expect(proposeAnswers(brief({ ...german, said: 'Freut ihr euch auf den Sommer?' })).map(({ used }) => used)).not.toContain('the fact Öffnungszeiten');
  });
});
