import sharp from 'sharp';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import type { Composed } from '../../core/compose/compose.ts';
import { cutFrame } from '../../core/compose/cut-frame.ts';
import { RunComposer, type RunMember } from '../../core/compose/compose-run.ts';
import { neededGlyphs } from '../../core/compose/needed-glyphs.ts';
import type { CutReport } from '../../core/compose/report.ts';
import type { Picture } from '../../core/crop/crop-window.ts';
import type { Placement } from '../../core/network/network-sheet.ts';
import { linkedCut, type Adjustment } from '../../core/piece/adjustment.ts';
import type { Frame } from '../../core/piece/piece.ts';
import { ALONE, type SlidePlace } from '../../core/piece/slides-of-cut.ts';
import type { Scene } from '../../core/scene/scene.ts';
import type { Template } from '../../core/template/template.ts';
import { mannerOf } from '../../core/video/manner.ts';
import { sweepBand } from '../../core/video/sweep.ts';
import { subtitleRisePx } from '../../core/video/place-subtitle.ts';
import { subtitleStyle } from '../../core/video/subtitle-style.ts';
import { toXmp, type PictureMetadata } from '../../core/export/picture-metadata.ts';
import { paintCue, type PaintedCue } from './paint-cue.ts';
import { paintShot, paintToFile, type PaintedInk, type PaintedShot, type ShotTimes } from './paint-layers.ts';
import { TooHeavyError } from './errors.ts';
import { BEST_QUALITY, encodeCut, paintScene, type PaintedCut, type PictureFormat, type PictureSource } from './canvas-painter.ts';
import type { ServerEngines } from './engines.ts';
import { sceneToSvg } from './scene-to-svg.ts';

/** One slide of a cut; a graphic has one. */
export interface SlideSource {
  readonly template: Template;
  readonly frame: Frame;
  readonly adjustment: Adjustment;
  readonly place: SlidePlace;
  /** The kind of slide: those of one kind share their type sizes. */
  readonly family: string;
}

/** All that a cut is made of, as plain data that crosses to a worker thread. */
export interface CutSource {
  readonly slides: readonly SlideSource[];
  readonly book: BrandBook;
  readonly placement: Placement;
  readonly pictures: readonly { readonly picture: Picture; readonly filePath: string }[];
  /** Files of the brand's own typefaces, by key. */
  readonly typefaceFiles: Readonly<Record<string, string>>;
}

/** A line of subtitles, the shots, by index, that it lies over, and the frames of the video in which its words begin to be spoken. */
export interface SubtitleSource {
  readonly text: string;
  readonly over: readonly number[];
  readonly wordFrames: readonly number[];
}

export type FileFormat = PictureFormat | 'svg' | 'pdf';

export type RenderJob =
  /** Full size to be sent, a picture a slide: PNG, or the best JPEG, whichever stays below `maxBytes`. */
  | { readonly kind: 'full'; readonly source: CutSource; readonly maxBytes: number; readonly metadata: readonly PictureMetadata[] }
  /** Files for download, one a slide, at the best quality that stays below `maxBytes` (vectors are as large as they are); with `only`, of this slide alone. A PDF is one file with a page a slide. */
  | { readonly kind: 'as'; readonly source: CutSource; readonly format: FileFormat; readonly scale: 1 | 2; readonly maxBytes: number; readonly metadata: readonly PictureMetadata[]; readonly only?: number }
  /** One slide, the first if none is named, as a small WebP, no higher or wider than `fitPx`; empty texts show their hint. */
  | { readonly kind: 'small'; readonly source: CutSource; readonly fitPx: number; readonly only?: number }
  /** What of a video's shots does not move by itself, as files in `folder`; and its subtitles. */
  | { readonly kind: 'layers'; readonly source: CutSource; readonly shots: readonly ShotTimes[]; readonly clips: readonly string[]; readonly subtitles: readonly SubtitleSource[]; readonly sweeps: boolean; readonly folder: string }
  /** No pixels, only what the engine reports. */
  | { readonly kind: 'report'; readonly sources: readonly CutSource[] };

export type RenderResult =
  /** Even the lowest quality is over the limit: an answer, as classes of errors do not survive the way between threads. */
  | { readonly kind: 'too-heavy'; readonly maxBytes: number }
  | ({ readonly kind: 'layers' } & PaintedLayers)
  | { readonly kind: 'pictures'; readonly pictures: readonly RenderedPicture[] }
  /** The reports of every source, slide by slide. */
  | { readonly kind: 'reports'; readonly reports: readonly (readonly CutReport[])[] };

