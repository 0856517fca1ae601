import { nanoid } from 'nanoid';
import { DateTime } from 'luxon';
import type { BodyOf } from '../../contract/contract.ts';
import type { makeFromFiles } from '../../contract/begin-contracts.ts';
import { captionOf, wordsOfName, type DroppedFile } from '../../core/ideas/many-files.ts';
import { placesOf, usualCut } from '../../core/cut/places.ts';
import { resolveCuts } from '../../core/cut/resolve-cuts.ts';
import { beginFrames } from '../../core/piece/begin-frames.ts';
import { takesPictures } from '../../core/piece/draft-slides.ts';
import { pieceName, readPiece, type Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds, type MediaItem } from '../db/media-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { addToQueue } from '../db/queue-repository.ts';
import { findTemplate } from '../db/template-repository.ts';
import { ProblemError } from '../errors.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { keepEntry, momentOfSpot, usualCutsOf } from '../plan/place-piece.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { Services } from '../services.ts';
import { openSlotsFor } from './open-slots.ts';

type Body = BodyOf<typeof makeFromFiles>;
const SLOT_DAYS = 180;
const MAX_HEADLINE = 60;

export interface MadeFromFiles {
  readonly pieceIds: readonly string[];
  readonly planned: number;
  readonly notes: readonly string[];
}

/**
 * Pieces of many pictures and clips, each in the template whose crop keeps most of it, or one carousel or video of all; spread over the rota when it is asked for.
 * @throws ProblemError 422 when a file or a template cannot be used
 */
export async function piecesFromFiles(services: Services, brand: Brand, body: Body, personId: string, nowMs: number): Promise<MadeFromFiles> {
  const { db, clock } = services;
  const items = await findMediaByIds(db, brand.id, body.mediaIds);
  const files = [...new Set(body.mediaIds)].flatMap((id) => items.find((item) => item.id === id) ?? []).filter(({ recording }) => recording?.kind !== 'sound');
  if (files.length === 0) throw new ProblemError(422, 'unknown-picture', 'None of the chosen files is a picture or a clip of this brand.');
  const templates = await Promise.all(body.templates.map(async (key) => {
    const template = await findTemplate(db, brand.id, key);
    if (!template) throw new ProblemError(422, 'unknown-template', `There is no template '${key}'.`);
    return template;
  }));
  const documents = body.as === 'each' ? await pieceEach(services, brand, files, templates, body) : [await pieceOfAll(services, brand, files, templates, body)];
  const pieces = [];
  for (const document of documents) {
    const piece = await insertPiece(db, { id: nanoid(12), brandId: brand.id, document, createdBy: personId }, nowMs);
    await db.transaction((trx) => savePiecePlan(trx, brand.id, piece.id, { ...noPiecePlan, themeId: body.themeId }, clock.machineNowMs()));
    pieces.push(piece);
  }
  const notes: string[] = [];
  let planned = 0;
  const channelIds = body.channelIds.length > 0 ? body.channelIds : (await listChannels(db, brand.id)).filter(({ state }) => state !== 'ended').map(({ id }) => id);
  const slots = body.spread === 'slots' ? await openSlotsFor(services, brand, { channelIds, themeId: body.themeId, days: SLOT_DAYS }, nowMs) : [];
  for (const [index, piece] of pieces.entries()) {
    if (body.spread === 'none') break;
    try {
      const slot = slots[index];
      const cuts = await usualCutsOf(services, brand, piece, slot?.channelIds ?? channelIds);
      if (cuts.length === 0) throw new ProblemError(422, 'no-cut', `“${pieceName(piece.document)}” has no cut for these channels.`);
      if (body.spread === 'queue') await addToQueue(db, brand.id, piece.id, cuts.map(({ channelId, placement }) => ({ id: nanoid(12), channelId, placement })), personId, clock.machineNowMs());
      else {
        if (!slot) throw new ProblemError(422, 'no-slot', `The rota has no open slot for ${pieces.length - index} of the pieces in the next ${SLOT_DAYS} days.`);
        const { wall, dueMs, slotKey } = await momentOfSpot(services, brand, { kind: 'slot', slotKey: slot.key }, nowMs);
        await keepEntry(services, brand, { id: nanoid(12), pieceId: piece.id, text: '', themeId: body.themeId, campaignId: null, wall, dueMs, zone: brand.zone, slotKey: slotKey ?? null, cuts }, personId);
      }
      planned += 1;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notes.push(error.sentence);
      if (error.code === 'no-slot') break;
    }
  }
  return { pieceIds: pieces.map(({ id }) => id), planned, notes: [...new Set(notes)] };
}

const dayWords = (brand: Brand) => (day: string): string => DateTime.fromISO(day).setLocale((brand.book.language ?? 'en') === 'en' ? 'en-GB' : (brand.book.language ?? 'en')).toLocaleString(DateTime.DATE_FULL);

const fileOf = ({ id, name, altText, takenDay }: MediaItem): DroppedFile => ({ id, name, altText, takenDay, subtitles: '' });

