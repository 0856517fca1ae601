import { describe, expect, it } from 'vitest';
import { blanksOf, fillBlanks, fillSnippets } from './snippets.ts';

describe('snippets', () => {
  const snippets = [{ key: 'ring', name: 'Ring', text: 'Ring {phone}.' }];
  it('take the place of their key, and leave what is none to the facts', () => {
    expect(fillSnippets('Free. {ring} {site}', snippets)).toBe('Free. Ring {phone}. {site}');
    expect(fillSnippets('{ring}', [])).toBe('{ring}');
  });

  it('ask for what stands in brackets, each once', () => {
    expect(blanksOf('Wind [force] from [direction], [force] again')).toEqual(['force', 'direction']);
    expect(fillBlanks('Wind [force] from [direction]', { force: '5' })).toBe('Wind 5 from [direction]');
  });
});
