import { LRUCache } from 'lru-cache';
import type { Artwork } from '../core/artwork/artwork.ts';
import type { BrandBook } from '../core/brand/brand-book.ts';
import type { Composed, Engines } from '../core/compose/compose.ts';
import type { RunComposer, RunMember } from '../core/compose/compose-run.ts';
import { pictureRaster, type PictureNode, type Scene } from '../core/scene/scene.ts';
import type { Template } from '../core/template/template.ts';
import { Batch, type AlikeCuts } from './painted-batch.ts';
import { surfaceOf, type Surface } from './surfaces.ts';
import type { PainterMessage, PaintRequest, WallContent, WallMessage, WantedCut } from './wall-protocol.ts';

/**
 * Paints the cuts of a proof wall. The newest request wins: while one is painted, later ones replace each other in the
 * waiting place.
 */
let waiting: Painting | null = null;
let working = false;
let lastContent: WallContent | null = null;

/** A request with the content that was told last when it came. */
interface Painting extends PaintRequest {
  readonly content: WallContent;
}

// HarfBuzz starts with a top-level await: a handler set behind a static import would miss the first message.
self.onmessage = ({ data }: MessageEvent<PainterMessage>) => {
  if (data.kind === 'content') {
    lastContent = data.content;
    return;
  }
  if (!lastContent) return closeClipPictures(data);
  // A request that is overtaken takes the pictures that were made for it along.
  if (waiting) closeClipPictures(waiting);
  waiting = { ...data, content: lastContent };
  if (!working) void work();
};

function closeClipPictures({ clipPictures }: Pick<PaintRequest, 'clipPictures'>): void {
  for (const { bitmap } of clipPictures ?? []) bitmap.close();
}

const parts = Promise.all([
  import('../core/compose/compose.ts'),
  import('../core/scene/paint.ts'),
  import('../core/text/typesetter.ts'),
  import('../core/text/font-shelf.ts'),
  import('yoga-layout/load'),
  import('../core/compose/needed-glyphs.ts'),
  import('../core/compose/compose-run.ts'),
  import('../core/video/motion.ts'),
  import('../core/video/blend.ts'),
]);

let engines: Promise<Engines> | null = null;

async function startEngines(): Promise<Engines> {
  const [, , { Typesetter }, , { loadYoga }] = await parts;
  return { typesetter: new Typesetter(), yoga: await loadYoga() };
}

/** Emoji that have been asked for; those that do not exist are not asked for again. */
const emojiAsked = new Map<string, Promise<void>>();

/** Fetches the typefaces and emoji that a request needs and that are not there yet. */
async function loadGlyphs({ typesetter }: Engines, { content, cuts }: Painting): Promise<void> {
  const [, , , { getShelfFont }, , { neededGlyphs }] = await parts;
  const { fontKeys, emoji } = neededGlyphs(content.book, cuts);
  await Promise.all([
    ...fontKeys
      .filter((key) => !typesetter.has(key))
      .map(async (key) => {
        const response = await fetch(content.typefaces[key] ?? `/fonts/${getShelfFont(key).file}`);
        if (!response.ok) throw new Error(`The typeface ${key} could not be loaded`);
        typesetter.add(key, new Uint8Array(await response.arrayBuffer()));
      }),
    ...emoji.map((code) => {
      const asked =
        emojiAsked.get(code) ??
        fetch(`/emoji/${code}.json`).then(async (response) => {
          if (response.ok) typesetter.addEmoji(code, (await response.json()) as Artwork);
          else if (response.status !== 404) throw new Error('An emoji could not be loaded');
        });
      emojiAsked.set(code, asked);
      asked.catch(() => emojiAsked.delete(code));
      return asked;
    }),
  ]);
}

async function work(): Promise<void> {
  working = true;
  for (await letMessagesIn(); waiting; await letMessagesIn()) {
    const request = waiting;
    waiting = null;
    try {
      engines ??= startEngines();
      await loadGlyphs(await engines, request);
      await paintRequest(request, await engines);
    } catch (error) {
      tell({ kind: 'failed', id: request.id, sentence: error instanceof Error ? error.message : String(error) });
    } finally {
      closeClipPictures(request);
    }
  }
  working = false;
}

const yielder = new MessageChannel();

/** Lets messages that have come in meanwhile be handled, so that only the newest request is painted. */
function letMessagesIn(): Promise<void> {
  return new Promise((resolve) => {
    yielder.port1.onmessage = () => resolve();
    yielder.port2.postMessage(null);
  });
}

/** Composes slides, as long as they are made of the same book and pictures. */
let composer: { readonly content: WallContent; readonly ghosts: boolean; readonly run: RunComposer } | null = null;

/** Templates come as copies; each different one gets a number, as its text would be long in a signature. */
const templateNumbers = new Map<string, number>();

