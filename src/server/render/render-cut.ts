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
import { toXmp, type PictureMetadata } from '../../core/export/picture-metadata.ts';
import { BEST_QUALITY, encodeCut, paintScene, type PaintedCut, type PictureFormat, type PictureSource } from './canvas-painter.ts';
import type { ServerEngines } from './engines.ts';
import { scenesToPdf } from './scene-to-pdf.ts';
import { sceneToSvg } from './scene-to-svg.ts';

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

export type FileFormat = PictureFormat | 'svg' | 'pdf';

export type RenderJob =
  /** Full size to be sent: PNG, or the best JPEG, whichever stays below `maxBytes`. */
  | { readonly kind: 'full'; readonly source: CutSource; readonly maxBytes: number; readonly metadata: PictureMetadata }
  /** A file to be taken out, at the best quality that stays below `maxBytes` (vectors are as large as they are). */
  | { readonly kind: 'as'; readonly source: CutSource; readonly format: FileFormat; readonly scale: 1 | 2; readonly maxBytes: number; readonly metadata: PictureMetadata }
  /** Small WebP, no higher or wider than `fitPx`; empty texts show their hint. */
  | { readonly kind: 'small'; readonly source: CutSource; readonly fitPx: number }
  /** No pixels, only what the engine reports. */
  | { readonly kind: 'report'; readonly sources: readonly CutSource[] };

export type RenderResult =
  | { readonly kind: 'picture'; readonly bytes: Uint8Array; readonly mime: string; readonly widthPx: number; readonly heightPx: number }
  | { readonly kind: 'reports'; readonly reports: readonly CutReport[] };

export const fileMimes: Readonly<Record<FileFormat, string>> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp', avif: 'image/avif', svg: 'image/svg+xml', pdf: 'application/pdf' };

/** Lower qualities show; a file that needs them is refused instead. */
const LEAST_QUALITY: Readonly<Record<PictureFormat, number>> = { png: 60, jpeg: 40, webp: 40, avif: 25 };

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
      return renderAs(job, engines);
    case 'full':
      return renderFull(job, engines);
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

async function paintSource(source: CutSource, engines: ServerEngines, options: { readonly ghosts: boolean; readonly scale: number }) {
  const { scene } = await composeSource(source, engines, options.ghosts);
  return paintScene(scene, engines.engines.typesetter, pictureFiles(source), options.scale);
}

function pictureFiles(source: CutSource): ReadonlyMap<string, PictureSource> {
  return new Map(source.pictures.map(({ picture, filePath }) => [picture.id, { filePath, widthPx: picture.widthPx, heightPx: picture.heightPx }]));
}

async function renderSmall(source: CutSource, fitPx: number, engines: ServerEngines): Promise<RenderResult> {
  const painted = await paintSource(source, engines, { ghosts: true, scale: 1 });
  const { data, info } = await sharp(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } })
    .resize(fitPx, fitPx, { fit: 'inside' })
    .webp({ quality: 86 })
    .toBuffer({ resolveWithObject: true });
  return { kind: 'picture', bytes: data, mime: 'image/webp', widthPx: info.width, heightPx: info.height };
}

type JobOf<Kind extends RenderJob['kind']> = Extract<RenderJob, { kind: Kind }>;

async function renderAs({ source, format, scale, maxBytes, metadata }: JobOf<'as'>, engines: ServerEngines): Promise<RenderResult> {
  const mime = fileMimes[format];
  if (format === 'svg' || format === 'pdf') {
    const { scene } = await composeSource(source, engines, false);
    const input = { scene, typesetter: engines.engines.typesetter, sources: pictureFiles(source), metadata };
    const bytes = format === 'svg' ? await sceneToSvg(input) : await scenesToPdf([input]);
    return { kind: 'picture', bytes, mime, ...scene.size };
  }
  const painted = await paintSource(source, engines, { ghosts: false, scale });
  const bytes = await encodeBelow(painted, format, maxBytes, toXmp(metadata));
  if (!bytes) throw new TooHeavyError(maxBytes);
  return { kind: 'picture', bytes, mime, widthPx: painted.widthPx, heightPx: painted.heightPx };
}

async function renderFull({ source, maxBytes, metadata }: JobOf<'full'>, engines: ServerEngines): Promise<RenderResult> {
  const painted = await paintSource(source, engines, { ghosts: false, scale: 1 });
  const size = { widthPx: painted.widthPx, heightPx: painted.heightPx };
  const xmp = toXmp(metadata);
  const png = await encodeCut(painted, { format: 'png', quality: BEST_QUALITY.png, xmp });
  if (png.length <= maxBytes) return { kind: 'picture', bytes: png, mime: fileMimes.png, ...size };
  const jpeg = await encodeBelow(painted, 'jpeg', maxBytes, xmp);
  if (!jpeg) throw new TooHeavyError(maxBytes);
  return { kind: 'picture', bytes: jpeg, mime: fileMimes.jpeg, ...size };
}

/** The best quality whose file stays below a size, by bisection; null when even the least does not. */
async function encodeBelow(painted: PaintedCut, format: PictureFormat, maxBytes: number, xmp: string): Promise<Buffer | null> {
  const at = (quality: number): Promise<Buffer> => encodeCut(painted, { format, quality, xmp });
  const best = await at(BEST_QUALITY[format]);
  if (best.length <= maxBytes) return best;
  let [low, high] = [LEAST_QUALITY[format], BEST_QUALITY[format]];
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
