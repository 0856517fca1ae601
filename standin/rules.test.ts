import { describe, expect, it } from 'vitest';
import { networks, refusalOf } from './rules.ts';

const petalry = networks.find((rules) => rules.key === 'petalry');
const quipline = networks.find((rules) => rules.key === 'quipline');
const tackboard = networks.find((rules) => rules.key === 'tackboard');
const post = { placement: 'feed-square', text: 'Hello', altText: '', title: '', link: '', firstComment: '' };
const square = { widthPx: 1080, heightPx: 1080 };

describe('refusalOf', () => {
  it('takes a post that keeps the rules', () => {
    expect(petalry && refusalOf(petalry, post, square)).toBeNull();
  });

  it.each([
    ['a wrong shape', post, { widthPx: 1080, heightPx: 1350 }, /1080 × 1350/],
    ['too small a picture', post, { widthPx: 500, heightPx: 500 }, /500 pixels wide/],
    ['too long a text', { ...post, text: 'x'.repeat(2_201) }, square, /2201 characters/],
    ['too many hashtags', { ...post, text: '#a1 '.repeat(31) }, square, /31 hashtags/],
    ['an unknown place', { ...post, placement: 'billboard' }, square, /billboard/],
  ])('refuses %s with a reason', (_, given, media, reason) => {
    expect(petalry && refusalOf(petalry, given, media)).toMatch(reason);
  });

  it('asks for the fields it cannot do without', () => {
    const card = { ...post, placement: 'card', title: 'A kite', link: 'https://kites.example' };
    const tall = { widthPx: 1000, heightPx: 1500 };
    expect(tackboard && refusalOf(tackboard, card, tall)).toBeNull();
    expect(tackboard && refusalOf(tackboard, { ...card, title: '' }, tall)).toMatch(/needs a title/);
    expect(tackboard && refusalOf(tackboard, { ...card, link: 'kites' }, tall)).toMatch(/no web address/);
    expect(petalry && refusalOf(petalry, { ...post, firstComment: 'x'.repeat(2_201) }, square)).toMatch(/firstComment is longer/);
  });

  it('counts as its network counts', () => {
    expect(quipline?.countText('🪁 https://a.example/long/path')).toBe(2 + 1 + 23);
  });
});