function templateNumber(template: Template): number {
  const text = JSON.stringify(template);
  const number = templateNumbers.get(text) ?? templateNumbers.size;
  templateNumbers.set(text, number);
  return number;
}

/** What was painted last under a key, so that what has not changed is not painted again. */
const shown = new Map<string, { readonly composed: Composed; readonly scale: number }>();

async function composeAll({ content, ghosts, cuts: wanted }: Painting, ready: Engines): Promise<ReadonlyMap<WantedCut, Composed>> {
  const [, , , , , , { RunComposer }] = await parts;
  if (composer?.content !== content || composer.ghosts !== ghosts) composer = { content, ghosts, run: new RunComposer(ready) };
  const pictures = new Map(content.pictures.map(({ picture }) => [picture.id, picture]));
  // The copies of one request share references.
  const numbers = new Map<Template, number>();
  const numberOf = (template: Template): number => {
    const number = numbers.get(template) ?? templateNumber(template);
    numbers.set(template, number);
    return number;
  };
  const runs = new Map<string, WantedCut[]>();
  for (const cut of wanted) runs.set(cut.run, [...(runs.get(cut.run) ?? []), cut]);
  const all = new Map<WantedCut, Composed>();
  for (const cuts of runs.values()) {
    const members = cuts.map((cut): RunMember => {
      const { template, frame, placement, adjustment, place, family, blank } = cut;
      const signature = `${numberOf(template)}${JSON.stringify([frame.slots, placement.exportPx, placement.safePercent, adjustment, place, blank])}`;
      return { template, frame, book: content.book, placement, pictures, ghosts: ghosts || blank === true, adjustment, place, family, signature };
    });
    composer.run.compose(members).forEach((composed, index) => {
      const cut = cuts[index];
      if (cut) all.set(cut, composed);
    });
  }
  return all;
}

/** Cuts that come out the same, at the same scale and moment, are painted once. */
function groupAlike(composed: ReadonlyMap<WantedCut, Composed>): readonly AlikeCuts[] {
  const groups = new Map<Composed, Map<string, [WantedCut, ...WantedCut[]]>>();
  for (const [cut, each] of composed) {
    const scales = groups.get(each) ?? new Map<string, [WantedCut, ...WantedCut[]]>();
    const look = `${cut.scale} ${cut.unseen ?? false} ${cut.moment?.frame ?? ''} ${cut.moment?.over?.progress ?? ''}`;
    groups.set(each, scales);
    const group = scales.get(look);
    if (group) group.push(cut);
    else scales.set(look, [cut]);
  }
  return [...groups.values()].flatMap((scales) => [...scales.values()]);
}

async function paintRequest(request: Painting, ready: Engines): Promise<void> {
  const started = performance.now();
  const all = await composeAll(request, ready);
  const clipPictures: Recordings = new Map((request.clipPictures ?? []).map(({ mediaId, bitmap }) => [mediaId, bitmap]));
  const byKey = new Map([...all].map(([cut, composed]) => [cut.key, { cut, composed }]));
  const isShown = (cut: WantedCut): boolean => !request.again && !cut.moment && shown.get(cut.key)?.composed === all.get(cut) && shown.get(cut.key)?.scale === cut.scale;
  const changed = new Map([...all].filter(([cut]) => !isShown(cut)));
  const late: { readonly alike: AlikeCuts; readonly composed: Composed }[] = [];
  const batch = new Batch(request.id);
  for (const alike of groupAlike(changed)) {
    const [cut] = alike;
    const composed = changed.get(cut);
    if (!composed) continue;
    if (cut.unseen) {
      batch.add(alike, null, composed.report, true);
      for (const { key, scale } of alike) shown.set(key, { composed, scale });
      continue;
    }
    const scaleOf = await detailOf(cut);
    const settled = composed.scene.nodes.every((node) => node.kind !== 'picture' || clipPictures.has(node.pictureId) || bitmaps.has(bitmapKey(node, scaleOf(node))));
    batch.add(alike, await paintCut(cut, composed, ready, clipPictures, byKey, request.content.book), composed.report, settled);
    for (const { key, scale } of alike) {
      if (settled) shown.set(key, { composed, scale });
      else shown.delete(key);
    }
    if (!settled) late.push({ alike, composed });
    if (batch.isOld()) batch.send();
  }
  batch.send();
  for (const { alike, composed } of late) {
    const [cut] = alike;
    // A request that has been overtaken need not wait for its pictures.
    if (waiting) return;
    const scaleOf = await detailOf(cut);
    const missing = composed.scene.nodes.filter((node): node is PictureNode => node.kind === 'picture' && !clipPictures.has(node.pictureId) && !bitmaps.has(bitmapKey(node, scaleOf(node))));
    await Promise.all(missing.map((node) => fetchBitmap(node, scaleOf(node), request.content)));
    batch.add(alike, await paintCut(cut, composed, ready, clipPictures, byKey, request.content.book), composed.report, true);
    for (const { key, scale } of alike) shown.set(key, { composed, scale });
    batch.send();
  }
  tell({ kind: 'done', id: request.id, tookMs: performance.now() - started });
}

