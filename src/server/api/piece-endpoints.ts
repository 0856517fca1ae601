import { nanoid } from 'nanoid';
import * as contracts from '../../contract/piece-contracts.ts';
import type { Patch } from '../../core/document/patch.ts';
import { takesPictures } from '../../core/piece/draft-slides.ts';
import { copyName } from '../../core/piece/copy-name.ts';
import { mediaOfPiece, pieceName, readPiece } from '../../core/piece/piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { countWaitingPosts, findPiece, findRevision, insertPiece, pagePieces, pageRevisions, pieceFacets, shelvePiece as moveToShelf, type StoredPiece } from '../db/piece-repository.ts';
import { findTemplate, getTemplate } from '../db/template-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { derivedFile } from '../derived/derived-file.ts';
import { pieceThumbnail } from '../derived/piece-thumbnail.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import { saveChanges } from '../pieces/save-piece.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { fileResponse } from './file-response.ts';
import { describeMedia } from './describe-media.ts';
import { nextCursor, nextNameCursor, PAGE_SIZE, readCursor, readNameCursor } from './page-cursor.ts';

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
  async handle({ services, brand, query, nowMs }) {
    const limit = query.limit ?? PAGE_SIZE;
    const sort = query.sort ?? 'changed';
    const items = await pagePieces(services.db, brand.id, {
      shelf: query.shelf ?? 'use',
      words: [query.words ?? ''],
      kind: query.kind ?? null,
      template: query.template ?? null,
      status: query.status ?? null,
      personId: query.person ?? null,
      sinceMs: query.days === undefined ? null : nowMs - query.days * DAY_MS,
      sort,
      after: sort === 'name' ? readNameCursor(query.before) : timeCursor(query.before),
      limit,
    });
    const nextTime = (): string | null => nextCursor(items, limit, (item) => ({ ms: sort === 'created' ? item.createdMs : item.updatedMs, id: item.id }));
    return { items: [...items], next: sort === 'name' ? nextNameCursor(items, limit) : nextTime() };
  },
});

const DAY_MS = 86_400_000;

function timeCursor(text: string | undefined): { readonly value: number; readonly id: string } | null {
  const cursor = readCursor(text);
  return cursor && { value: cursor.ms, id: cursor.id };
}

const listPieceFacets = defineEndpoint({
  contract: contracts.listPieceFacets,
  may: 'see',
  async handle({ services, brand }) {
    const { templates, people } = await pieceFacets(services.db, brand.id);
    const named = await Promise.all(templates.map(async (key) => ({ key, name: (await findTemplate(services.db, brand.id, key))?.name ?? key })));
    return { templates: named, people: [...people] };
  },
});

const duplicatePiece = defineEndpoint({
  contract: contracts.duplicatePiece,
  may: 'make',
  async handle({ services, brand, params, caller, nowMs }) {
    const { document } = await getStoredPiece(services, brand, params.piece);
    const copy = readPiece({ ...document, title: copyName(pieceName(document)) });
    return describePiece(await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document: copy, createdBy: caller.person.id }, nowMs));
  },
});

const shelvePiece = defineEndpoint({
  contract: contracts.shelvePiece,
  may: 'make',
  async handle({ services, brand, params, body, nowMs }) {
    const waiting = body.shelf === 'deleted' ? await countWaitingPosts(services.db, params.piece) : 0;
    if (waiting > 0) throw new ProblemError(409, 'posts-wait', `${waiting === 1 ? 'A post of this piece is' : `${waiting} posts of this piece are`} scheduled. Cancel ${waiting === 1 ? 'it' : 'them'} first, or archive the piece.`);
    if (!(await moveToShelf(services.db, brand.id, params.piece, body.shelf, nowMs))) throw notFound('piece');
    return { shelf: body.shelf };
  },
});

const createPiece = defineEndpoint({
  contract: contracts.createPiece,
  may: 'make',
  async handle({ services, brand, body, caller, nowMs }) {
    const template = await findTemplate(services.db, brand.id, body.template);
    if (!template) throw new ProblemError(422, 'unknown-template', `There is no template '${body.template}'.`);
    const media = await findMediaByIds(services.db, brand.id, body.media ?? []);
    if ((body.media ?? []).length > 0 && !takesPictures(template)) throw new ProblemError(422, 'no-pictures', `${template.name} shows no pictures. Choose another template.`);
    const pictures = (body.media ?? []).map((id) => {
      const picture = media.find((each) => each.id === id);
      if (!picture || picture.recording?.kind === 'sound') throw new ProblemError(422, 'unknown-picture', `There is no picture '${id}' in this brand.`);
      return { id, altText: picture.altText };
    });
    const document = await beginPiece(services, brand, template, pictures);
    return describePiece(await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: caller.person.id }, nowMs));
  },
});


const getPiece = defineEndpoint({
  contract: contracts.getPiece,
  may: 'see',
  async handle({ services, brand, params }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const media = await findMediaByIds(services.db, brand.id, mediaOfPiece(piece.document));
    const [latest] = await pageRevisions(services.db, piece.id, null, 1);
    return { ...describePiece(piece), changedBy: latest?.personName ?? null, media: media.map(describeMedia), template: await getTemplate(services.db, brand.id, piece.document.template.key) };
  },
});

const changePiece = defineEndpoint({
  contract: contracts.changePiece,
  may: 'make',
  handle: async ({ services, brand, params, body, caller, nowMs }) => describePiece(await saveChanges(services, brand, params.piece, { revision: body.revision, patches: body.patches as Patch }, caller.person.id, nowMs)),
});

const REVISIONS_PAGE = 40;

const listPieceRevisions = defineEndpoint({
  contract: contracts.listPieceRevisions,
  may: 'see',
  async handle({ services, brand, params, query }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const found = await pageRevisions(services.db, piece.id, query.before ?? null, REVISIONS_PAGE);
    const items = found.map(({ revision, personName, savedMs }) => ({ revision, personName, savedMs }));
    return { items, next: items.length === REVISIONS_PAGE ? (items.at(-1)?.revision ?? null) : null };
  },
});

const getPieceRevision = defineEndpoint({
  contract: contracts.getPieceRevision,
  may: 'see',
  async handle({ services, brand, params }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const found = await findRevision(services.db, piece.id, Number(params.revision));
    if (!found) throw notFound('saved state');
    const media = await findMediaByIds(services.db, brand.id, mediaOfPiece(found.document));
    return { revision: found.revision, personName: found.personName, savedMs: found.savedMs, document: found.document, media: media.map(describeMedia) };
  },
});

const getPieceThumbnail = defineEndpoint({
  contract: contracts.getPieceThumbnail,
  may: 'see',
  async handle({ services, brand, params, query, request }) {
    const thumbnail = await pieceThumbnail(services, brand, await getStoredPiece(services, brand, params.piece), query, query.fit);
    return fileResponse(request, await derivedFile(services, thumbnail, request.signal), 'image/webp', query.visit === undefined ? 'ask-again' : 'for-a-visit');
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

export const pieceEndpoints: readonly Endpoint[] = [listPieces, listPieceFacets, createPiece, duplicatePiece, shelvePiece, getPiece, changePiece, listPieceRevisions, getPieceRevision, getPieceThumbnail, checkPiece];
