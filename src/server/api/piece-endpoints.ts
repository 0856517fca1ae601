import { createHash } from 'node:crypto';
import { applyPatches, enablePatches, type Patch } from 'immer';
import { nanoid } from 'nanoid';
import { ValidationError } from 'yup';
import * as contracts from '../../contract/piece-contracts.ts';
import { emptySlide } from '../../core/piece/draft-slides.ts';
import { mediaOfPiece, readPiece, type Frame, type Piece } from '../../core/piece/piece.ts';
import { slideKinds } from '../../core/template/slide-template.ts';
import type { Template } from '../../core/template/template.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { findPiece, insertPiece, pagePieces, savePiece, type StoredPiece } from '../db/piece-repository.ts';
import { findTemplate } from '../db/template-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { exists } from '../media/derivatives.ts';
import { checkReferences, possibleCuts } from '../pieces/check-references.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { fileResponse } from './file-response.ts';
import { describeMedia } from './media-endpoints.ts';
import { nextCursor, PAGE_SIZE, readCursor } from './page-cursor.ts';

enablePatches();

const THUMBNAIL_PX = 480;

function describePiece({ id, revision, document, updatedMs }: StoredPiece) {
  return { id, revision, document, updatedMs };
}

export async function getStoredPiece(services: Services, brand: Brand, id: string): Promise<StoredPiece> {
  const piece = await findPiece(services.db, brand.id, id);
  if (!piece) throw notFound('piece');
  return piece;
}

const listPieces = defineEndpoint({
  contract: contracts.listPieces,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE_SIZE;
    const items = await pagePieces(services.db, brand.id, { before: readCursor(query.before), limit });
    return { items: [...items], next: nextCursor(items, limit, (item) => ({ ms: item.updatedMs, id: item.id })) };
  },
});

const createPiece = defineEndpoint({
  contract: contracts.createPiece,
  may: 'make',
  async handle({ services, brand, body, caller, nowMs }) {
    const template = await findTemplate(services.db, brand.id, body.template);
    if (!template) throw new ProblemError(422, 'unknown-template', `There is no template '${body.template}'.`);
    const document: Piece = {
      version: 1,
      kind: template.kind,
      title: '',
      template: { key: template.key },
      frames: firstFrames(template),
      cuts: await possibleCuts(services, brand, template.kind),
      adjustments: {},
      words: { shared: { caption: '', altText: '', ...usualWords(brand) }, own: {} },
    };
    return describePiece(await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document: readPiece(document), createdBy: caller.person.id }, nowMs));
  },
});

/** A video begins with its opening, a shot and a closing card, so that there is something to play; other pieces grow from one frame. */
function firstFrames(template: Template): Piece['frames'] {
  const opening: Frame = { id: nanoid(8), slots: {} };
  if (template.kind !== 'video') return [opening];
  const kinds = [slideKinds(template).find(({ use }) => use !== 'closing'), slideKinds(template).find(({ use }) => use === 'closing')];
  return [opening, ...kinds.flatMap((kind) => (kind ? [emptySlide(kind, nanoid(8))] : []))];
}

/** What the brand's voice sends along with every new piece. */
function usualWords({ book: { voice } }: Brand): Partial<Piece['words']['shared']> {
  return { ...(voice.link === '' ? {} : { link: voice.link }), ...(voice.firstComment === '' ? {} : { firstComment: voice.firstComment }) };
}

const getPiece = defineEndpoint({
  contract: contracts.getPiece,
  may: 'see',
  async handle({ services, brand, params }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const media = await findMediaByIds(services.db, brand.id, mediaOfPiece(piece.document));
    return { ...describePiece(piece), media: media.map(describeMedia) };
  },
});

/** Checks a changed document and saves it on top of the revision that it was made from. */
async function saveChecked(services: Services, brand: Brand, id: string, revision: number, change: (current: Piece) => unknown, nowMs: number) {
  const current = await getStoredPiece(services, brand, id);
  if (current.revision !== revision) throw staleRevision(current);
  const document = readChanged(() => change(current.document));
  await checkReferences(services, brand, document);
  const saved = await savePiece(services.db, brand.id, id, revision, document, nowMs);
  if (!saved) throw staleRevision(await getStoredPiece(services, brand, id));
  return describePiece(saved);
}

function staleRevision(current: StoredPiece): ProblemError {
  return new ProblemError(409, 'stale-revision', 'This piece was changed in another window or by somebody else.', { current: describePiece(current) });
}

function readChanged(change: () => unknown): Piece {
  try {
    return readPiece(change());
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'not-valid', error.errors[0] ?? 'The piece would not be valid.', { fields: [{ path: error.path ?? '', message: error.message }] });
    throw new ProblemError(422, 'bad-patch', 'The change does not fit the piece it was made for.');
  }
}

const changePiece = defineEndpoint({
  contract: contracts.changePiece,
  may: 'make',
  handle: ({ services, brand, params, body, nowMs }) =>
    saveChecked(services, brand, params.piece, body.revision, (current) => applyPatches(current, body.patches as unknown as Patch[]), nowMs),
});

const replacePiece = defineEndpoint({
  contract: contracts.replacePiece,
  may: 'make',
  handle: ({ services, brand, params, body, nowMs }) => saveChecked(services, brand, params.piece, body.revision, () => body.document, nowMs),
});

const getPieceThumbnail = defineEndpoint({
  contract: contracts.getPieceThumbnail,
  may: 'see',
  async handle({ services, brand, params }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const snapshot = await makeSnapshot(services, brand, piece.document);
    const first = piece.document.cuts[0];
    const channel = (await listChannels(services.db, brand.id)).find((each) => each.id === first?.channelId);
    if (!first || !channel) throw notFound('cut');
    const hash = createHash('sha256').update(JSON.stringify([snapshot, first])).digest('hex');
    const path = services.media.derivedPathOf(hash, 'thumbnail.webp');
    if (!(await exists(path))) {
      const source = cutSourceOf(snapshot, channel.network, first, services.media);
      const picture = await services.render.picture({ kind: 'small', source, fitPx: THUMBNAIL_PX });
      await services.media.keepDerived(hash, 'thumbnail.webp', picture.bytes);
    }
    return fileResponse(path, 'image/webp', 'ask-again');
  },
});

const checkPiece = defineEndpoint({
  contract: contracts.checkPiece,
  may: 'see',
  async handle({ services, brand, params, nowMs }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const findings = await preflightSnapshot(services, brand, await makeSnapshot(services, brand, piece.document), piece.document.cuts, nowMs);
    return { findings: findings.map(({ fix, ...finding }) => ({ ...finding, fix: fix?.label ?? null })), ready: findings.every((finding) => finding.severity !== 'stops') };
  },
});

export const pieceEndpoints: readonly Endpoint[] = [listPieces, createPiece, getPiece, changePiece, replacePiece, getPieceThumbnail, checkPiece];