/** What clips show now, by their media. */
type Recordings = ReadonlyMap<string, ImageBitmap>;
type Painted = ReadonlyMap<string, { readonly cut: WantedCut; readonly composed: Composed }>;

/** The pixels of a cut. Reading them from a canvas that is kept costs less than making it a bitmap. */
async function paintCut(cut: WantedCut, composed: Composed, ready: Engines, clipPictures: Recordings, all: Painted, book: BrandBook): Promise<ImageData> {
  const [, , , , , , , , { blend }] = await parts;
  const { canvas, context } = await paintShot(cut, composed, ready, clipPictures, 'shown');
  const size = { width: canvas.width, height: canvas.height };
  const over = cut.moment?.over;
  const before = over && all.get(over.key);
  if (over && before) {
    const behind = await paintShot(before.cut, before.composed, ready, clipPictures, 'before');
    const mixed = surfaceOf('mixed', size.width, size.height);
    blend<OffscreenCanvas>(mixed.context, behind.canvas, canvas, over, size);
    if (over.kind === 'sweep') await paintSweep(mixed.context, cut, composed.scene.size, over.progress, book, ready);
    await paintSubtitle(cut, mixed.context, ready, all);
    return mixed.context.getImageData(0, 0, size.width, size.height);
  }
  await paintSubtitle(cut, context, ready, all);
  return context.getImageData(0, 0, size.width, size.height);
}

/** The band of a sweep, where it is. */
async function paintSweep(context: OffscreenCanvasRenderingContext2D, { scale }: WantedCut, size: Scene['size'], progress: number, book: BrandBook, ready: Engines): Promise<void> {
  const { sweepBand, sweepLeftPx } = await import('../core/video/sweep.ts');
  const band = sweepBand(book, size);
  const surface = surfaceOf('band', Math.round(band.size.widthPx * scale), Math.round(band.size.heightPx * scale));
  await paintScene(surface.context, band, scale, ready, new Map());
  context.drawImage(surface.canvas, Math.round(sweepLeftPx(progress, size.widthPx, band.size.widthPx) * scale), 0);
}

async function paintSubtitle(cut: WantedCut, context: OffscreenCanvasRenderingContext2D, ready: Engines, all: Painted): Promise<void> {
  const line = cut.moment?.subtitle === undefined ? undefined : all.get(cut.moment.subtitle);
  if (line) await paintScene(context, line.composed.scene, cut.scale, ready, new Map());
}

async function paintShot(cut: WantedCut, { scene }: Composed, ready: Engines, clipPictures: Recordings, use: string): Promise<Surface> {
  const [, , , , , , , { sceneAt }] = await parts;
  // Whole pixels only: a last one that the scene covers in part would show as a dark edge.
  const wholePixels = (lengthPx: number): number => Math.max(1, Math.floor(lengthPx * cut.scale + 1e-6));
  const surface = surfaceOf(use, wholePixels(scene.size.widthPx), wholePixels(scene.size.heightPx));
  const { moment } = cut;
  await paintScene(surface.context, moment ? sceneAt(scene, moment) : scene, cut.scale, ready, clipPictures);
  return surface;
}

async function paintScene(context: OffscreenCanvasRenderingContext2D, scene: Scene, scale: number, ready: Engines, clipPictures: Recordings): Promise<void> {
  const [, { paint }] = await parts;
  paint<Path2D, ImageBitmap | OffscreenCanvas>(context, scene, scale, {
    path: pathOf,
    glyph: (fontKey, glyphId) => ({ path: glyphPath(ready, fontKey, glyphId), unitsPerEm: ready.typesetter.unitsPerEm(fontKey) }),
    picture: (node, at) => clipPicture(node, at, clipPictures) ?? (node.part ? partOf(node, at) : (bitmaps.get(bitmapKey(node, at)) ?? lastBitmapOf(node, at))),
  });
}

/** The part of a clip's picture that a node shows, at the pixels it fills; null for what is no clip. */
function clipPicture(node: PictureNode, scale: number, clipPictures: Recordings): OffscreenCanvas | null {
  const clipPicture = clipPictures.get(node.pictureId);
  if (!clipPicture) return null;
  const { x, y, width, height } = node.window;
  const { widthPx: wide, heightPx: high } = pictureRaster(node, scale);
  const { canvas, context } = surfaceOf('clip', wide, high);
  context.imageSmoothingQuality = 'high';
  context.drawImage(clipPicture, x * clipPicture.width, y * clipPicture.height, width * clipPicture.width, height * clipPicture.height, 0, 0, wide, high);
  return canvas;
}

