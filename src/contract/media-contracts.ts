import { array, number, object, string } from 'yup';
import type { PictureFacts } from '../core/crop/picture-facts.ts';
import { brandParams, pageQuery } from './brand-contracts.ts';
import { contract, documentOf } from './contract.ts';

/** Largest upload, in bytes: a 24-megapixel photo straight from a camera fits well. */
export const MOST_UPLOAD_BYTES = 50 * 1024 * 1024;
/** Largest picture, in pixels: what decodes in reasonable memory. */
export const MOST_PICTURE_PIXELS = 120_000_000;

const share = () => number().min(0).max(1).required();

export const mediaItemSchema = object({
  id: string().required(),
  name: string().required(),
  widthPx: number().required(),
  heightPx: number().required(),
  bytes: number().required(),
  mime: string().required(),
  altText: string().defined(),
  focal: object({ x: share(), y: share() }).required(),
  focalBy: string<'proposal' | 'person'>().oneOf(['proposal', 'person']).required(),
  facts: documentOf<PictureFacts>('Luminance and saliency grid'),
  revision: number().required(),
  createdMs: number().required(),
});

const mediaParams = brandParams.shape({ media: string().max(40).required() });

export const listMedia = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media',
  summary: 'Pictures of the brand, newest first',
  params: brandParams,
  query: pageQuery,
  answer: object({ items: array(mediaItemSchema.required()).required(), next: string().nullable().defined() }),
});

export const uploadMedia = contract({
  method: 'POST',
  path: '/api/brands/{brand}/media',
  summary: 'Bring in a JPEG, PNG or WebP file; the body is the file',
  params: brandParams,
  query: object({ name: string().max(200).required() }),
  body: 'bytes',
  answer: mediaItemSchema,
  status: 201,
});

export const getMedia = contract({ method: 'GET', path: '/api/brands/{brand}/media/{media}', summary: 'One picture', params: mediaParams, answer: mediaItemSchema });

export const changeMedia = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/media/{media}',
  summary: 'Move the focal point (null goes back to the proposal) or change the alt text',
  params: mediaParams,
  body: object({
    revision: number().integer().required(),
    focal: object({ x: share(), y: share() }).noUnknown().nullable().default(undefined).optional(),
    altText: string().max(1000, 'Alt text holds 1000 characters'),
  }).noUnknown(),
  answer: mediaItemSchema,
});

export const getMediaFile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/file',
  summary: 'The picture as WebP, no wider or higher than one of the offered sizes',
  params: mediaParams,
  query: object({ fit: number().oneOf([240, 640, 1280, 2048]).required() }),
  answer: 'picture',
});
