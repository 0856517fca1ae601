import { array, boolean, number, object, string } from 'yup';
import { templateFamilies, type Template, type TemplateFamily } from '../core/template/template.ts';
import { pictureWants, type PictureWant } from '../core/template/suits-brand.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';

const templateKey = () => string().matches(/^[a-z][a-z0-9-]*$/).max(60).required();
const templateParams = brandParams.shape({ template: templateKey() });
const template = () => documentOf<Template>('A template document');
const own = object({ document: template(), revision: number().required(), archived: boolean().required() });

const summary = object({
  key: string().required(),
  name: string().required(),
  purpose: string().defined(),
  /** Null for the brand’s own. */
  family: string<TemplateFamily>().oneOf([...templateFamilies]).nullable().defined(),
  kind: string<Template['kind']>().oneOf(['graphic', 'carousel', 'video']).required(),
  isOwn: boolean().required(), takesPictures: boolean().required(),
  archived: boolean().required(),
  /** What it cannot do without. */
  wants: array(string<PictureWant>().oneOf([...pictureWants]).required()).required(),
  scheme: string().nullable().defined(),
});

export const listTemplates = contract({
  method: 'GET',
  path: '/api/brands/{brand}/templates',
  summary: 'Templates that the brand can use: its own first, then those that ship; a document comes by its key',
  params: brandParams,
  answer: object({ items: array(summary.required()).required() }),
});

export const getTemplateDocument = contract({ method: 'GET', path: '/api/brands/{brand}/templates/{template}/document', summary: 'A template that the brand can use, its own or a shipped one', params: templateParams, answer: object({ document: template() }) });

export const getOwnTemplate = contract({ method: 'GET', path: '/api/brands/{brand}/templates/{template}', summary: 'A template of the brand’s own', params: templateParams, answer: own });

export const createTemplate = contract({
  method: 'POST',
  path: '/api/brands/{brand}/templates',
  summary: 'Keep a template document as one of the brand’s own: a copy, or one from elsewhere; it gets a key that is free',
  params: brandParams,
  body: object({ document: template() }).noUnknown(),
  answer: own,
  status: 201,
});

export const changeTemplate = contract({
  method: 'POST',
  path: '/api/brands/{brand}/templates/{template}',
  summary: 'Put a changed template in the place of a given revision; pieces follow, scheduled posts keep what they had',
  params: templateParams,
  body: object({ revision: number().integer().required(), document: template() }).noUnknown(),
  answer: own,
});

export const archiveTemplate = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/templates/{template}',
  summary: 'Archive a template, or restore it; pieces that have it keep it',
  params: templateParams,
  body: object({ archived: boolean().required() }).noUnknown(),
  answer: own,
});
