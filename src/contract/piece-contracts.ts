import { array, boolean, mixed, number, object, string } from 'yup';
import { MAX_OPERATIONS } from '../core/document/patch.ts';
import type { Piece } from '../core/piece/piece.ts';
import type { Finding } from '../core/preflight/finding.ts';
import type { Template } from '../core/template/template.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';
import { mediaItemSchema } from './media-contracts.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/).max(60).required();
export const pieceParams = brandParams.shape({ piece: string().max(40).required() });

export const cutRefSchema = object({ channelId: string().max(40).required(), placement: key() }).noUnknown();

const storedPiece = object({
  id: string().required(),
  revision: number().required(),
  document: documentOf<Piece>('The piece document'),
  updatedMs: number().required(),
});

const pieceKind = () => string<Piece['kind']>().oneOf(['graphic', 'carousel', 'video']);
/** Where pieces stand: in use (when nothing is asked), archived, or deleted with a way back for a while. */
export const pieceShelves = ['use', 'archived', 'deleted'] as const;
const shelf = () => string<(typeof pieceShelves)[number]>().oneOf([...pieceShelves]);

export const listPieces = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces',
  summary: 'Pieces of the brand: the last changed first, the last started first, or by name',
  params: brandParams,
  query: object({
    /** The `next` of the page before. */
    before: string().max(600),
    limit: number().integer().min(1).max(100),
    /** Words, by their beginnings, that all have to be in the piece. */
    words: string().max(100),
    kind: pieceKind(),
    template: string().matches(/^[a-z][a-z0-9-]*$/).max(60),
    status: string<'draft' | 'scheduled' | 'sent'>().oneOf(['draft', 'scheduled', 'sent']),
    /** Who started it. */
    person: string().max(40),
    /** Changed within so many days. */
    days: number().integer().min(1).max(3_660),
    sort: string<'changed' | 'created' | 'name'>().oneOf(['changed', 'created', 'name']),
    shelf: shelf(),
  }),
  answer: object({
    items: array(
      object({
        id: string().required(),
        name: string().required(),
        kind: pieceKind().required(),
        template: string().required(),
        revision: number().required(),
        personName: string().required(),
        createdMs: number().required(),
        updatedMs: number().required(),
        cuts: number().required(),
        scheduled: number().required(),
        sent: number().required(),
      }).required(),
    ).required(),
    next: string().nullable().defined(),
  }),
});

export const listPieceFacets = contract({
  method: 'GET',
  path: '/api/brands/{brand}/piece-facets',
  summary: 'What the pieces in use can be filtered by: their templates and the people who started them',
  params: brandParams,
  answer: object({
    templates: array(object({ key: string().required(), name: string().required() }).required()).required(),
    people: array(object({ id: string().required(), name: string().required() }).required()).required(),
  }),
});

export const duplicatePiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/duplicate',
  summary: 'Start a piece as a copy of another one; what is planned stays with the first',
  params: pieceParams,
  body: object({}).noUnknown(),
  answer: storedPiece,
  status: 201,
});

export const shelvePiece = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/pieces/{piece}/shelf',
  summary: 'Archive a piece, delete it (it can be restored for 30 days), or take it into use again. A piece with scheduled posts is not deleted: 409',
  params: pieceParams,
  body: object({ shelf: shelf().required() }).noUnknown(),
  answer: object({ shelf: shelf().required() }),
});

export const createPiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces',
  summary: 'Start a piece from a template, with a cut for every placement of the brand’s channels; pictures fill a graphic’s slots, or get a slide each',
  params: brandParams,
  body: object({ template: key(), media: array(string().max(40).required()).max(20) }).noUnknown(),
  answer: storedPiece,
  status: 201,
});

export const getPiece = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}',
  summary: 'A piece with its template and the pictures it shows',
  params: pieceParams,
  answer: storedPiece.shape({
    /** Who saved it last; null where that is not known any more. */
    changedBy: string().nullable().defined(),
    media: array(mediaItemSchema.required()).required(),
    template: documentOf<Template>('The template document'),
  }),
});

