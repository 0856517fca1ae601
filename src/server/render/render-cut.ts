import sharp from 'sharp';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { compose, type Composed } from '../../core/compose/compose.ts';
import { neededGlyphs } from '../../core/compose/needed-glyphs.ts';
import type { CutReport } from '../../core/compose/report.ts';
import type { Picture } from '../../core/crop/crop-window.ts';
import type { Placement } from '../../core/network/network-sheet.ts';
import type { Adjustment } from '../../core/piece/adjustment.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import { encodeCut, paintScene } from './canvas-painter.ts';
import type { ServerEngines } from './engines.ts';

/** All that a cut is made of, as plain data that crosses to a worker thread. */
export interface CutSource {
  readonly template: Template;
  readonly frame: Frame;
  readonly book: BrandBook;
  readonly placement: Placement;
  readonly adjustment: Adjustment;
  readonly pictures: readonly { readonly picture: Picture; readonly filePath: string }[];
  /** Files of the brand's own typefaces, by key. */
  readonly typefaceFiles: Readonly<Record<string, string>>;
}

export type RenderJob =
  /** Full size: PNG, or the best JPEG, whichever stays below `maxBytes`. */
  | { readonly kind: 'full'; readonly source: CutSource; readonly maxBytes: number }
  /** Full size in a format that was asked for. */
  | { readonly kind: 'as'; readonly source: CutSource; readonly format: 'png' | 'jpeg' | 'webp' | 'avif' }
  /** Small WebP, no higher or wider than `fitPx`; empty texts show their hint. */
  | { readonly kind: 'small'; readonly source: CutSource; readonly fitPx: number }
  /** No pixels, only what the engine reports. */
  | { readonly kind: 'report'; readonly sources: readonly CutSource[] };

export type RenderResult =
  | { readonly kind: 'picture'; readonly bytes: Uint8Array; readonly mime: string; readonly widthPx: number; readonly heightPx: number }
  | { readonly kind: 'reports'; readonly reports: readonly CutReport[] };

/** JPEG qualities tried, best first, when a PNG is too heavy for a network. */
const JPEG_QUALITIES = [92, 86, 80, 72, 62, 50] as const;

export class TooHeavyError extends Error {
  override readonly name = 'TooHeavyError';
  readonly code = 'too-heavy';
  constructor(readonly maxBytes: number) {
    super(`No quality of this cut stays below ${maxBytes} bytes`);
  }
}

/**
 * Composes and paints one cut with the same core and painter as the preview.
 * @throws TooHeavyError when even the lowest quality is over the limit
 */
export async function runRenderJob(job: RenderJob, engines: ServerEngines): Promise<RenderResult> {
  switch (job.kind) {
    case 'report':
      return { kind: 'reports', reports: await reportsOf(job.sources, engines) };
    case 'small':
      return renderSmall(job.source, job.fitPx, engines);
    case 'as':
      return renderAs(job.source, job.format, engines);
    case 'full':
      return renderFull(job.source, job.maxBytes, engines);
  }
}

async function reportsOf(sources: readonly CutSource[], engines: ServerEngines): Promise<readonly CutReport[]> {
  const reports: CutReport[] = [];
  for (const source of sources) reports.push((await composeSource(source, engines, false)).report);
  return reports;
}

async function composeSource(source: CutSource, engines: ServerEngines, ghosts: boolean): Promise<Composed> {
  await engines.load(neededGlyphs(source.book, source.template, source.frame), source.typefaceFiles);
  const pictures = new Map(source.pictures.map(({ picture }) => [picture.id, picture]));
  return compose({ template: source.template, frame: source.frame, book: source.book, placement: source.placement, adjustment: source.adjustment, pictures, ghosts }, engines.engines);
}

async function paintSource(source: CutSource, engines: ServerEngines, ghosts: boolean) {
  const files = new Map(source.pictures.map(({ picture, filePath }) => [picture.id, { filePath, widthPx: picture.widthPx, heightPx: picture.heightPx }]));
  const { scene } = await composeSource(source, engines, ghosts);
  return paintScene(scene, engines.engines.typesetter, files);
}

async function renderSmall(source: CutSource, fitPx: number, engines: ServerEngines): Promise<RenderResult> {
  const painted = await paintSource(source, engines, true);
  const { data, info } = await sharp(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } })
    .resize(fitPx, fitPx, { fit: 'inside' })
    .webp({ quality: 86 })
    .toBuffer({ resolveWithObject: true });
  return { kind: 'picture', bytes: data, mime: 'image/webp', widthPx: info.width, heightPx: info.height };
}

async function renderAs(source: CutSource, format: 'png' | 'jpeg' | 'webp' | 'avif', engines: ServerEngines): Promise<RenderResult> {
  const painted = await paintSource(source, engines, false);
  return { kind: 'picture', bytes: await encodeCut(painted, format), mime: `image/${format}`, widthPx: painted.widthPx, heightPx: painted.heightPx };
}

async function renderFull(source: CutSource, maxBytes: number, engines: ServerEngines): Promise<RenderResult> {
  const painted = await paintSource(source, engines, false);
  const size = { widthPx: painted.widthPx, heightPx: painted.heightPx };
  const png = await encodeCut(painted, 'png');
  if (png.length <= maxBytes) return { kind: 'picture', bytes: png, mime: 'image/png', ...size };
  for (const quality of JPEG_QUALITIES) {
    const jpeg = await encodeCut(painted, 'jpeg', quality);
    if (jpeg.length <= maxBytes) return { kind: 'picture', bytes: jpeg, mime: 'image/jpeg', ...size };
  }
  throw new TooHeavyError(maxBytes);
}
