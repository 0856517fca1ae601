import { describe, expect, it } from 'vitest';
import type { Language } from './language.ts';
import { sentencesOf } from './sentences.ts';

describe('the sentences of a text', () => {
  const cases: readonly (readonly [language: Language, ...sentences: readonly string[]])[] = [
    ['en', 'Dr. Amara speaks at 7 p.m. on Thurs. 9 Oct. at the quay.', 'It costs £4.50 incl. tea.', 'Mr. Tolland et al. come, too.', 'See quay.example/p.7 or p. 7.', 'No. 7 is closed.'],
    ['en', '“Come in!” she said.', 'We did.', '(It was warm.)', 'What a day...!', 'Wait… what?', 'Yes.'],
    ['en', 'U.S. kites fly.', 'We sat.', 'He is J. Tolland of 14 Oct. fame.', 'Is it 3.5 m?', 'It is.'],
    ['de', 'Am 3. November um 9 Uhr öffnet Nr. 7.', 'Das kostet ca. 5 Euro, z. B. montags.', 'Prof. Dr. Lind kommt u. a. auch.', 'Siehe S. 7 und vgl. den Plan.', '„Kommt herein!“ rief sie.'],
    ['fr', 'M. Durand vient le 3 nov. à 18 h 30.', 'Il coûte env. 5 €.', 'Cf. p. 7.', '« Entrez ! » dit-elle.'],
    ['es', 'El Sr. Gómez llega a las 5.', 'Cuesta aprox. 5 €.', 'Véase pág. 7.', '¿Vienes?', '¡Sí!'],
    ['pt', 'O Sr. Lima chega às 5.', 'Custa aprox. 5 €.', 'Vem?', 'Venha!'],
  ];

  it.each(cases.map(([language, ...sentences]) => ({ language, sentences })))('are told in $language', ({ language, sentences }) => {
    expect(sentencesOf(sentences.join(' '), language).map(({ text }) => text)).toEqual(sentences);
  });

  it('stand where they stand in the text, and each line has its own', () => {
    const text = '  One.  Two!\n\n– Three\n“Four?” Five';
    const found = sentencesOf(text);
    expect(found.map(({ text: sentence }) => sentence)).toEqual(['One.', 'Two!', '– Three', '“Four?”', 'Five']);
    for (const { text: sentence, start } of found) expect(text.slice(start, start + sentence.length)).toBe(sentence);
  });

  it('are the same however long the line is that they stand in', () => {
    const sentence = 'The wind turned on 9 Oct. at noon, and Dr. Lind saw it.';
    const found = sentencesOf(Array.from({ length: 300 }, () => sentence).join(' '));
    expect(found.length).toBe(300);
    expect(new Set(found.map(({ text }) => text))).toEqual(new Set([sentence]));
  });
});
