import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fontShelf } from '../../core/text/font-shelf.ts';
import { readTypeface } from './read-typeface.ts';

describe('readTypeface', () => {
  it.each(fontShelf.map(({ file }) => file))('takes %s, which is whole', async (file) => {
    expect((await readTypeface(readFileSync(`fonts/${file}`), file)).bytes.length).toBeGreaterThan(1_000);
  });

  it('refuses an outline that claims more points than a letter has, before it reads them', async () => {
    const bytes = Buffer.from(readFileSync('fonts/lora/lora-700.ttf'));
    // The head of the glyph behind `A`: it had a few contours, and has thousands, with an end far beyond it.
    bytes.fill(30, 65_175, 65_233);
    await expect(readTypeface(bytes, 'lora.ttf')).rejects.toThrow('is damaged');
  });
});