/** One change of a document (JSON Patch, RFC 6902). */
const patchOperation = object({
  op: string<'replace' | 'add' | 'remove'>().oneOf(['replace', 'add', 'remove']).required(),
  /** A JSON pointer; empty: the whole document. */
  path: string().defined().max(400).matches(/^(?:\/.*)?$/s, 'A path is a JSON pointer'),
  value: mixed<NonNullable<unknown>>().nullable(),
}).noUnknown();

export const changePiece = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/pieces/{piece}',
  summary: 'Save changes made on top of a revision. Changes that others have saved meanwhile are kept; where both wrote in one place, it is answered 409 with both texts',
  params: pieceParams,
  body: object({ revision: number().integer().required(), patches: array(patchOperation.required()).min(1).max(MAX_OPERATIONS).required() }).noUnknown(),
  answer: storedPiece,
});

const revision = object({ revision: number().required(), personName: string().required(), savedMs: number().required() });

export const listPieceRevisions = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/revisions',
  summary: 'Saved states of a piece with who saved them and when, the latest first',
  params: pieceParams,
  query: object({ before: number().integer() }),
  answer: object({ items: array(revision.required()).required(), next: number().nullable().defined() }),
});

export const getPieceRevision = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/revisions/{revision}',
  summary: 'One saved state of a piece, with the pictures it shows',
  params: pieceParams.shape({ revision: string().matches(/^\d{1,9}$/).required() }),
  answer: revision.shape({ document: documentOf<Piece>('The piece document'), media: array(mediaItemSchema.required()).required() }),
});

/** Sizes of a piece's small picture, in pixels: for a row or a tile, and for a card. */
export const thumbnailFits = [240, 480] as const;
export type ThumbnailFit = (typeof thumbnailFits)[number];

export const getPieceThumbnail = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/thumbnail',
  summary: 'A small picture of the piece’s first cut, or of its cut at a placement of a channel, within a square of `fit` pixels (480 when it is missing)',
  params: pieceParams,
  query: object({ revision: number().integer(), fit: number<ThumbnailFit>().oneOf([...thumbnailFits]), /** Any number: the picture may be kept for some minutes under an address that has it. */ visit: number().integer(), channel: string().max(40), placement: string().max(40) }),
  answer: 'picture',
});

export const fileFormats = ['png', 'jpeg', 'webp', 'avif', 'svg', 'pdf'] as const;
export type FileFormat = (typeof fileFormats)[number];

const format = () => string<FileFormat>().oneOf([...fileFormats]);
const scale = () => number<1 | 2>().oneOf([1, 2]);

export const getCutFile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/cuts/{channelId}/{placement}',
  summary: 'One cut as a file (of a carousel one slide, or all of them as PDF): at full or double size, below the network’s size limit, with title, alt text, credit and licence inside',
  params: pieceParams.shape({ channelId: string().max(40).required(), placement: key() }),
  query: object({ as: format(), scale: scale(), slide: number().integer().min(1).max(300) }),
  answer: 'picture',
});

export const getCutsArchive = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/archive',
  summary: 'All cuts of a piece in a ZIP, named by a pattern; it comes as it is made',
  params: pieceParams,
  query: object({ as: format().required(), scale: scale(), names: string().min(1).max(120) }),
  answer: 'archive',
});

export const checkPiece = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/preflight',
  summary: 'What would stop or spoil the piece at sending',
  params: pieceParams,
  answer: object({
    findings: array(object({ severity: string<'stops' | 'warns'>().oneOf(['stops', 'warns']).required(), sentence: string().required(), cut: string().nullable().defined(), view: string<Finding['view']>().oneOf(['look', 'words', 'facts', 'media']).required(), fix: string().nullable().defined() }).required()).required(),
    ready: boolean().required(),
  }),
});
