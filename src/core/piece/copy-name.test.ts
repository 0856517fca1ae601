import { describe, expect, it } from 'vitest';
import { copyName } from './copy-name.ts';

describe('names of copies', () => {
  it('count on', () => {
    expect([copyName('Big Blow'), copyName('Big Blow copy'), copyName('Big Blow copy 2')]).toEqual(['Big Blow copy', 'Big Blow copy 2', 'Big Blow copy 3']);
    expect([copyName('Big Blow', 'version'), copyName('Big Blow version 2', 'version')]).toEqual(['Big Blow version 2', 'Big Blow version 3']);
  });

  it('stay within the length of a title', () => {
    expect(copyName('x'.repeat(120))).toHaveLength(120);
  });
});
