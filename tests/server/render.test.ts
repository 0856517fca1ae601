import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decodePDFRawStream, PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import sharp, { type Metadata } from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../demo/brands/lanternfall.ts';
import { contrastOfLuminances, luminanceOfLinear, srgbToLinear } from '../../src/core/colour/contrast.ts';
import { compose } from '../../src/core/compose/compose.ts';
import type { PlacedText } from '../../src/core/compose/report.ts';
import { networkSheetSchema, type Placement } from '../../src/core/network/network-sheet.ts';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import quipline from '../../src/core/network/sheets/quipline.json' with { type: 'json' };
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import type { Frame, SlotValue } from '../../src/core/piece/piece.ts';
import { ALONE } from '../../src/core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { importPicture } from '../../src/server/media/import-picture.ts';
import { paintScene, type PaintedCut } from '../../src/server/render/canvas-painter.ts';
import { ServerEngines } from '../../src/server/render/engines.ts';
import { testEngines } from '../fixtures/engines.ts';
import { RunComposer } from '../../src/core/compose/compose-run.ts';
import { slideTemplate } from '../../src/core/template/slide-template.ts';
import { TooHeavyError } from '../../src/server/render/errors.ts';
import { runRenderJob, type CutSource, type RenderedPicture, type RenderJob } from '../../src/server/render/render-cut.ts';
import type { Scene } from '../../src/core/scene/scene.ts';

const placements: readonly Placement[] = [petalry, quipline].flatMap((sheet) => networkSheetSchema.validateSync(sheet).placements);
const texts: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  eclipse: { label: 'Saturday', headline: 'Look up', line: 'The Old Net Loft, from 2 pm.' },
  headland: { label: 'Saturday on the quay', headline: 'Build your own kite in an afternoon', line: 'The Old Net Loft, from 2 pm.' },
  aside: { headline: 'You hold the line, and the whole sky pulls back.', line: 'Ottoline Brack, kite maker' },
};
let engines: ServerEngines;
let folder: string;
let photoPath: string;
let picture: Awaited<ReturnType<typeof importPicture>>;

