import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fontShelf } from '../../core/text/font-shelf.ts';
import { readTypeface } from './read-typeface.ts';

describe('readTypeface', () => {
  it.each(fontShelf.map(({ file }) => file))('takes %s, which is whole', async (file) => {
    expect((await readTypeface(readFileSync(`fonts/${file}`), file)).bytes.length).toBeGreaterThan(1_000);
  });
});
