import { afterAll, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { ALONE } from '../../src/core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { TooHeavyError } from '../../src/server/render/errors.ts';
import { RenderPool } from '../../src/server/render/render-pool.ts';
import type { CutSource } from '../../src/server/render/render-cut.ts';

const pool = new RenderPool('dist', 1);
afterAll(() => pool.close());

const placement = shippedSheets.flatMap(({ placements }) => placements).find(({ key }) => key === 'feed-square');
if (!placement) throw new Error('There is no such placement');
const source: CutSource = {
  slides: [{ template: getShippedTemplate('aside'), frame: { id: 'f', slots: { headline: { kind: 'text', text: 'Wind is free' } } }, adjustment: linkedCut, place: ALONE, family: 'cover' }],
  book: gullwickBook,
  placement,
  pictures: [],
  typefaceFiles: {},
};

describe('the render pool', () => {
  it('says that a cut is too heavy for its network, across the threads', async () => {
    await expect(pool.pictures({ kind: 'full', source, maxBytes: 1_000, metadata: [] })).rejects.toSatisfy((error) => error instanceof TooHeavyError && error.maxBytes === 1_000);
  });

  it('paints what is not', async () => {
    expect(await pool.picture({ kind: 'full', source, maxBytes: Infinity, metadata: [] })).toMatchObject({ mime: 'image/png', widthPx: 1080, heightPx: 1080 });
  });
});
