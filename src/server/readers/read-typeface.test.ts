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
    const record = Array.from({ length: bytes.readUInt16BE(4) }, (_, index) => 12 + index * 16).find((at) => bytes.toString('latin1', at, at + 4) === 'glyf') ?? 0;
    const firstGlyph = bytes.readUInt32BE(record + 8);
    bytes.writeUInt16BE(65_535, firstGlyph + 10 + (bytes.readInt16BE(firstGlyph) - 1) * 2);
    await expect(readTypeface(bytes, 'lora.ttf')).rejects.toThrow('is damaged');
  });
});
