import { readFileSync } from 'node:fs';
import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { networkSheetSchema } from '../../src/core/network/network-sheet.ts';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { ALONE } from '../../src/core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { readPictureFacts } from '../../src/server/media/picture-facts-of-file.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { runRenderJob, type CutSource } from '../../src/server/render/render-cut.ts';
import { median, timed } from './figure.ts';

const ROUNDS = 9;
const [WIDTH, HEIGHT] = [1080, 1350];

/**
 * A whole cut of 1080 x 1350 from a photo of 2400 x 1600, against decoding, scaling to cover and encoding the same photo
 * alone with the same encoder settings. Rounds of both alternate, each with a file of its own, so that nothing is decoded already.
 */
export async function serverCutRatio(): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-bench-'));
  try {
    const filePath = join(folder, 'photo.jpg');
    await sharp(readFileSync('demo/media/red-diamond-dunes.jpg')).resize(2400, 1600).jpeg({ quality: 92 }).toFile(filePath);
    const facts = await readPictureFacts(filePath);
    const placement = networkSheetSchema.validateSync(petalry).placements.find((each) => each.key === 'feed-portrait');
    if (!placement) throw new Error('The sheet has no portrait placement');
    const sourceOf = (path: string): CutSource => ({
      slides: [{ template: getShippedTemplate('headland'), adjustment: linkedCut, place: ALONE, family: 'cover', frame: { id: 'f', slots: { photo: { kind: 'picture', mediaId: 'p' }, label: { kind: 'text', text: 'Saturday on the quay' }, headline: { kind: 'text', text: 'Build your own kite in an afternoon' }, line: { kind: 'text', text: 'The Old Net Loft, from 2 pm.' } } } }],
      book: gullwickBook,
      placement,
      typefaceFiles: {},
      pictures: [{ filePath: path, picture: { id: 'p', widthPx: 2400, heightPx: 1600, facts, focal: facts.focal, focalBy: 'proposal' } }],
    });
    const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
    const cut = (path: string) => runRenderJob({ kind: 'full', source: sourceOf(path), maxBytes: Infinity, metadata: [] }, engines);
    const floor = () => sharp(filePath).resize(WIDTH, HEIGHT, { fit: 'cover', kernel: 'lanczos3' }).removeAlpha().png({ compressionLevel: 6 }).toBuffer();
    await cut(filePath);
    await floor();
    const times = { cut: [] as number[], floor: [] as number[] };
    for (let round = 0; round < ROUNDS; round += 1) {
      const path = join(folder, `photo-${round}.jpg`);
      await copyFile(filePath, path);
      times.cut.push(await timed(() => cut(path)));
      times.floor.push(await timed(floor));
    }
    return median(times.cut) / median(times.floor);
  } finally {
    await rm(folder, { recursive: true });
  }
}
