import { mkdirSync } from 'node:fs';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../demo/brands/lanternfall.ts';
import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { compose } from '../../src/core/compose/compose.ts';
import { neededGlyphs } from '../../src/core/compose/needed-glyphs.ts';
import type { Picture } from '../../src/core/crop/crop-window.ts';
import type { Placement } from '../../src/core/network/network-sheet.ts';
import type { Adjustment } from '../../src/core/piece/adjustment.ts';
import type { Frame, SlotValue } from '../../src/core/piece/piece.ts';
import { walkParts } from '../../src/core/template/parts.ts';
import { shippedTemplates } from '../../src/core/template/shipped-templates.ts';
import type { Template } from '../../src/core/template/template.ts';
import { readPictureFacts } from '../../src/server/media/picture-facts-of-file.ts';
import { paintScene, type PictureSource } from '../../src/server/render/canvas-painter.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { sheetTexts, type SheetText } from './sheet-texts.ts';
import { pastelBook, plainBook } from './test-brands.ts';

const FOLDER = join('test-results', 'sheet');
const MEDIA = join('demo', 'media');
/** What stands where a template shows a subject whole. */
const CUT_OUTS = ['cutout-sled-kite.png', 'cutout-line-reel.png'].map((file) => join(MEDIA, file));
/** Photographs are no larger than what the largest shape shows. */
const LONG_SIDE_PX = 2400;
const ROW_PX = 330;
const GAP_PX = 14;

/** The seven shapes, with the safe zones that networks ask for in them. */
const shapes: readonly Placement[] = ([
  ['9:16', 1080, 1920, [12, 6, 20, 6]],
  ['4:5', 1080, 1350, [4, 4, 4, 4]],
  ['1:1', 1080, 1080, [4, 4, 4, 4]],
  ['2:3', 1000, 1500, [4, 4, 8, 4]],
  ['4:3', 1200, 900, [4, 4, 4, 4]],
  ['16:9', 1600, 900, [4, 4, 4, 4]],
  ['1.91:1', 1200, 628, [4, 4, 4, 4]],
] as const).map(([key, width, height, [top, right, bottom, left]]) => ({ key, name: key, surface: key, exportPx: { width, height }, safePercent: { top, right, bottom, left } }));

const brands: readonly { readonly book: BrandBook; readonly photos: readonly string[] }[] = [
  { book: gullwickBook, photos: ['red-diamond-dunes.jpg', 'windsocks.jpg', 'festival-sky.jpg'] },
  { book: lanternfallBook, photos: ['harbour-lanterns.jpg', 'noodle-bowl.jpg', 'lanterns-over-stalls.jpg'] },
  { book: plainBook, photos: ['workbench-flat-lay.jpg', 'line-reel-close-up.jpg', 'misty-day.jpg'] },
  { book: pastelBook, photos: ['lantern-close-up.jpg', 'bamboo-steamers.jpg', 'kite-kits.jpg'] },
];

interface Media {
  readonly pictures: ReadonlyMap<string, Picture>;
  readonly sources: ReadonlyMap<string, PictureSource>;
}

/** The photographs of each brand: the demo's, or those of a folder, in each brand from another one on. */
async function photosOf(folder: string | undefined): Promise<readonly (readonly string[])[]> {
  if (folder === undefined) return brands.map(({ photos }) => photos.map((file) => join(MEDIA, file)));
  const files = (await readdir(folder)).filter((file) => /\.(?:jpe?g|png|webp)$/i.test(file)).toSorted().map((file) => join(folder, file));
  return brands.map((_, brand) => [...files.slice(brand), ...files.slice(0, brand)]);
}

