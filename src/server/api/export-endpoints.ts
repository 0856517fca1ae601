import * as contracts from '../../contract/piece-contracts.ts';
import { slugOf } from '../../core/words/slug.ts';
import { fileNames, unknownPlaceholders, USUAL_NAME_PATTERN, type NameValues } from '../../core/export/file-names.ts';
import { pieceName, type CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { getPlacement, type NetworkSheet } from '../../core/network/network-sheet.ts';
import { fillWords } from '../../core/wording/compose.ts';
import { cellOf } from '../../core/wording/row.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand, type Channel } from '../db/brand-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { cutSourceOf, metadataOf, slidesIn } from '../render/cut-source.ts';
import { TooHeavyError } from '../render/errors.ts';
import type { RenderedPicture, RenderJob } from '../render/render-cut.ts';
import { madeEntry, writeZip, type ZipEntry } from '../zip/write-zip.ts';
import type { Services } from '../services.ts';
import { takeArchivePlace, withEnd } from './archive-share.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { getStoredPiece } from './piece-endpoints.ts';

type Scale = 1 | 2;
interface Out {
  readonly format: contracts.FileFormat;
  readonly scale: Scale;
}

const endings: Readonly<Record<contracts.FileFormat, string>> = { png: 'png', jpeg: 'jpg', webp: 'webp', avif: 'avif', svg: 'svg', pdf: 'pdf' };

/** A cut with the channel and the sheet that it is for. */
interface CutOut {
  readonly cut: CutRef;
  readonly channel: Channel;
  readonly sheet: NetworkSheet;
}

async function cutsOut(services: Services, brand: Brand, snapshot: Snapshot, cuts: readonly CutRef[]): Promise<readonly CutOut[]> {
  const channels = await listChannels(services.db, brand.id);
  return cuts.map((cut) => {
    const channel = channels.find((each) => each.id === cut.channelId);
    const sheet = snapshot.sheets.find((each) => each.key === channel?.network);
    if (!channel || !sheet || !snapshot.piece.cuts.some((each) => each.channelId === cut.channelId && each.placement === cut.placement)) throw notFound('cut');
    return { cut, channel, sheet };
  });
}

function jobOf(services: Services, brand: Brand, snapshot: Snapshot, { cut, channel, sheet }: CutOut, { format, scale }: Out): Extract<RenderJob, { kind: 'as' }> {
  const altText = fillWords(cellOf({ piece: snapshot.piece, channel, sheet, book: brand.book }, 'altText').text, brand.book, channel.network).text;
  const source = cutSourceOf(snapshot, channel.network, cut, services.media);
  const maxBytes = format === 'pdf' && snapshot.piece.kind === 'carousel' ? (sheet.files.maxDocumentBytes ?? Infinity) : sheet.files.maxImageBytes;
  return { kind: 'as', source, format, scale, maxBytes, metadata: metadataOf(snapshot, pieceName(snapshot.piece), altText, slidesIn(snapshot, channel.network, cut)) };
}

function nameValues(snapshot: Snapshot, { cut, channel, sheet }: CutOut, index: number, scale: Scale, date: string): NameValues {
  const { width, height } = getPlacement(sheet, cut.placement).exportPx;
  return { piece: slugOf(pieceName(snapshot.piece)), network: channel.network, placement: cut.placement, width: String(width * scale), height: String(height * scale), date, number: String(index + 1).padStart(2, '0') };
}

async function renderOut(services: Services, job: Extract<RenderJob, { kind: 'as' }>): Promise<readonly RenderedPicture[]> {
  try {
    return await services.render.pictures(job);
  } catch (error) {
    if (!(error instanceof TooHeavyError)) throw error;
    throw new ProblemError(422, 'too-heavy', `As ${job.format.toUpperCase()} this cut does not get below the ${Math.round(job.maxBytes / 1024 / 1024)} MB that the network takes. Export it as JPEG or WebP, or at 1x.`);
  }
}

const getCutFile = defineEndpoint({
  contract: contracts.getCutFile,
  may: 'see',
  async handle({ services, brand, params, query, nowMs }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const snapshot = await makeSnapshot(services, brand, piece.document);
    const [out] = await cutsOut(services, brand, snapshot, [{ channelId: params.channelId, placement: params.placement }]);
    if (!out) throw notFound('cut');
    const as: Out = { format: query.as ?? 'png', scale: query.scale ?? 1 };
    const job = jobOf(services, brand, snapshot, out, as);
    const at = (query.slide ?? 1) - 1;
    const file = (await renderOut(services, as.format === 'pdf' ? job : onlySlide(job, at)))[0];
    if (!file) throw notFound('slide');
    const [name = ''] = numbered(fileNames(USUAL_NAME_PATTERN, [nameValues(snapshot, out, 0, as.scale, wallTimeOf(nowMs, brand.zone).slice(0, 10))], endings[as.format])[0] ?? '', filesOf(job)).slice(at);
    return new Response(Buffer.from(file.bytes), { headers: { 'content-type': file.mime, ...download(name) } });
  },
});

/** How many files a job makes: a PDF holds all slides, everything else is a file a slide. */
function filesOf({ format, source }: Extract<RenderJob, { kind: 'as' }>): number {
  return format === 'pdf' ? 1 : source.slides.length;
}

/** Slides are fitted together, so all of them are composed; but only one is painted. */
function onlySlide(job: Extract<RenderJob, { kind: 'as' }>, index: number): Extract<RenderJob, { kind: 'as' }> {
  return { ...job, only: index };
}

/** The names of the files of one cut: one, or one a slide with its number, so that they sort as they are read. */
function numbered(name: string, files: number): readonly string[] {
  if (files === 1) return [name];
  const dot = name.lastIndexOf('.');
  const digits = String(files).length < 2 ? 2 : String(files).length;
  return Array.from({ length: files }, (_, index) => `${name.slice(0, dot)}-${String(index + 1).padStart(digits, '0')}${name.slice(dot)}`);
}

const getCutsArchive = defineEndpoint({
  contract: contracts.getCutsArchive,
  may: 'see',
  async handle({ services, brand, caller, params, query, request, nowMs }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const pattern = query.names ?? USUAL_NAME_PATTERN;
    const [unknown] = unknownPlaceholders(pattern);
    if (unknown !== undefined) throw new ProblemError(422, 'unknown-placeholder', `{${unknown}} stands for nothing in a file name.`);
    const snapshot = await makeSnapshot(services, brand, piece.document);
    const outs = await cutsOut(services, brand, snapshot, piece.document.cuts);
    const as: Out = { format: query.as, scale: query.scale ?? 1 };
    const date = wallTimeOf(nowMs, brand.zone).slice(0, 10);
    const names = fileNames(pattern, outs.map((out, index) => nameValues(snapshot, out, index, as.scale, date)), endings[as.format]);
    const rendered = new Map<string, Promise<readonly RenderedPicture[]>>();
    const entries = outs.flatMap((out, index): readonly ZipEntry[] => {
      const job = jobOf(services, brand, snapshot, out, as);
      const { slides, placement } = job.source;
      // Networks that take the same size get the same pictures, painted once.
      const alike = JSON.stringify([placement.exportPx, placement.safePercent, slides.map(({ frame, adjustment }) => [frame.id, adjustment]), job.maxBytes, job.metadata.map(({ altText }) => altText)]);
      const pictures = (): Promise<readonly RenderedPicture[]> => {
        const known = rendered.get(alike) ?? services.render.afterOthers(() => renderOut(services, job));
        rendered.set(alike, known);
        return known;
      };
      return numbered(names[index] ?? `${index}`, filesOf(job)).map((name, at) => madeEntry(name, async () => (await pictures())[at]?.bytes ?? new Uint8Array()));
    });
    const giveBack = takeArchivePlace(caller.person.id);
    request.signal.addEventListener('abort', giveBack, { once: true });
    return new Response(withEnd(writeZip(entries, request.signal), giveBack), { headers: { 'content-type': 'application/zip', ...download(`${slugOf(pieceName(piece.document))}-${query.as}${as.scale === 2 ? '-2x' : ''}.zip`) } });
  },
});

function download(name: string): Record<string, string> {
  return { 'content-disposition': attachment(name), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff', 'content-security-policy': "sandbox; default-src 'none'" };
}

export const exportEndpoints: readonly Endpoint[] = [getCutFile, getCutsArchive];
