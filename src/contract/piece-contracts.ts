import { array, boolean, mixed, number, object, string } from 'yup';
import type { Piece } from '../core/piece/piece.ts';
import type { Finding } from '../core/preflight/finding.ts';
import { brandParams, pageQuery } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';
import { mediaItemSchema } from './media-contracts.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/).max(60).required();
const pieceParams = brandParams.shape({ piece: string().max(40).required() });

export const cutRefSchema = object({ channelId: string().max(40).required(), placement: key() }).noUnknown();

const storedPiece = object({
  id: string().required(),
  revision: number().required(),
  document: documentOf<Piece>('The piece document'),
  updatedMs: number().required(),
});

export const listPieces = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces',
  summary: 'Pieces of the brand, last changed first',
  params: brandParams,
  query: pageQuery,
  answer: object({
    items: array(
      object({ id: string().required(), name: string().required(), template: string().required(), revision: number().required(), updatedMs: number().required(), cuts: number().required(), scheduled: number().required(), sent: number().required() }).required(),
    ).required(),
    next: string().nullable().defined(),
  }),
});

export const createPiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces',
  summary: 'Start a piece from a template, with a cut for every placement of the brand’s channels',
  params: brandParams,
  body: object({ template: key() }).noUnknown(),
  answer: storedPiece,
  status: 201,
});

export const getPiece = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}',
  summary: 'A piece with the pictures it shows',
  params: pieceParams,
  answer: storedPiece.shape({ media: array(mediaItemSchema.required()).required() }),
});

/** One change of a document: a path of keys and what happens there. */
const patch = object({
  op: string<'replace' | 'add' | 'remove'>().oneOf(['replace', 'add', 'remove']).required(),
  path: array(mixed<string | number>((value): value is string | number => typeof value === 'string' || typeof value === 'number').required()).max(12).required(),
  value: mixed<NonNullable<unknown>>().nullable(),
}).noUnknown();

export const changePiece = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/pieces/{piece}',
  summary: 'Save changes to a piece; a stale revision is answered 409 with the newer piece',
  params: pieceParams,
  body: object({ revision: number().integer().required(), patches: array(patch.required()).min(1).max(500).required() }).noUnknown(),
  answer: storedPiece,
});

export const replacePiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/replace',
  summary: 'Put a whole document in the place of a given revision, e.g. to keep one’s own version after a conflict',
  params: pieceParams,
  body: object({ revision: number().integer().required(), document: documentOf<Piece>('The piece document') }).noUnknown(),
  answer: storedPiece,
});

export const getPieceThumbnail = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/thumbnail',
  summary: 'A small picture of the piece’s first cut',
  params: pieceParams,
  query: object({ revision: number().integer() }),
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
    findings: array(object({ severity: string<'stops' | 'warns'>().oneOf(['stops', 'warns']).required(), sentence: string().required(), cut: string().nullable().defined(), sheet: string<Finding['sheet']>().oneOf(['look', 'words', 'facts', 'media']).required(), fix: string().nullable().defined() }).required()).required(),
    ready: boolean().required(),
  }),
});
