import { describe, expect, it } from 'vitest';
import { inOtherWays, THINGS, waysIn, type Way } from './ways.ts';

const buy: readonly Way[] = [{ from: 'purchase', to: 'buy', behind: 'to|we|^' }];
const change = (text: string, ways: readonly Way[]): string => inOtherWays(text, ways, []);

describe('other ways', () => {
  it('stand where a word stands alone, in its case', () => {
    const ways: readonly Way[] = [{ from: 'upon', to: 'on' }];
    expect(change('Upon the hill. Once UPON. Thereupon, up-on, upon-the-hill.', ways)).toBe('On the hill. Once On. Thereupon, up-on, upon-the-hill.');
  });

  it('ask what stands before: a word, or the start of a sentence', () => {
    expect(change('We purchase it to purchase more. Your purchase is here.', buy)).toBe('We buy it to buy more. Your purchase is here.');
    expect(change('Purchase now. Purchase later!\nPurchase: done', buy)).toBe('Buy now. Buy later!\nBuy: done');
    expect(change('Many thanks. Thanks all.', [{ from: 'thanks', to: 'thank you', notBehind: 'many' }])).toBe('Many thanks. Thank you all.');
  });

  it('ask what follows', () => {
    const lots: readonly Way[] = [{ from: 'lots of', to: 'many', before: THINGS }, { from: 'lots of', to: 'plenty of' }];
    expect(change('Lots of kites, lots of string, lots of these.', lots)).toBe('Many kites, plenty of string, plenty of these.');
    expect(change('Good enough. Good news.', [{ from: 'good', to: 'lovely', notBefore: 'enough' }])).toBe('Good enough. Lovely news.');
  });

  it('take either apostrophe for the other', () => {
    expect(change("It isn't here, it isn’t there.", [{ from: 'isn’t', to: 'is not' }])).toBe('It is not here, it is not there.');
  });

  it('of two that overlap the first of the list counts', () => {
    const ways: readonly Way[] = [{ from: 'in order to', to: 'to' }, { from: 'order', to: 'ask for' }];
    expect(waysIn('in order to order', ways)).toEqual([{ start: 0, end: 11, put: 'to' }, { start: 12, end: 17, put: 'ask for' }]);
  });

  it('take the space along where a word goes', () => {
    expect(change('It is very  late.', [{ from: 'very', to: '' }])).toBe('It is late.');
  });

  it('bring the article that the new word takes', () => {
    const ways: readonly Way[] = [{ from: 'nice', to: 'unique' }, { from: 'odd', to: 'strange' }, { from: 'long', to: 'hour-long' }, { from: 'fresh', to: 'early' }];
    expect(change('A fresh start, an odd day.', ways)).toBe('An early start, a strange day.');
    expect(change('Plan a nice day.', ways)).toBe('Plan a unique day.');
  });

  it('leave alone what is kept', () => {
    const text = 'We purchase; they say “to purchase”.';
    const start = text.indexOf('“');
    expect(inOtherWays(text, buy, [{ start, end: text.length }])).toBe('We buy; they say “to purchase”.');
  });
});
