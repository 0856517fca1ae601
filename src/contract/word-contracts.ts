import { array, boolean, number, object, string } from 'yup';
import { deskAsks, type DeskAsk } from '../core/words/desk-asks.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';

const channel = () => string().max(40);
const tag = () => string().matches(/^#[\p{L}\p{M}\p{N}_]+$/u).max(101).required();
const longText = () => string().max(100_000).defined();

export const suggestWords = contract({
  method: 'GET',
  path: '/api/brands/{brand}/words/suggestions',
  summary: 'What a word that begins with # or @ could become: hashtags of the brand, its pieces and the network; people of the address cards, those mentioned before, and those of the network',
  params: brandParams,
  query: object({ word: string().matches(/^[#@]/).max(120).required(), channel: channel() }),
  answer: object({ items: array(object({ put: string().required(), more: string().defined() }).required()).required() }),
});

export const tagSorts = ['both', 'fit', 'reach'] as const;

export const proposeHashtags = contract({
  method: 'POST',
  path: '/api/brands/{brand}/hashtags/proposals',
  summary: 'Hashtags for a text, by how well they fit and how far they reach; those that the brand avoids are answered apart',
  params: brandParams,
  body: object({ text: longText(), present: array(tag()).max(200).required(), channel: channel().nullable().defined(), sort: string<(typeof tagSorts)[number]>().oneOf([...tagSorts]).required(), place: string().max(100).nullable().defined() }).noUnknown(),
  answer: object({
    tags: array(object({ tag: string().required(), fit: number().required(), reach: number().nullable().defined(), posts: number().required(), origin: string().required() }).required()).required(),
    leftOut: array(string().required()).required(),
    places: array(string().required()).required(),
    /** Why the reach is missing; empty where it is known. */
    note: string().defined(),
  }),
});

export const deskSources = ['none', 'text', 'address'] as const;

export const askDesk = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/desk',
  summary: 'Versions of a text for a piece, made from what the piece, the brand and an article say, each with what it used',
  params: brandParams.shape({ piece: string().max(40).required() }),
  body: object({
    ask: string<DeskAsk>().oneOf([...deskAsks]).required(),
    /** The text to rewrite; empty for a draft. */
    text: longText(),
    channel: channel().nullable().defined(),
    topic: string().max(300).defined(),
    article: object({ kind: string<(typeof deskSources)[number]>().oneOf([...deskSources]).required(), value: longText() }).noUnknown().required(),
    words: number().integer().min(5).max(2_000).nullable().defined(),
    versions: number().integer().min(1).max(5).required(),
    hashtags: boolean().required(),
    emoji: boolean().required(),
    turn: number().integer().min(0).max(1_000).required(),
    /** Ask the brand’s writing service; where it fails, the desk answers. */
    service: boolean().required(),
  }).noUnknown(),
  answer: object({
    versions: array(
      object({
        text: string().required(),
        used: array(string().required()).required(),
        leftOut: array(string().required()).required(),
        marked: array(object({ kind: string().required(), text: string().required() }).required()).required(),
        fits: boolean().required(),
      }).required(),
    ).required(),
    note: string().defined(),
    by: string<'desk' | 'service'>().oneOf(['desk', 'service']).required(),
  }),
});

export const checkSpelling = contract({
  method: 'POST',
  path: '/api/brands/{brand}/words/spelling',
  summary: 'Words of texts that the dictionary of the brand’s language does not know, with proposals; the brand’s own words are known',
  params: brandParams,
  body: object({ texts: array(string().max(100_000).defined()).max(100).required() }).noUnknown(),
  answer: object({ mistakes: array(object({ word: string().required(), proposals: array(string().required()).required() }).required()).required(), language: string().nullable().defined() }),
});

export const readLinkCard = contract({
  method: 'GET',
  path: '/api/brands/{brand}/link-card',
  summary: 'Title, description and picture of a page that the words link to; kept for a week',
  params: brandParams,
  query: object({ address: string().max(2_000).required() }),
  answer: object({ title: string().defined(), description: string().defined(), site: string().defined(), hasPicture: boolean().required(), problem: string().defined() }),
});

export const getLinkPicture = contract({
  method: 'GET',
  path: '/api/brands/{brand}/link-card/picture',
  summary: 'The picture of a link’s card',
  params: brandParams,
  query: object({ address: string().max(2_000).required() }),
  answer: 'picture',
});

const shortLink = object({ code: string().required(), address: string().required(), target: string().required(), label: string().defined(), clicks: number().required(), createdMs: number().required() });

export const createShortLink = contract({
  method: 'POST',
  path: '/api/brands/{brand}/short-links',
  summary: 'A short address that leads to a target and counts its clicks. It never leads anywhere else; asking again for the same answers the same',
  params: brandParams,
  body: object({ target: string().max(2_000).required(), label: string().max(100).defined() }).noUnknown(),
  answer: shortLink,
  status: 201,
});

export const listShortLinks = contract({
  method: 'GET',
  path: '/api/brands/{brand}/short-links',
  summary: 'Short addresses of the brand, the newest first, with the clicks of people',
  params: brandParams,
  query: object({ before: number().integer(), limit: number().integer().min(1).max(100) }),
  answer: object({ items: array(shortLink.required()).required() }),
});

const serviceFields = {
  address: string().max(2_000).required(),
  body: string().max(20_000).required(),
  answerPath: string().max(200).required(),
  isOn: boolean().required(),
};

export const getWritingService = contract({
  method: 'GET',
  path: '/api/brands/{brand}/writing-service',
  summary: 'The writing service that the brand may ask beside its own desk; headers are named, their values are not answered',
  params: brandParams,
  answer: object({ service: object({ ...serviceFields, headers: array(string().required()).required(), agreedBy: string().required() }).nullable().defined() }),
});

export const saveWritingService = contract({
  method: 'POST',
  path: '/api/brands/{brand}/writing-service',
  summary: 'Set the writing service: where it is, what is sent, where its answer stands. Whoever saves it agrees that texts leave Confetti',
  params: brandParams,
  /** A header without a value keeps the one that it has. */
  body: object({ ...serviceFields, headers: array(object({ name: string().matches(/^[A-Za-z0-9-]{1,60}$/).required(), value: string().max(4_000).defined() }).noUnknown()).max(10).required(), agrees: boolean().oneOf([true], 'Agree first that texts are sent to this service.').required() }).noUnknown(),
  answer: object({ isOn: boolean().required() }),
});

export const removeWritingService = contract({
  method: 'DELETE',
  path: '/api/brands/{brand}/writing-service',
  summary: 'Forget the writing service and its key',
  params: brandParams,
  status: 204,
});

export const showWritingRequest = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/desk/request',
  summary: 'Exactly what would be sent to the writing service, without its headers’ values; nothing is sent',
  params: askDesk.params,
  body: askDesk.body,
  answer: object({ address: string().required(), headers: array(string().required()).required(), body: string().required() }),
});
