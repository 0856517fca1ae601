import { readFileSync } from 'node:fs';
import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { ALONE } from '../../src/core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { readPictureFacts } from '../../src/server/media/picture-facts-of-file.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { runRenderJob, type CutSource } from '../../src/server/render/render-cut.ts';
import { median, timed } from './figure.ts';

const CUTS = 12;
const ROUNDS = 9;
const [WIDTH, HEIGHT] = [6000, 4000];

/**
 * Twelve full-size cuts of a photo of 24 megapixels, composed, painted and encoded one after the other, against decoding the
 * photo once and then scaling to cover and encoding it twelve times alone, with the same encoder settings. Every cut is made
 * for itself here: cuts that are alike are not shared, and every round has a file of its own, so that nothing is decoded already.
 * Rounds of both alternate, and each is held against the one beside it: the machine's speed changes from round to round by more than they differ.
 */
export async function serverSetRatio(format: 'png' | 'jpeg'): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-bench-'));
  try {
    const filePath = join(folder, 'photo.jpg');
    await sharp(readFileSync('demo/media/red-diamond-dunes.jpg')).resize(WIDTH, HEIGHT).jpeg({ quality: 92 }).toFile(filePath);
    const facts = await readPictureFacts(filePath);
    const placements = shippedSheets.flatMap((sheet) => sheet.placements).slice(0, CUTS);
    const sourcesOf = (path: string): readonly CutSource[] => placements.map((placement) => ({
      slides: [{ template: getShippedTemplate('headland'), adjustment: linkedCut, place: ALONE, family: 'cover', frame: { id: 'f', slots: { photo: { kind: 'picture', mediaId: 'p' }, label: { kind: 'text', text: 'Saturday on the quay' }, headline: { kind: 'text', text: 'Build your own kite in an afternoon' }, line: { kind: 'text', text: 'The Old Net Loft, from 2 pm.' } } } }],
      book: gullwickBook,
      placement,
      typefaceFiles: {},
      pictures: [{ filePath: path, picture: { id: 'p', widthPx: WIDTH, heightPx: HEIGHT, facts, focal: facts.focal, focalBy: 'proposal' } }],
    }));
    const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
    let rounds = 0;
    const freshFile = async (): Promise<string> => {
      rounds += 1;
      const path = join(folder, `photo-${rounds}.jpg`);
      await copyFile(filePath, path);
      return path;
    };
    const set = async (path: string): Promise<void> => {
      for (const source of sourcesOf(path)) await runRenderJob({ kind: 'as', source, format, scale: 1, maxBytes: Infinity, metadata: [] }, engines);
    };
    const floor = async (): Promise<void> => {
      const decoded = await sharp(filePath).raw().toBuffer({ resolveWithObject: true });
      for (const { exportPx } of placements) {
        const covered = sharp(decoded.data, { raw: { width: decoded.info.width, height: decoded.info.height, channels: decoded.info.channels } }).resize(exportPx.width, exportPx.height, { fit: 'cover', kernel: 'lanczos3' });
        await (format === 'png' ? covered.png({ compressionLevel: 6 }) : covered.jpeg({ quality: 92, chromaSubsampling: '4:4:4' })).toBuffer();
      }
    };
    await set(await freshFile());
    const ratios: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      const floorMs = await timed(floor);
      const path = await freshFile();
      ratios.push((await timed(() => set(path))) / floorMs);
    }
    return median(ratios);
  } finally {
    await rm(folder, { recursive: true });
  }
}
