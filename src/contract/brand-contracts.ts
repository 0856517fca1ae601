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
    book: documentOf<BrandBook>('The brand book'),
    channels: array(channelSchema.required()).required(),
    sheets: array(documentOf<NetworkSheet>('A network sheet')).required(),
  }),
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