export interface PaintedLayers {
  readonly shots: readonly PaintedShot[];
  /** The pictures of each line of subtitles; null where it has no ink. */
  readonly subtitles: readonly (PaintedCue | null)[];
  /** The band that sweeps over transitions; null where none does. */
  readonly band: PaintedInk | null;
}

export interface RenderedPicture {
  readonly bytes: Uint8Array;
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

export const fileMimes: Readonly<Record<FileFormat, string>> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp', avif: 'image/avif', svg: 'image/svg+xml', pdf: 'application/pdf' };

/** Lower qualities show; a file that needs them is refused instead. */
const MIN_QUALITY: Readonly<Record<PictureFormat, number>> = { png: 60, jpeg: 40, webp: 40, avif: 25 };

/** Composes and paints the slides of a cut with the same core and painter as the preview. */
export async function runRenderJob(job: RenderJob, engines: ServerEngines): Promise<RenderResult> {
  try {
    return await render(job, engines);
  } catch (error) {
    if (error instanceof TooHeavyError) return { kind: 'too-heavy', maxBytes: error.maxBytes };
    throw error;
  }
}

async function render(job: RenderJob, engines: ServerEngines): Promise<RenderResult> {
  switch (job.kind) {
    case 'report': {
      const reports: (readonly CutReport[])[] = [];
      for (const source of job.sources) reports.push((await composeSource(source, engines, false)).map(({ report }) => report));
      return { kind: 'reports', reports };
    }
    case 'layers':
      return { kind: 'layers', ...(await paintLayers(job, engines)) };
    case 'small':
      return { kind: 'pictures', pictures: [await renderSmall(job, engines)] };
    case 'as':
      return { kind: 'pictures', pictures: await renderFiles(job, engines) };
    case 'full':
      return { kind: 'pictures', pictures: await eachSlide(job, engines, (scene, metadata) => renderFull(scene, metadata, job, engines)) };
  }
}

async function composeSource({ slides, book, placement, pictures: shown, typefaceFiles }: CutSource, engines: ServerEngines, ghosts: boolean): Promise<readonly Composed[]> {
  await engines.load(neededGlyphs(book, slides), typefaceFiles);
  const pictures = new Map(shown.map(({ picture }) => [picture.id, picture]));
  const members = slides.map((slide, index): RunMember => ({ ...slide, book, placement, pictures, ghosts, signature: String(index) }));
  return new RunComposer(engines.engines).compose(members);
}

type JobOf<Kind extends RenderJob['kind']> = Extract<RenderJob, { kind: Kind }>;

const noMetadata: PictureMetadata = { title: '', altText: '', credit: '', licence: '' };

async function eachSlide(job: JobOf<'as' | 'full'>, engines: ServerEngines, render: (scene: Scene, metadata: PictureMetadata) => Promise<RenderedPicture>): Promise<readonly RenderedPicture[]> {
  const pictures: RenderedPicture[] = [];
  for (const [index, { scene }] of (await composeSource(job.source, engines, false)).entries()) {
    if (job.kind === 'as' && job.only !== undefined && job.only !== index) continue;
    pictures.push(await render(scene, job.metadata[index] ?? noMetadata));
  }
  return pictures;
}

function pictureFiles(source: CutSource): ReadonlyMap<string, PictureSource> {
  return new Map(source.pictures.map(({ picture, filePath }) => [picture.id, { filePath, widthPx: picture.widthPx, heightPx: picture.heightPx }]));
}

async function paintLayers({ source, shots, clips, subtitles, sweeps, folder }: JobOf<'layers'>, engines: ServerEngines): Promise<PaintedLayers> {
  const painter = { typesetter: engines.engines.typesetter, sources: pictureFiles(source), folder };
  const moving = new Set(clips);
  const painted: PaintedShot[] = [];
  const composedShots = await composeSource(source, engines, false);
  for (const [index, { scene }] of composedShots.entries()) {
    const times = shots[index];
    if (times) painted.push(await paintShot(scene, times, { clips: moving, manner: mannerOf(source.book.video), name: `shot-${index}` }, painter));
  }
  const lines: PaintedLayers['subtitles'][number][] = [];
  const style = subtitleStyle(source.book);
  for (const [index, { text, over, wordFrames }] of subtitles.entries()) {
    const slide: SlideSource = { template: style.template, frame: { id: 'cue', slots: { line: { kind: 'text', text } } }, adjustment: linkedCut, place: ALONE, family: 'subtitle' };
    const [composed] = await composeSource({ ...source, slides: [slide] }, engines, false);
    const ink = composed ? await paintCue(composed.scene, style, wordFrames, `cue-${index}.rgba`, painter) : null;
    const behind = over.flatMap((shot) => composedShots[shot]?.report ?? []);
    lines.push(ink && composed ? { ...ink, box: { ...ink.box, yPx: ink.box.yPx - subtitleRisePx(composed.report, behind, cutFrame(source.placement)) } } : null);
  }
  const { width, height } = source.placement.exportPx;
  const band = sweeps ? await paintToFile(sweepBand(source.book, { widthPx: width, heightPx: height }), 'band.rgba', painter) : null;
  return { shots: painted, subtitles: lines, band };
}

async function renderSmall({ source, fitPx, only = 0 }: JobOf<'small'>, engines: ServerEngines): Promise<RenderedPicture> {
  const first = (await composeSource(source, engines, true))[only];
  if (!first) throw new RangeError('A cut without slides cannot be painted');
  const painted = await paintScene(first.scene, engines.engines.typesetter, pictureFiles(source), 1);
  const { data, info } = await sharp(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } })
    .resize(fitPx, fitPx, { fit: 'inside' })
    .webp({ quality: 86 })
    .toBuffer({ resolveWithObject: true });
  return { bytes: data, mime: 'image/webp', widthPx: info.width, heightPx: info.height };
}