beforeAll(async () => {
  engines = new ServerEngines(await testEngines(), { fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
  folder = mkdtempSync(join(tmpdir(), 'confetti-render-'));
  photoPath = join(folder, 'photo');
  picture = await importPicture('demo/media/red-diamond-dunes.jpg', 'red-diamond-dunes.jpg');
  await sharp(picture.bytes).toFile(`${photoPath}.png`);
  photoPath = `${photoPath}.png`;
});
afterAll(() => rmSync(folder, { recursive: true }));

const frameOf = (template: string): Frame => ({ id: 'f', slots: { photo: { kind: 'picture', mediaId: 'p' }, ...Object.fromEntries(Object.entries(texts[template] ?? {}).map(([slot, text]): [string, SlotValue] => [slot, { kind: 'text', text }])) } });
const sourceOf = (template: string, placement: Placement, book = gullwickBook): CutSource => ({
  slides: [{ template: getShippedTemplate(template), frame: frameOf(template), adjustment: linkedCut, place: ALONE, family: 'cover' }],
  book,
  placement,
  typefaceFiles: {},
  pictures: [{ filePath: photoPath, picture: { id: 'p', widthPx: picture.widthPx, heightPx: picture.heightPx, facts: picture.facts, focal: picture.facts.focal, focalBy: 'proposal' } }],
});
const metadata = [{ title: 'Kites & sea', altText: 'A red kite', credit: 'Isaura Pellwin', licence: 'CC0-1.0' }];
/** The first picture of a job. */
const renderOne = async (job: RenderJob): Promise<RenderedPicture> => {
  const result = await runRenderJob(job, engines);
  if (result.kind === 'too-heavy') throw new TooHeavyError(result.maxBytes);
  const picture = result.kind === 'pictures' ? result.pictures[0] : undefined;
  if (!picture) throw new Error('No picture came back');
  return picture;
};
const placementOf = (key: string): Placement => placements.find((each) => each.key === key) ?? placements[0] as Placement;
const sizeOf = { widthPx: 20, heightPx: 10 };
const pixel = (cut: PaintedCut, x: number, y: number): readonly number[] => [...cut.rgba.subarray((y * cut.widthPx + x) * 4, (y * cut.widthPx + x) * 4 + 4)];
const paintNodes = (nodes: Scene['nodes'], sources = new Map()): Promise<PaintedCut> => paintScene({ size: sizeOf, nodes }, engines.engines.typesetter, sources);

describe('the server’s painter', () => {
  it('fills paths with their colour and alpha', async () => {
    const cut = await paintNodes([
      { kind: 'fill', path: 'M0 0H20V10H0Z', colour: '#ffffff', alpha: 1 },
      { kind: 'fill', path: 'M0 0H10V10H0Z', colour: '#d7263d', alpha: 1 },
      { kind: 'fill', path: 'M0 0H5V10H0Z', colour: '#000000', alpha: 0.5 },
    ]);
    expect(pixel(cut, 15, 5)).toEqual([255, 255, 255, 255]);
    expect(pixel(cut, 7, 5)).toEqual([215, 38, 61, 255]);
    expect(pixel(cut, 2, 5)[0]).toBeCloseTo(107, -1);
  });

  it('paints artwork moved and scaled, and glyphs upright on their baseline', async () => {
    const white = { kind: 'fill' as const, path: 'M0 0H20V10H0Z', colour: '#ffffff', alpha: 1 };
    const artwork = await paintNodes([white, { kind: 'artwork', xPx: 10, yPx: 2, scale: 2, paths: [{ d: 'M0 0H2V2H0Z', fill: '#12355b' }] }]);
    expect([pixel(artwork, 9, 3)[0], pixel(artwork, 11, 3)[0], pixel(artwork, 13, 5)[0], pixel(artwork, 15, 3)[0]]).toEqual([255, 18, 18, 255]);
    const { glyphId } = engines.engines.typesetter.inkOfFirstGlyph('L', 'figtree-700');
    const glyphs = await paintNodes([white, { kind: 'glyphs', sizePx: 12, colour: '#000000', alpha: 1, glyphs: [{ fontKey: 'figtree-700', id: glyphId, xPx: 2, yPx: 9 }] }]);
    const darkest = (fromX: number, toX: number, y: number): number => Math.min(...Array.from({ length: toX - fromX }, (_, index) => pixel(glyphs, fromX + index, y)[0] ?? 255));
    // The stem of the L stands at the left, its foot reaches right only at the bottom.
    expect(darkest(2, 6, 4)).toBeLessThan(80);
    expect(darkest(6, 9, 4)).toBeGreaterThan(200);
    expect(darkest(6, 8, 8)).toBeLessThan(120);
  });

  it('shows the window of a picture and nothing else of it', async () => {
    const halves = join(folder, 'halves.png');
    await sharp({ create: { width: 40, height: 10, channels: 3, background: '#ff0000' } })
      .composite([{ input: { create: { width: 20, height: 10, channels: 3, background: '#0000ff' } }, left: 20, top: 0 }])
      .png()
      .toFile(halves);
    const cut = await paintNodes(
      [{ kind: 'picture', pictureId: 'halves', box: { xPx: 0, yPx: 0, widthPx: 20, heightPx: 10 }, window: { x: 0.5, y: 0, width: 0.5, height: 1 } }],
      new Map([['halves', { filePath: halves, widthPx: 40, heightPx: 10 }]]),
    );
    expect([pixel(cut, 3, 5), pixel(cut, 17, 5)]).toEqual([[0, 0, 255, 255], [0, 0, 255, 255]]);
  });

  it('shows a photograph as the brand’s look wants it, and one that stays as it was taken in its own colours', async () => {
    const red = join(folder, 'red.png');
    await sharp({ create: { width: 20, height: 10, channels: 3, background: '#ff0000' } }).png().toFile(red);
    const sources = new Map([['red', { filePath: red, widthPx: 20, heightPx: 10 }]]);
    const node = { kind: 'picture', pictureId: 'red', box: { xPx: 0, yPx: 0, widthPx: 20, heightPx: 10 }, window: { x: 0, y: 0, width: 1, height: 1 } } as const;
    expect(pixel(await paintNodes([{ ...node, treatment: { kind: 'duotone', strength: 1, dark: '#000000', light: '#0000ff' } }], sources), 5, 5)).toEqual([0, 0, 127, 255]);
    const of = (frame: Frame) => compose({ template: getShippedTemplate('headland'), frame, book: { ...gullwickBook, treatment: { kind: 'mono', strength: 1 } }, placement: placementOf('feed-square'), pictures: new Map(sourceOf('headland', placementOf('feed-square')).pictures.map((each) => [each.picture.id, each.picture])), ghosts: false, adjustment: linkedCut }, engines.engines).scene.nodes.find((each) => each.kind === 'picture');
    expect(of(frameOf('headland'))).toMatchObject({ treatment: { kind: 'mono', strength: 1 } });
    expect(of({ ...frameOf('headland'), slots: { ...frameOf('headland').slots, photo: { kind: 'picture', mediaId: 'p', untreated: true } } })).not.toHaveProperty('treatment');
  });

  it('refuses a picture that it has no file of', async () => {
    await expect(paintNodes([{ kind: 'picture', pictureId: 'gone', box: { xPx: 0, yPx: 0, widthPx: 5, heightPx: 5 }, window: { x: 0, y: 0, width: 1, height: 1 } }])).rejects.toThrow(/'gone'/);
  });
});

/** Contrast of the lightest and darkest tenth of the pixels in a text's box: its ink against its ground, as painted. */
function paintedContrast(cut: PaintedCut, { box }: PlacedText): number {
  const luminances: number[] = [];
  for (let y = Math.ceil(box.yPx); y < box.yPx + box.heightPx; y += 1) {
    for (let x = Math.ceil(box.xPx); x < box.xPx + box.widthPx; x += 1) {
      const [red, green, blue] = pixel(cut, x, y).map((channel) => srgbToLinear(channel / 255)) as [number, number, number];
      luminances.push(luminanceOfLinear(red, green, blue));
    }
  }
  luminances.sort((a, b) => a - b);
  return contrastOfLuminances(luminances[Math.floor(luminances.length * 0.1)] ?? 0, luminances[Math.floor(luminances.length * 0.9)] ?? 0);
}

describe('every cut, measured from its pixels', { tags: 'long' }, () => {
  const cases = Object.keys(texts).flatMap((template) => ([['gullwick', gullwickBook], ['lanternfall', lanternfallBook]] as const).flatMap(([brand, book]) => placements.map((placement) => ({ template, brand, book, placement, where: placement.key }))));

  it.each(cases)('$template for $brand, $where: all texts stand out from what is behind them', async ({ template, book, placement }) => {
    const source = sourceOf(template, placement, book);
    const { scene, report } = compose({ template: getShippedTemplate(template), frame: frameOf(template), book, placement, pictures: new Map(source.pictures.map((each) => [each.picture.id, each.picture])), ghosts: false, adjustment: linkedCut }, engines.engines);
    const cut = await paintScene(scene, engines.engines.typesetter, new Map([['p', { filePath: photoPath, widthPx: picture.widthPx, heightPx: picture.heightPx }]]));
    expect(report.placed.length).toBe(Object.keys(texts[template] ?? {}).length);
    for (const placed of report.placed) expect(paintedContrast(cut, placed), placed.slot).toBeGreaterThanOrEqual(4.5);
  });
});

describe('a picture that runs through all slides', () => {
  const shoreline = getShippedTemplate('shoreline');
  const slides = (count: number): CutSource['slides'] =>
    Array.from({ length: count }, (_, index) => ({
      template: slideTemplate(shoreline, index === 0 ? undefined : 'point'),
      frame: { id: `s${index}`, slots: { panorama: { kind: 'picture', mediaId: 'p' }, headline: { kind: 'text', text: 'One sky' }, heading: { kind: 'text', text: `Stop ${index}` } } },
      adjustment: linkedCut,
      place: { index, count, ordinal: null },
      family: index === 0 ? 'cover' : 'point',
    }));

  it.each(['feed-square', 'feed-portrait'])('meets at every seam to the pixel: %s', async (key) => {
    const placement = placementOf(key);
    const source: CutSource = { ...sourceOf('aside', placement), slides: slides(3) };
    const { pictures } = (await runRenderJob({ kind: 'as', source, format: 'png', scale: 1, maxBytes: Infinity, metadata: [] }, engines)) as { pictures: readonly RenderedPicture[] };
    const composed = new RunComposer(engines.engines).compose(source.slides.map((slide, index) => ({ ...slide, book: source.book, placement, pictures: new Map(source.pictures.map((each) => [each.picture.id, each.picture])), ghosts: false, signature: String(index) })));
    const node = composed[0]?.scene.nodes.find((each) => each.kind === 'picture');
    if (node?.kind !== 'picture') throw new Error('No picture runs through');
    // The whole picture at once, as it would hang on a wall.
    const { width, height } = placement.exportPx;
    const whole = await paintScene({ size: { widthPx: width * 3, heightPx: height }, nodes: [node] }, engines.engines.typesetter, new Map([['p', { filePath: photoPath, widthPx: picture.widthPx, heightPx: picture.heightPx }]]));
    let off = 0;
    for (const [index, { bytes }] of pictures.entries()) {
      const slide = await sharp(bytes).ensureAlpha().raw().toBuffer();
      for (let y = Math.ceil(node.box.yPx); y < Math.floor(node.box.yPx + node.box.heightPx); y += 1) {
        for (const x of [0, 1, width - 2, width - 1]) {
          for (let channel = 0; channel < 3; channel += 1) if (slide[(y * width + x) * 4 + channel] !== whole.rgba[(y * width * 3 + index * width + x) * 4 + channel]) off += 1;
        }
      }
    }
    expect(off).toBe(0);
  });

  it('is in a document once, however many pages show it, and its words can be found', async () => {
    const source: CutSource = { ...sourceOf('aside', placementOf('feed-portrait')), slides: slides(4) };
    const { bytes } = await renderOne({ kind: 'as', source, format: 'pdf', scale: 1, maxBytes: Infinity, metadata: [] });
    const document = await PDFDocument.load(bytes);
    expect(document.getPageCount()).toBe(4);
    const streams = document.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []));
    expect(streams.filter((object) => object.dict.get(PDFName.of('Subtype')) === PDFName.of('Image'))).toHaveLength(1);
    const written = streams.filter((object) => object.dict.get(PDFName.of('Subtype')) === undefined).map((object) => Buffer.from(decodePDFRawStream(object).decode()).toString('latin1')).join('\n');
    expect(written).toContain(`<${Buffer.from('Stop 3', 'latin1').toString('hex').toUpperCase()}> Tj`);
  });
});