async function pieceEach(services: Services, brand: Brand, files: readonly MediaItem[], templates: readonly Template[], body: Body): Promise<readonly Piece[]> {
  const usable = templates.filter(takesPictures);
  if (usable.length === 0) throw new ProblemError(422, 'no-pictures', 'None of these templates shows pictures. Choose another.');
  const begun = new Map(await Promise.all(usable.map(async (template) => [template.key, await beginPiece(services, brand, template, [])] as const)));
  const pieces: Piece[] = [];
  for (const [index, item] of files.entries()) {
    const made = usable.flatMap((template) => { const base = begun.get(template.key); return base ? [documentOf(base, template, item, index, brand, body)] : []; });
    pieces.push(made.length === 1 ? (made[0] as Piece) : await leastCropped(services, brand, made));
  }
  return pieces;
}

/** A piece that shows one file: its name leads where a template needs words, else nothing is written on it. */
function documentOf(base: Piece, template: Template, item: MediaItem, index: number, brand: Brand, body: Body): Piece {
  const frames = beginFrames(template, [{ id: item.id, altText: item.altText }], () => nanoid(8));
  const words = (wordsOfName(item.name) || item.altText).slice(0, MAX_HEADLINE);
  const lead = template.slots.find(({ required, kind }) => required && kind === 'text');
  const [first, ...rest] = frames;
  const cover = lead && words !== '' ? { ...first, slots: { ...first.slots, [lead.key]: { kind: 'text' as const, text: words } } } : first;
  const cuts = base.cuts.filter(({ channelId }) => body.channelIds.length === 0 || body.channelIds.includes(channelId));
  return readPiece({ ...base, title: words, frames: [cover, ...rest], cuts: cuts.length > 0 ? cuts : base.cuts, words: { shared: { ...base.words.shared, caption: captionOf(body.caption, fileOf(item), index, dayWords(brand)), altText: template.kind === 'graphic' ? item.altText : '' }, own: {} } });
}

/** Of versions in different templates the one that shows most of its picture, over all channels. */
async function leastCropped(services: Services, brand: Brand, versions: readonly Piece[]): Promise<Piece> {
  const channels = await listChannels(services.db, brand.id);
  const kept = await Promise.all(
    versions.map(async (piece) => {
      const snapshot = await makeSnapshot(services, brand, piece);
      const places = placesOf(resolveCuts({ ...snapshot, channels }, piece.cuts));
      const reports = await services.render.reports({ kind: 'report', sources: places.map(({ cuts }) => { const { channel, ref } = usualCut(cuts); return cutSourceOf(snapshot, channel.network, ref, services.media); }) });
      const shares = reports.flatMap((slides) => slides.slice(0, 1).flatMap(({ pictures }) => pictures.slice(0, 1).map(({ window, pictureId }) => { const item = snapshot.pictures.find(({ id }) => id === pictureId); return item ? (window.width * window.height) / (item.widthPx * item.heightPx) : 0; })));
      return shares.length === 0 ? 0 : shares.reduce((sum, share) => sum + share, 0) / shares.length;
    }),
  );
  return versions[kept.indexOf(Math.max(...kept))] ?? (versions[0] as Piece);
}

async function pieceOfAll(services: Services, brand: Brand, files: readonly MediaItem[], templates: readonly Template[], body: Body): Promise<Piece> {
  const template = templates.find(({ kind }) => kind === body.as);
  if (!template) throw new ProblemError(422, 'wrong-template', body.as === 'video' ? 'Choose a template for videos.' : 'Choose a template for carousels.');
  const base = await beginPiece(services, brand, template, files.map(({ id, altText }) => ({ id, altText })));
  const [first] = files;
  const cuts = base.cuts.filter(({ channelId }) => body.channelIds.length === 0 || body.channelIds.includes(channelId));
  const frames = body.as === 'video' ? shotsOf(base, template, files) : base.frames;
  return readPiece({ ...base, frames, cuts: cuts.length > 0 ? cuts : base.cuts, words: { shared: { ...base.words.shared, caption: first ? captionOf(body.caption, fileOf(first), 0, dayWords(brand)) : '' }, own: {} } });
}

/** A shot for each file between the opening and the closing card. */
function shotsOf({ frames }: Piece, template: Template, files: readonly MediaItem[]): Piece['frames'] {
  const [opening, ...rest] = frames;
  const kind = template.slides?.find(({ use }) => use === 'point') ?? template.slides?.find(({ use }) => use === 'picture');
  const slot = kind?.slots.find((each) => each.kind === 'picture');
  const closing = rest.at(-1);
  const shots = kind && slot ? files.map(({ id, name }) => ({ id: nanoid(8), slide: kind.key, slots: { [slot.key]: { kind: 'picture' as const, mediaId: id }, ...(kind.slots.some(({ key, required }) => key === 'heading' && required) ? { heading: { kind: 'text' as const, text: wordsOfName(name).slice(0, 36) } } : {}) } })) : [];
  return [opening, ...shots, ...(closing ? [closing] : [])];
}