/** A photograph that moves is kept this much larger than it is shown: its parts are scaled anew with every frame. */
const MOVING_DETAIL = 1.6;

/** The scale at which a picture of a cut is kept. */
async function detailOf({ moment, scale }: WantedCut): Promise<(node: PictureNode) => number> {
  const { moves } = await import('../core/video/movement.ts');
  return (node) => (moment && moves(node, moment.movements.get(node.pictureId)) ? scale * MOVING_DETAIL : scale);
}

/** The part of a photograph that is shown while it moves, at the pixels it fills. */
function partOf(node: PictureNode, scale: number): OffscreenCanvas | null {
  const bitmap = bitmaps.get(bitmapKey(node, scale * MOVING_DETAIL)) ?? lastBitmapOf(node, scale * MOVING_DETAIL);
  if (!node.part || !bitmap) return null;
  const { x, y, width, height } = node.part;
  const { widthPx, heightPx } = pictureRaster(node, scale);
  const { canvas, context } = surfaceOf('clip', widthPx, heightPx);
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, x * bitmap.width, y * bitmap.height, width * bitmap.width, height * bitmap.height, 0, 0, canvas.width, canvas.height);
  return canvas;
}

function tell(message: WallMessage): void {
  self.postMessage(message);
}

const glyphPaths = new Map<string, Path2D>();

function glyphPath({ typesetter }: Engines, fontKey: string, glyphId: number): Path2D {
  const key = `${fontKey}/${glyphId}`;
  let path = glyphPaths.get(key);
  if (!path) {
    path = new Path2D(typesetter.outline(fontKey, glyphId));
    glyphPaths.set(key, path);
  }
  return path;
}

/** Outlines of ornaments come again with every key. */
const paths = new LRUCache<string, Path2D>({ max: 4_000 });

function pathOf(data: string): Path2D {
  const path = paths.get(data) ?? new Path2D(data);
  paths.set(data, path);
  return path;
}

/** Pictures as they came, and cropped and scaled to the pixels they fill in a cut. */
const sources = new Map<string, Promise<ImageBitmap>>();
const bitmaps = new LRUCache<string, ImageBitmap>({ max: 120, dispose: (bitmap) => bitmap.close() });

function bitmapKey(node: PictureNode, scale: number): string {
  const { x, y, width, height } = node.window;
  const { widthPx, heightPx } = node.box;
  return `${node.pictureId}|${x}|${y}|${width}|${height}|${widthPx}x${heightPx}|${node.mask ?? ''}|${node.tone?.dark ?? ''}${node.tone?.light ?? ''}@${scale}`;
}

/** While a new crop is on its way, the last one of about this size is better than a grey field. */
function lastBitmapOf(node: PictureNode, scale: number): ImageBitmap | null {
  return bitmaps.find((bitmap, key) => key.startsWith(`${node.pictureId}|`) && key.endsWith(`@${scale}`) && bitmap.width === Math.round(node.box.widthPx * scale)) ?? null;
}

/** Duotone and mask, for the pictures that have them. */
async function applyLooks(node: PictureNode, scale: number, bitmap: ImageBitmap): Promise<ImageBitmap> {
  if (!node.mask && !node.tone) return bitmap;
  const { applyTone, maskPicture } = await import('../core/scene/picture-looks.ts');
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser has no canvas for workers');
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  if (node.tone) {
    const image = context.getImageData(0, 0, canvas.width, canvas.height);
    applyTone(image.data, node.tone);
    context.putImageData(image, 0, 0);
  }
  maskPicture<Path2D>(context, node, scale, pathOf);
  return canvas.transferToImageBitmap();
}

async function fetchBitmap(node: PictureNode, scale: number, { pictures }: WallContent): Promise<void> {
  const wanted = pictures.find(({ picture }) => picture.id === node.pictureId);
  if (!wanted) throw new Error('A cut shows a picture that is not at hand');
  let source = sources.get(wanted.address);
  if (!source) {
    source = fetch(wanted.address).then(async (response) => {
      if (!response.ok) throw new Error('A picture could not be loaded');
      return createImageBitmap(await response.blob());
    });
    source.catch(() => sources.delete(wanted.address));
    sources.set(wanted.address, source);
  }
  const bitmap = await source;
  const target = pictureRaster(node, scale);
  const scaled = await createImageBitmap(
    bitmap,
    Math.round(node.window.x * bitmap.width),
    Math.round(node.window.y * bitmap.height),
    Math.max(1, Math.round(node.window.width * bitmap.width)),
    Math.max(1, Math.round(node.window.height * bitmap.height)),
    { resizeWidth: target.widthPx, resizeHeight: target.heightPx, resizeQuality: 'high' },
  );
  bitmaps.set(bitmapKey(node, scale), await applyLooks(node, scale, scaled));
}
