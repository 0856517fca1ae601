import { array, boolean, mixed, number, object, string } from 'yup';
import { forms, type Form } from '../core/ideas/propose/findings.ts';
import type { Trace } from '../core/ideas/propose/trace.ts';
import type { Frame, Piece } from '../core/piece/piece.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { ids, wall } from './plan-fields.ts';

/** Longest text that proposals are made from, in characters. */
export const MAX_SOURCE_TEXT = 120_000;

const sourceSchema = object({
  /** What it is called where a text is traced to it. */
  name: string().trim().max(120).required(),
  text: string().max(MAX_SOURCE_TEXT).required('Give a text, an article or a topic'),
  link: string().max(2_000).defined(),
}).noUnknown();

export const readSourceFile = contract({
  method: 'POST',
  path: '/api/brands/{brand}/idea-sources',
  summary: 'Read a document (DOCX, PDF, Markdown, text) or subtitles (SubRip, WebVTT) as text, up to 20 MB; nothing is kept',
  params: brandParams,
  query: object({ name: string().max(200).required() }),
  body: 'bytes',
  answer: object({ name: string().required(), text: string().required() }),
});

export const readSourceAddress = contract({
  method: 'POST',
  path: '/api/brands/{brand}/idea-sources/address',
  summary: 'Read the article at an address as text; nothing is kept',
  params: brandParams,
  body: object({ address: string().trim().min(4, 'Give an address').max(2_000).required() }).noUnknown(),
  answer: object({ name: string().required(), text: string().required(), link: string().required() }),
});

const kindsOf = () => array(string<Piece['kind']>().oneOf(['graphic', 'carousel', 'video']).required()).min(1, 'Choose at least one format').max(3).required();
const variantSchema = object({ shorter: number().integer().min(0).max(4).required(), asList: boolean().required(), template: number().integer().min(0).max(60).required(), picture: number().integer().min(0).max(400).required(), wording: number().integer().min(0).max(200).required() }).noUnknown();

const wishShape = {
  source: sourceSchema.required(),
  /** What it should be about; empty: what the source says most. */
  topic: string().max(300).defined(),
  kinds: kindsOf(),
  /** Null: the theme that each speaks of. */
  themeId: string().max(40).nullable().defined(),
};

const proposalSchema = object({
  key: string().max(80).required(),
  form: string<Form>().oneOf([...forms]).required(),
  variant: variantSchema.required(),
  template: string().matches(/^[a-z][a-z0-9-]*$/).max(60).required(),
  kind: string<Piece['kind']>().oneOf(['graphic', 'carousel', 'video']).required(),
  frames: array(mixed<Frame>().required()).min(1).max(40).required(),
  words: object({ caption: string().max(20_000).defined(), altText: string().max(5_000).defined(), link: string().max(2_000).defined(), hashtags: string().max(2_000).defined() }).noUnknown().required(),
  themeId: string().max(40).nullable().defined(),
  traces: array(mixed<Trace>().required()).max(200).required(),
  why: array(string().required()).max(12).required(),
}).noUnknown();

export const propose = contract({
  method: 'POST',
  path: '/api/brands/{brand}/proposals',
  summary: 'Whole pieces from a text: template by what it says, picture by its words, headline and caption from its sentences, each traced to where it comes from. Nothing is kept',
  params: brandParams,
  body: object({ ...wishShape, count: number().integer().min(1).max(12).required() }).noUnknown(),
  answer: object({ title: string().defined(), note: string().defined(), proposals: array(proposalSchema.required()).required() }),
});

export const proposeAgain = contract({
  method: 'POST',
  path: '/api/brands/{brand}/proposals/one',
  summary: 'One proposal again with another instruction: shorter, as a list, another template, picture or wording; null when nothing else can be made of it',
  params: brandParams,
  body: object({ ...wishShape, key: string().max(80).required(), variant: variantSchema.required(), takenMedia: array(string().max(40).required()).max(400).required() }).noUnknown(),
  answer: object({ proposal: proposalSchema.nullable().defined() }),
});

export const proposeSeries = contract({
  method: 'POST',
  path: '/api/brands/{brand}/proposals/series',
  summary: 'An article over several days on the rota’s open slots: the first part announces, the last sums up. Nothing is kept',
  params: brandParams,
  body: object({ ...wishShape, days: number().integer().min(3).max(12).required(), channelIds: ids(200) }).noUnknown(),
  answer: object({
    title: string().defined(),
    note: string().defined(),
    parts: array(object({ does: string<'announces' | 'tells' | 'sums-up'>().oneOf(['announces', 'tells', 'sums-up']).required(), of: string().defined(), proposal: proposalSchema.required(), /** Where the rota has room for it; null: it has none in eight weeks. */ slot: object({ key: string().required(), wall: string().required(), channelIds: array(string().required()).required() }).nullable().defined() }).required()).required(),
  }),
});

export const keepProposals = contract({
  method: 'POST',
  path: '/api/brands/{brand}/proposals/keep',
  summary: 'Make pieces of proposals, once for a key; those of a series stay together, and stand in the plan as drafts where a moment is given',
  params: brandParams,
  body: object({
    request: string().matches(/^[\w-]{8,60}$/).required(),
    items: array(object({ proposal: proposalSchema.required(), name: string().trim().max(120).defined(), wall: wall().notRequired().nullable(), slotKey: string().max(80).nullable().defined() }).noUnknown().required()).min(1).max(12).required(),
    /** Cuts are made for these; empty: for all channels. */
    channelIds: ids(200),
    /** The idea that they come from. */
    ideaId: string().max(40).nullable().defined(),
    series: string().trim().max(120).nullable().defined(),
  }).noUnknown(),
  answer: object({ pieceIds: array(string().required()).required(), planned: number().required(), notes: array(string().required()).required() }),
  status: 201,
});