async function readMedia(photos: readonly (readonly string[])[]): Promise<Media> {
  const manifest = JSON.parse(await readFile(join(MEDIA, 'manifest.json'), 'utf8')) as { file: string; subject?: { x: number; y: number } }[];
  const pictures = new Map<string, Picture>();
  const sources = new Map<string, PictureSource>();
  for (const file of new Set([...photos.flat(), ...CUT_OUTS])) {
    // Upright, as an upload is kept.
    const upright = await sharp(file).rotate().resize(LONG_SIDE_PX, LONG_SIDE_PX, { fit: 'inside', withoutEnlargement: true }).png({ compressionLevel: 1 }).toBuffer({ resolveWithObject: true });
    const filePath = join(FOLDER, `${basename(file)}.upright.png`);
    await writeFile(filePath, upright.data);
    const { width: widthPx, height: heightPx } = upright.info;
    const facts = await readPictureFacts(filePath);
    pictures.set(file, { id: file, widthPx, heightPx, facts, focal: manifest.find((each) => join(MEDIA, each.file) === file)?.subject ?? facts.focal, focalBy: 'proposal' });
    sources.set(file, { filePath, widthPx, heightPx });
  }
  return { pictures, sources };
}

function fill(template: Template, text: SheetText, photos: readonly string[]): Frame {
  const slots: Record<string, SlotValue> = {};
  let taken = 0;
  const whole = new Set(template.arrangements.flatMap(({ root }) => [...walkParts(root)].flatMap((part) => (part.part === 'picture' && part.whole ? [part.slot] : []))));
  for (const { key, kind, sample } of template.slots) {
    if (kind === 'picture') {
      const files = whole.has(key) && photos.length > 0 ? CUT_OUTS : photos;
      slots[key] = { kind: 'picture', mediaId: files[taken++ % files.length] ?? '' };
    }
    else if (kind !== 'mark') {
      const own = text.slots[`${template.key}.${key}`] ?? text.slots[key] ?? sample ?? '';
      if (own !== '') slots[key] = { kind: 'text', text: own };
    }
  }
  return { id: 'sheet', slots };
}

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({ allowPositionals: true, options: { text: { type: 'string', default: 'usual' }, bare: { type: 'boolean', default: false }, align: { type: 'string' }, swapped: { type: 'boolean' }, plain: { type: 'boolean' }, photos: { type: 'string' } } });
  const adjustment: Adjustment = { ...(values.align === 'start' || values.align === 'centre' ? { align: values.align } : {}), ...(values.swapped ? { swapsSides: true } : {}), ...(values.plain ? { isPlain: true } : {}) };
  const text = sheetTexts.find(({ name }) => name === values.text);
  if (!text) throw new Error(`There is no text '${values.text}'. There are: ${sheetTexts.map(({ name }) => name).join(', ')}.`);
  mkdirSync(FOLDER, { recursive: true });
  const photos = await photosOf(values.photos);
  const media = await readMedia(photos);
  const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
  for (const template of shippedTemplates.filter(({ key }) => positionals.length === 0 || positionals.includes(key))) {
    const rows: { input: Buffer; left: number; top: number }[] = [];
    let widthPx = 0;
    for (const [row, { book }] of brands.entries()) {
      const frame = fill(template, text, values.bare ? [] : (photos[row] ?? []));
      await engines.load(neededGlyphs(book, [{ template, frame }]), {});
      let left = GAP_PX;
      for (const placement of shapes) {
        const { scene, report } = compose({ template, frame, book, placement, pictures: media.pictures, ghosts: false, adjustment }, engines.engines);
        const scale = ROW_PX / placement.exportPx.height;
        const painted = await paintScene(scene, engines.engines.typesetter, media.sources, scale);
        const png = await sharp(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } }).png().toBuffer();
        rows.push({ input: png, left, top: GAP_PX + row * (ROW_PX + GAP_PX) });
        left += painted.widthPx + GAP_PX;
        for (const finding of report.findings) if (finding.kind !== 'low-resolution') process.stdout.write(`${template.key}, brand ${row + 1}, ${placement.key}: ${finding.kind}${'slot' in finding ? ` (${finding.slot})` : ''}\n`);
        for (const each of report.texts) if (each.kind === 'overflows') process.stdout.write(`${template.key}, brand ${row + 1}, ${placement.key}: ${each.slot} is too long by ${each.overBy}\n`);
      }
      widthPx = Math.max(widthPx, left);
    }
    const file = join(FOLDER, `${template.key}.png`);
    await sharp({ create: { width: widthPx, height: brands.length * (ROW_PX + GAP_PX) + GAP_PX, channels: 3, background: '#77797d' } }).composite(rows).png().toFile(file);
    process.stdout.write(`${file}\n`);
  }
}

await main();
