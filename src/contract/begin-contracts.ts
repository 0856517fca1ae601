import { array, boolean, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { ids } from './plan-fields.ts';

const request = () => string().matches(/^[\w-]{8,60}$/).required();
const key = () => string().matches(/^[a-z][a-z0-9-]*$/).max(60);

// A plan for open slots

const candidateSchema = object({ id: string().required(), kind: string<'piece' | 'revival' | 'idea'>().oneOf(['piece', 'revival', 'idea']).required(), name: string().defined(), pieceId: string().nullable().defined(), ideaKind: string().nullable().defined() });

export const proposePlan = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/proposal',
  summary: 'A proposed plan for the open slots of some weeks: what could go where, why, and what would be next best. Nothing is kept',
  params: brandParams,
  body: object({ days: number().integer().min(7).max(56).required(), channelIds: ids(200), /** Candidates that a person does not want. */ without: array(string().max(60).required()).max(400).required() }).noUnknown(),
  answer: object({
    placings: array(object({ slotKey: string().required(), wall: string().required(), atMs: number().required(), themeId: string().nullable().defined(), channelIds: array(string().required()).required(), candidate: candidateSchema.required(), why: array(string().required()).required(), next: array(candidateSchema.required()).required() }).required()).required(),
    /** Open slots for which there is nothing. */
    empty: number().required(),
  }),
});

export const takePlan = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/proposal/take',
  summary: 'Put what was proposed into its slots, as drafts and placeholders, once for a key; pieces are made of ideas where they say enough',
  params: brandParams,
  body: object({ request: request(), items: array(object({ slotKey: string().max(80).required(), channelIds: ids(200).min(1), candidateId: string().max(60).required() }).noUnknown().required()).min(1, 'Choose at least one').max(300).required() }).noUnknown(),
  answer: object({ drafts: number().required(), placeholders: number().required(), notes: array(string().required()).required() }),
  status: 201,
});

// Many files

export const MAX_FILES_AT_ONCE = 100;

export const makeFromFiles = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/from-files',
  summary: 'Make a piece of each of many pictures and clips, in the template whose crop keeps most of each, or one carousel or video of all; once for a key',
  params: brandParams,
  body: object({
    request: request(),
    mediaIds: ids(MAX_FILES_AT_ONCE).min(1, 'Choose pictures'),
    as: string<'each' | 'carousel' | 'video'>().oneOf(['each', 'carousel', 'video']).required(),
    /** Each file gets the one of these that crops it least. */
    templates: array(key().required()).min(1, 'Choose a template').max(3).required(),
    /** With `[name]`, `[date]`, `[number]`, `[alt text]` and the brand’s facts. */
    caption: string().max(5_000).defined(),
    themeId: string().max(40).nullable().defined(),
    channelIds: ids(200),
    spread: string<'none' | 'queue' | 'slots'>().oneOf(['none', 'queue', 'slots']).required(),
  }).noUnknown(),
  answer: object({ pieceIds: array(string().required()).required(), planned: number().required(), notes: array(string().required()).required() }),
  status: 201,
});

// Boilerplates

const usualSchema = object({ weekday: number().integer().min(1).max(7).required(), time: string().matches(/^(?:[01]\d|2[0-3]):[0-5]\d$/).required() }).noUnknown();
const boilerplateSchema = object({ id: string().required(), name: string().required(), template: string().required(), kind: string().required(), themeId: string().nullable().defined(), usual: usualSchema.nullable().defined(), asks: array(string().required()).required() });

export const listBoilerplates = contract({ method: 'GET', path: '/api/brands/{brand}/boilerplates', summary: 'Boilerplates, with what each asks for', params: brandParams, answer: object({ items: array(boilerplateSchema.required()).required() }) });
export const keepBoilerplate = contract({ method: 'POST', path: '/api/brands/{brand}/boilerplates', summary: 'Keep a piece without its specifics as a boilerplate: its template, words with fill-ins, channels and theme', params: brandParams, body: object({ pieceId: string().max(40).required(), name: string().trim().min(1, 'Give the boilerplate a name').max(80).required(), usual: usualSchema.nullable().defined() }).noUnknown(), answer: boilerplateSchema, status: 201 });
export const removeBoilerplate = contract({ method: 'DELETE', path: '/api/brands/{brand}/boilerplates/{boilerplate}', summary: 'Remove a boilerplate; pieces begun from it stay', params: brandParams.shape({ boilerplate: string().max(40).required() }) });
export const beginFromBoilerplate = contract({
  method: 'POST',
  path: '/api/brands/{brand}/boilerplates/{boilerplate}/pieces',
  summary: 'Begin a piece from a boilerplate with its fill-ins filled in; with `plan` it stands at its usual time as a draft',
  params: brandParams.shape({ boilerplate: string().max(40).required() }),
  body: object({ request: request(), values: array(object({ name: string().max(60).required(), value: string().max(5_000).defined() }).noUnknown().required()).max(60).required(), plan: boolean().required() }).noUnknown(),
  answer: object({ pieceId: string().required(), dueMs: number().nullable().defined() }),
  status: 201,
});

// A quick post

export const quickPost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/quick-posts',
  summary: 'A post from a few words and a picture or none: now, in the next open slot, or as a draft; once for a key',
  params: brandParams,
  body: object({ request: request(), words: string().trim().min(1, 'Write what goes out').max(20_000).required(), mediaId: string().max(40).nullable().defined(), channelIds: ids(200).min(1, 'Choose at least one channel'), when: string<'now' | 'next-slot' | 'draft'>().oneOf(['now', 'next-slot', 'draft']).required() }).noUnknown(),
  answer: object({ pieceId: string().required(), kind: string<'post' | 'draft' | 'piece'>().oneOf(['post', 'draft', 'piece']).required(), dueMs: number().nullable().defined(), sentence: string().nullable().defined() }),
  status: 201,
});

export const getSeries = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/series',
  summary: 'The series that a piece belongs to, with what of it stands in the plan, so that it moves together',
  params: brandParams.shape({ piece: string().max(40).required() }),
  answer: object({ series: object({ id: string().required(), name: string().required(), pieces: array(object({ id: string().required(), name: string().required(), wall: string().nullable().defined() }).required()).required(), postIds: array(string().required()).required(), entryIds: array(string().required()).required() }).nullable().defined() }),
});
