import { readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { getPlacement } from '../../src/core/network/network-sheet.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { slideTemplate } from '../../src/core/template/slide-template.ts';
import { readPictureFacts } from '../../src/server/media/picture-facts-of-file.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { runRenderJob, type CutSource } from '../../src/server/render/render-cut.ts';

const SLIDES = 10;
const [WIDTH, HEIGHT] = [6000, 4000];
/** Standard deviation of the grain, of 255: a clean photograph at a low sensitivity. */
const GRAIN_SIGMA = 8;
const photos = ['red-diamond-dunes', 'beach-hut-shop', 'long-shadow', 'box-kite-sunset', 'line-reel-close-up'];

/** Megabytes of a document of ten slides, each with a photograph of 24 megapixels of its own. */
export async function documentMegabytes(): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-bench-'));
  try {
    const pictures: CutSource['pictures'][number][] = [];
    for (let index = 0; index < SLIDES; index += 1) {
      const filePath = join(folder, `${index}.jpg`);
      // The demo's photographs are smaller; enlarged they would be smoother than a camera's, so they get its grain.
      const grain = await sharp({ create: { width: WIDTH, height: HEIGHT, channels: 3, background: '#808080', noise: { type: 'gaussian', mean: 128, sigma: GRAIN_SIGMA } } }).png({ compressionLevel: 1 }).toBuffer();
      await sharp(readFileSync(`demo/media/${photos[index % photos.length] ?? ''}.jpg`)).resize(WIDTH, HEIGHT).composite([{ input: grain, blend: 'overlay' }]).jpeg({ quality: 92 }).toFile(filePath);
      const facts = await readPictureFacts(filePath);
      pictures.push({ filePath, picture: { id: `p${index}`, widthPx: WIDTH, heightPx: HEIGHT, facts, focal: facts.focal, focalBy: 'proposal' } });
    }
    const guildrow = shippedSheets.find((sheet) => sheet.key === 'guildrow');
    if (!guildrow) throw new Error('There is no sheet with documents');
    const source: CutSource = {
      slides: pictures.map(({ picture }, index) => ({
        template: slideTemplate(getShippedTemplate('sheaf'), index === 0 ? undefined : 'picture'),
        frame: { id: `s${index}`, slots: { photo: { kind: 'picture', mediaId: picture.id }, headline: { kind: 'text', text: 'Ten kites, one good week' }, heading: { kind: 'text', text: 'Over the dunes' } } },
        adjustment: linkedCut,
        place: { index, count: SLIDES, ordinal: index === 0 ? null : index },
        family: index === 0 ? 'cover' : 'picture',
      })),
      book: gullwickBook,
      placement: getPlacement(guildrow, 'document'),
      typefaceFiles: {},
      pictures,
    };
    const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
    const result = await runRenderJob({ kind: 'as', source, format: 'pdf', scale: 1, maxBytes: Infinity, metadata: [] }, engines);
    return result.kind === 'pictures' ? (result.pictures[0]?.bytes.length ?? Infinity) / 1024 / 1024 : Infinity;
  } finally {
    await rm(folder, { recursive: true });
  }
}
