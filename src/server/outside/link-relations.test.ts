import { describe, expect, it } from 'vitest';
import { absolute, endpointIn } from './link-relations.ts';

const BASE = 'https://me.example/blog/';

describe('the endpoint of a relation', () => {
  it.each([
    ['a header', '<https://hub.example/a>; rel="micropub"', '', 'https://hub.example/a'],
    ['a header without quotes', '</a>; rel=micropub', '', 'https://me.example/a'],
    ['one of several relations', '</a>; rel="hub micropub"', '', 'https://me.example/a'],
    ['one of several links', '</x>; rel="next", </a>; rel="micropub"', '', 'https://me.example/a'],
    ['a link element', null, '<link rel="micropub" href="a">', 'https://me.example/blog/a'],
    ['an a element', null, '<p><a rel="me micropub" href="/a">x</a></p>', 'https://me.example/a'],
    ['the header before the page', '</header>; rel="micropub"', '<link rel="micropub" href="/page">', 'https://me.example/header'],
    ['the first of the page', null, '<link rel="micropub" href="/first"><link rel="micropub" href="/second">', 'https://me.example/first'],
    ['none', '</x>; rel="micropub-like"', '<link rel="micropubs" href="/x"><!-- <link rel="micropub" href="/x"> -->', null],
  ])('is found in %s', (_, header, html, expected) => {
    expect(endpointIn('micropub', header, html, BASE)).toBe(expected);
  });

  it('is seen from the page that names it; what is no address is none', () => {
    expect(absolute('../x', BASE)).toBe('https://me.example/x');
    expect(absolute('http://[', BASE)).toBeNull();
  });
});