describe('render jobs', () => {
  it('give the same bytes for the same content', { tags: 'long' }, async () => {
    const job = { kind: 'full', source: sourceOf('headland', placementOf('feed-portrait')), maxBytes: Infinity, metadata } as const;
    const [first, second] = [await renderOne(job), await renderOne(job)];
    expect(first).toEqual(second);
    expect(first).toMatchObject({ mime: 'image/png', widthPx: 1080, heightPx: 1350 });
  });

  it('stay below a network’s limit, as JPEG of the best quality that does', async () => {
    const source = sourceOf('headland', placementOf('feed-portrait'));
    const sizes = [];
    for (const maxBytes of [400_000, 150_000]) {
      const result = await renderOne({ kind: 'full', source, maxBytes, metadata });
      expect(result).toMatchObject({ mime: 'image/jpeg' });
      sizes.push(result.bytes.length);
    }
    expect(sizes[0]).toBeLessThanOrEqual(400_000);
    expect(sizes[1]).toBeLessThanOrEqual(150_000);
    expect(sizes[0]).toBeGreaterThan(sizes[1] ?? 0);
  });

  it('say so when no quality is light enough', async () => {
    await expect(renderOne({ kind: 'full', source: sourceOf('headland', placementOf('story')), maxBytes: 2_000, metadata })).rejects.toThrow(TooHeavyError);
  });

  it('make small pictures that keep the shape', async () => {
    expect(await renderOne({ kind: 'small', source: sourceOf('aside', placementOf('post-wide')), fitPx: 320 })).toMatchObject({ mime: 'image/webp', widthPx: 320, heightPx: 180 });
  });

  it('report without painting', async () => {
    const result = await runRenderJob({ kind: 'report', sources: placements.map((placement) => sourceOf('aside', placement)) }, engines);
    expect(result.kind === 'reports' && result.reports.map(([report]) => report?.arrangement)).toEqual(['page', 'page', 'column', 'column', 'page', 'spread']);
  });

  /** Each kind of file has its own way to say that its pixels are sRGB. */
  const saysSrgb = (format: string, bytes: Uint8Array, read: Metadata): boolean => {
    if (format === 'png') return Buffer.from(bytes).includes(Buffer.from([0, 0, 0, 1, 0x73, 0x52, 0x47, 0x42, 0, 0xae, 0xce, 0x1c, 0xe9]));
    // Tag 0xA001, a short, one value: 1.
    if (format === 'jpeg') return read.exif?.includes(Buffer.from([0x01, 0xa0, 3, 0, 1, 0, 0, 0, 1, 0])) ?? false;
    return (read.icc?.length ?? 0) > 100;
  };

  it.each(['png', 'jpeg', 'webp', 'avif'] as const)('write what a picture is into %s files, in sRGB', async (format) => {
    const result = await renderOne({ kind: 'as', source: sourceOf('aside', placementOf('feed-square')), format, scale: 1, maxBytes: Infinity, metadata });
    const read = await sharp(result.bytes).metadata();
    expect(saysSrgb(format, result.bytes, read)).toBe(true);
    const xmp = read.xmp?.toString('utf8') ?? '';
    for (const text of ['Kites &amp; sea', 'A red kite', 'Isaura Pellwin', 'CC0-1.0']) expect(xmp).toContain(text);
  });

  it('keep a file below a limit by its quality, PNG too, and say so when none does', { tags: 'long' }, async () => {
    const job = (format: 'png' | 'webp', maxBytes: number) => renderOne({ kind: 'as', source: sourceOf('headland', placementOf('feed-square')), format, scale: 1, maxBytes, metadata });
    const whole = await job('png', Infinity);
    for (const [format, share] of [['png', 0.5], ['webp', 0.06]] as const) {
      const limit = Math.round(whole.bytes.length * share);
      const smaller = await job(format, limit);
      expect(smaller.bytes.length).toBeLessThanOrEqual(limit);
      expect((await sharp(smaller.bytes).metadata()).format).toBe(format);
    }
    await expect(job('png', 3_000)).rejects.toThrow(TooHeavyError);
  });

  it('paint at double size what they paint at full size', async () => {
    const at = (scale: 1 | 2) => renderOne({ kind: 'as', source: sourceOf('headland', placementOf('feed-square')), format: 'png', scale, maxBytes: Infinity, metadata });
    const [once, twice] = [await at(1), await at(2)];
    expect([twice.widthPx, twice.heightPx]).toEqual([2160, 2160]);
    const halved = await sharp(twice.bytes).resize(1080, 1080).removeAlpha().raw().toBuffer();
    const plain = await sharp(once.bytes).removeAlpha().raw().toBuffer();
    expect(meanDifference(halved, plain)).toBeLessThan(1.5);
  });

  it.each(['headland', 'arch', 'aside'])('draw %s as vectors that look as it is painted', async (template) => {
    const source = sourceOf(template, placementOf('feed-portrait'));
    const as = async (format: 'png' | 'svg') => Buffer.from((await renderOne({ kind: 'as', source, format, scale: 1, maxBytes: Infinity, metadata })).bytes);
    const [painted, drawing] = [await as('png'), await as('svg')];
    // librsvg is a painter that has nothing to do with ours.
    const drawn = await sharp(drawing, { unlimited: true }).resize(1080, 1350).removeAlpha().raw().toBuffer();
    expect(meanDifference(drawn, await sharp(painted).removeAlpha().raw().toBuffer())).toBeLessThan(1.5);
    expect(drawing.toString('utf8', 0, 2_000)).toContain('<title>Kites &amp; sea</title>');
  });

  it('draw a subject again before the letters that it stands before, inside its outline', async () => {
    const { bytes } = await renderOne({ kind: 'as', source: sourceOf('eclipse', placementOf('feed-portrait')), format: 'svg', scale: 1, maxBytes: Infinity, metadata });
    const kinds = [...Buffer.from(bytes).toString('utf8').matchAll(/<image[^>]*?(clip-path)?="|<use /g)].map(([found]) => (found.startsWith('<use') ? 'letter' : 'picture'));
    expect(kinds.filter((kind) => kind === 'picture')).toHaveLength(2);
    expect(kinds.indexOf('letter')).toBeLessThan(kinds.lastIndexOf('picture'));
    expect(Buffer.from(bytes).toString('utf8').match(/clip-path="url\(#window-\d+\)"/g)).toHaveLength(1);
  });

  it('make PDF pages of the cut’s size, with vectors, photographs and what they are about', async () => {
    const result = await renderOne({ kind: 'as', source: sourceOf('headland', placementOf('story')), format: 'pdf', scale: 1, maxBytes: Infinity, metadata });
    const document = await PDFDocument.load(result.bytes, { updateMetadata: false });
    expect(document.getPageCount()).toBe(1);
    expect(document.getPage(0).getSize()).toEqual({ width: 810, height: 1440 });
    expect([document.getTitle(), document.getSubject(), document.getAuthor()]).toEqual(['Kites & sea', 'A red kite', 'Isaura Pellwin']);
    const images = document.context.enumerateIndirectObjects().filter(([, object]) => object instanceof PDFRawStream && object.dict.get(PDFName.of('Subtype')) === PDFName.of('Image'));
    expect(images).toHaveLength(1);
  });

  it('cut a picture to its window as a vector, so that the photograph in the document stays a small one', async () => {
    const result = await renderOne({ kind: 'as', source: sourceOf('arch', placementOf('feed-portrait')), format: 'pdf', scale: 1, maxBytes: Infinity, metadata });
    const document = await PDFDocument.load(result.bytes);
    const streams = document.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []));
    const filters = streams.filter((object) => object.dict.get(PDFName.of('Subtype')) === PDFName.of('Image')).map((object) => String(object.dict.get(PDFName.of('Filter'))));
    expect(filters).toEqual(['/DCTDecode']);
    const pages = streams.filter((object) => object.dict.get(PDFName.of('Subtype')) === undefined).map((object) => Buffer.from(decodePDFRawStream(object).decode()).toString('latin1')).join('\n');
    expect(pages).toMatch(/\nW\s+n\s/);
  });
});

function meanDifference(a: Buffer, b: Buffer): number {
  expect(a.length).toBe(b.length);
  let sum = 0;
  for (let index = 0; index < a.length; index += 1) sum += Math.abs((a[index] ?? 0) - (b[index] ?? 0));
  return sum / a.length;
}
