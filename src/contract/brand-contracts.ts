import { array, number, object, string } from 'yup';
import type { BrandBook } from '../core/brand/brand-book.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import type { Template } from '../core/template/template.ts';
import { contract, documentOf } from './contract.ts';

export const brandParams = object({ brand: string().matches(/^[a-z][a-z0-9-]*$/).max(60).required() });

export const channelSchema = object({
  id: string().required(),
  name: string().required(),
  handle: string().required(),
  network: string().required(),
});

export const getBrand = contract({
  method: 'GET',
  path: '/api/brands/{brand}',
  summary: 'A brand with its book, its channels and the sheets of their networks',
  params: brandParams,
  answer: object({
    slug: string().required(),
    name: string().required(),
    zone: string().required(),
    revision: number().required(),
    book: documentOf<BrandBook>('The brand book'),
    channels: array(channelSchema.required()).required(),
    sheets: array(documentOf<NetworkSheet>('A network sheet')).required(),
  }),
});

export const changeBook = contract({
  method: 'POST',
  path: '/api/brands/{brand}/book',
  summary: 'Put a changed brand book in the place of a given revision; scheduled posts keep the book they were made with',
  params: brandParams,
  body: object({ revision: number().integer().required(), book: documentOf<BrandBook>('The brand book') }).noUnknown(),
  answer: object({ revision: number().required(), book: documentOf<BrandBook>('The brand book') }),
});

export const listTemplates = contract({
  method: 'GET',
  path: '/api/brands/{brand}/templates',
  summary: 'Templates that the brand can start from',
  params: brandParams,
  answer: object({ templates: array(documentOf<Template>('A template document')).required() }),
});

/** Keyset pages: `before` is the cursor that the last page answered. */
export const pageQuery = object({ before: string().max(80), limit: number().integer().min(1).max(100) });
