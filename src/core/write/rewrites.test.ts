import { describe, expect, it } from 'vitest';
import { missingHeld } from './held.ts';
import { packOf, type LanguagePack } from './language-pack.ts';
import { brighter, calmer, moreFormal, plainly } from './rewrites.ts';

const pack = (language: 'en' | 'de' | 'fr' | 'es' | 'pt'): LanguagePack => packOf(language) as LanguagePack;
const english = pack('en');

/** A text and what becomes of it; where it stays as it is, the text alone. */
type Case = readonly [text: string, becomes?: string];
const expectEach = (cases: readonly Case[], change: (text: string) => string): void => expect(cases.map(([text]) => change(text))).toEqual(cases.map(([text, becomes]) => becomes ?? text));

describe('plainer words', () => {
  it('take the place of long ones, with the article that they need', () => {
    expectEach(
      [
        ['In order to purchase a ticket you require a card.', 'To buy a ticket you need a card.'],
        ['We utilise two additional benches prior to noon.', 'We use two more benches before noon.'],
        ['The majority of our kites fly, and the majority of kites last.', 'Most of our kites fly, and most kites last.'],
        ['We are in the process of building a loft.', 'We are building a loft.'],
        ['Moreover, we would like to thank all of the helpers.', 'Also, we want to thank all the helpers.'],
        ['You may attend the class; it is sufficient.', 'You may come to the class. It is enough.'],
        ['The shop is closed due to the fact that it rains.', 'The shop is closed because it rains.'],
        ['Bring a wide range of colours.', 'Bring many colours.'],
      ],
      (text) => plainly(text, english),
    );
  });

  it('stay away where the short one would say something else, or stand in a wrong sentence', () => {
    expectEach(
      [
        ['Keep the proof of your purchase.'],
        ['It flies as well as a delta.'],
        ['We attend to every kite, and nobody else can attend.'],
        ['The loft is therefore warm.'],
        ['That is a concerning trend.'],
        ['Once upon a time there was an additional bench.'],
        ['You will have the opportunity to fly it.'],
        ['Everybody who would like to come may come.'],
        ['We did it because of the fact that you asked.'],
        ['A sufficient number of people came.'],
        ['Errors in the process of making are ours.'],
      ],
      (text) => plainly(text, english),
    );
  });

  it('keep the grammar of other languages', () => {
    expectEach([['Eine große Anzahl von Kindern kommt.'], ['Zum Zwecke der Reinigung bleibt es zu.'], ['Aufgrund der Tatsache, dass es regnet, bleibt es zu.', 'Weil es regnet, bleibt es zu.']], (text) => plainly(text, pack('de')));
    expectEach([['Un gran número de casas.'], ['Con el fin de ayudar.', 'Para ayudar.']], (text) => plainly(text, pack('es')));
    expectEach([['Um grande número de casas.'], ['A fim de ajudar.', 'Para ajudar.']], (text) => plainly(text, pack('pt')));
    expectEach([['Un grand nombre de gens viennent.', 'Beaucoup de gens viennent.']], (text) => plainly(text, pack('fr')));
  });
});

describe('more formal words', () => {
  it('are the full forms and the words of letters', () => {
    expectEach(
      [
        ['It’s been a long day, and it’s late.', 'It has been a long day, and it is late.'],
        ['We’re here! Kids can’t pay.', 'We are here. Children cannot pay.'],
        ['Thanks for coming. Bring lots of friends and lots of string.', 'Thank you for coming. Bring many friends and plenty of string.'],
        ['Hi all, it is super easy, okay?', 'Good day all, it is very easy, all right?'],
        ['That’s become a habit; there’s been rain.', 'That has become a habit; there has been rain.'],
      ],
      (text) => moreFormal(text, english),
    );
  });

  it('ask in full forms with the person between', () => {
    expectEach(
      [
        ['Don’t you love it?', 'Do you not love it?'],
        ['It flies, doesn’t it?', 'It flies, does it not?'],
        ['Can’t they wait? Won’t I see you there?', 'Can they not wait? Will I not see you there?'],
        ['Isn’t there a kite left? We don’t know.', 'Is there not a kite left? We do not know.'],
        ['I know you don’t. You can’t, can you?', 'I know you do not. You cannot, can you?'],
      ],
      (text) => moreFormal(text, english),
    );
  });

  it('stay away from offers, dares, thanks to things, and words that mean something else', () => {
    expectEach(
      [
        ['Why don’t you come?'],
        ['Don’t you dare.'],
        ['Don’t you worry about the rain.'],
        ['Thanks to the wind it flew.'],
        ['Many thanks.'],
        ['A bunch of flowers and super glue.'],
        ['Stuff the pillow with wool.'],
        ['Pop in and say hello.'],
      ],
      (text) => moreFormal(text, english),
    );
  });
});

describe('brighter words', () => {
  it('are livelier, and end with one exclamation mark', () => {
    expectEach(
      [
        ['Good news. It is an interesting day.', 'Lovely news. It is a gripping day!'],
        ['You can build a kite here.', 'Come and build a kite here!'],
        ['We had a good day.', 'We had a lovely day!'],
        ['A nice old boat.', 'A delightful old boat!'],
      ],
      (text) => brighter(text, english),
    );
  });

  it('change no size, no measure and no condition', () => {
    expectEach(
      [
        ['How big is it? A big kite needs a good 40 metres!'],
        ['If you can fly it, it is yours!'],
        ['It is not good enough, but as good as new!'],
        ['A good many came, for good!'],
        ['Good morning!'],
      ],
      (text) => brighter(text, english),
    );
  });
});

describe('calmer words', () => {
  it('leave out what only loudens', () => {
    expectEach([['It’s really very windy!!! 🎉', 'It’s windy.'], ['COME AND SEE IT now!', 'Come and see it now.']], (text) => calmer(text, english));
    expectEach([['Das ist wirklich sehr schön!', 'Das ist schön.']], (text) => calmer(text, pack('de')));
  });

  it('keep such a word where it says something of its own', () => {
    expectEach([['We would rather wait than sail.'], ['Bring wool rather than nylon.'], ['We pretty much live here.'], ['There are just two benches left.'], ['It is not really ready.'], ['You are just in time.']], (text) => calmer(text, english));
    expectEach([['Die Maschine ist einfach zu bedienen.'], ['Natürlich gereifter Käse.'], ['So könnt ihr es richtig machen.']], (text) => calmer(text, pack('de')));
    expectEach([['Il y a assez de place.'], ['Du lin plutôt que du nylon.']], (text) => calmer(text, pack('fr')));
    expectEach([['Há muito tempo.']], (text) => calmer(text, pack('pt')));
  });
});

describe('any rewriting', () => {
  it('keeps numbers, names, dates, links and denials', () => {
    const text = 'Hi, it’s been really good: Tove Lindqvist doesn’t need more than 12 benches on Saturday, 5 May, at 18:30! The talk at £4.50 is cancelled. You can find it at quay.example/talks, thanks.';
    for (const change of [brighter, calmer, moreFormal, plainly]) expect(missingHeld(text, change(text, english), english).filter(({ kind }) => kind !== 'negation'), change.name).toEqual([]);
  });
});