function renderFiles(job: JobOf<'as'>, engines: ServerEngines): Promise<readonly RenderedPicture[]> {
  const { format } = job;
  if (format === 'pdf') return renderDocument(job, engines).then((document) => [document]);
  return eachSlide(job, engines, (scene, metadata) => renderAs(scene, metadata, { ...job, format }, engines));
}

/** All slides as the pages of one file. */
async function renderDocument({ source, metadata, maxBytes }: JobOf<'as'>, engines: ServerEngines): Promise<RenderedPicture> {
  const composed = await composeSource(source, engines, false);
  const { width, height } = source.placement.exportPx;
  const pages = composed.map(({ scene, report }, index) => ({ scene, texts: report.placed, typesetter: engines.engines.typesetter, sources: pictureFiles(source), metadata: metadata[index] ?? noMetadata }));
  const { scenesToPdf } = await import('./scene-to-pdf.ts');
  const bytes = await scenesToPdf(pages);
  if (bytes.length > maxBytes) throw new TooHeavyError(maxBytes);
  return { bytes, mime: fileMimes.pdf, widthPx: width, heightPx: height };
}

async function renderAs(scene: Scene, metadata: PictureMetadata, { source, format, scale, maxBytes }: JobOf<'as'> & { readonly format: Exclude<FileFormat, 'pdf'> }, engines: ServerEngines): Promise<RenderedPicture> {
  const mime = fileMimes[format];
  const { typesetter } = engines.engines;
  if (format === 'svg') return { bytes: await sceneToSvg({ scene, typesetter, sources: pictureFiles(source), metadata }), mime, ...scene.size };
  const painted = await paintScene(scene, typesetter, pictureFiles(source), scale);
  const bytes = await encodeBelow(painted, format, maxBytes, toXmp(metadata));
  if (!bytes) throw new TooHeavyError(maxBytes);
  return { bytes, mime, widthPx: painted.widthPx, heightPx: painted.heightPx };
}

async function renderFull(scene: Scene, metadata: PictureMetadata, { source, maxBytes }: JobOf<'full'>, engines: ServerEngines): Promise<RenderedPicture> {
  const painted = await paintScene(scene, engines.engines.typesetter, pictureFiles(source), 1);
  const size = { widthPx: painted.widthPx, heightPx: painted.heightPx };
  const xmp = toXmp(metadata);
  const png = await encodeCut(painted, { format: 'png', quality: BEST_QUALITY.png, xmp });
  if (png.length <= maxBytes) return { bytes: png, mime: fileMimes.png, ...size };
  const jpeg = await encodeBelow(painted, 'jpeg', maxBytes, xmp);
  if (!jpeg) throw new TooHeavyError(maxBytes);
  return { bytes: jpeg, mime: fileMimes.jpeg, ...size };
}

/** The best quality whose file stays below a size, by bisection; null when even the least does not. */
async function encodeBelow(painted: PaintedCut, format: PictureFormat, maxBytes: number, xmp: string): Promise<Buffer | null> {
  const at = (quality: number): Promise<Buffer> => encodeCut(painted, { format, quality, xmp });
  const best = await at(BEST_QUALITY[format]);
  if (best.length <= maxBytes) return best;
  let [low, high] = [MIN_QUALITY[format], BEST_QUALITY[format]];
  let found: Buffer | null = null;
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const tried = await at(middle);
    if (tried.length <= maxBytes) {
      found = tried;
      low = middle + 1;
    } else high = middle;
  }
  return found;
}
