import { array, boolean, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';

const armSchema = object({
  id: string().required(),
  name: string().required(),
  posts: number().required(),
  seen: number().required(),
  engaged: number().required(),
  rate: number().required(),
  low: number().required(),
  high: number().required(),
  /** The chance that it is the best. */
  leads: number().required(),
  /** What is lost on average by keeping it, as a share of its rate. */
  loss: number().required(),
});

const tried = () => string<'wording' | 'picture' | 'version'>().oneOf(['wording', 'picture', 'version']);

export const listExperiments = contract({
  method: 'GET',
  path: '/api/brands/{brand}/experiments',
  summary: 'Rotations that try several wordings or pictures, and versions of a piece that share its slots: which leads, by how much, with what certainty, and how many posts are wanted',
  params: brandParams,
  answer: object({
    experiments: array(
      object({
        pieceId: string().required(),
        pieceName: string().required(),
        of: tried().required(),
        isOn: boolean().required(),
        arms: array(armSchema.required()).required(),
        leader: string().nullable().defined(),
        isDecided: boolean().required(),
        postsWanted: number().nullable().defined(),
      }).required(),
    ).required(),
  }),
});

export const keepLeader = contract({ method: 'POST', path: '/api/brands/{brand}/experiments/{piece}', summary: 'End an experiment: one wording, picture or version goes on', params: brandParams.shape({ piece: string().max(40).required() }), body: object({ of: tried().required(), arm: string().max(60).required() }).noUnknown() });

export const tryVersion = contract({
  method: 'POST',
  path: '/api/brands/{brand}/experiments/{piece}/versions',
  summary: 'Try another version of a piece in rotation: a copy to change, that takes turns with it in the same slots',
  params: brandParams.shape({ piece: string().max(40).required() }),
  body: object({}).noUnknown(),
  answer: object({ pieceId: string().required() }),
  status: 201,
});

const publicPost = object({ id: string().required(), handle: string().required(), name: string().required(), address: string().required(), publishedMs: number().required(), text: string().defined(), kind: string().required(), reactions: number().required(), comments: number().required() });

export const listOthers = contract({
  method: 'GET',
  path: '/api/brands/{brand}/others',
  summary: 'Public accounts that the brand looks at: how often they post, in which formats, with which hashtags, and what did well, beside its own',
  params: brandParams,
  answer: object({
    others: array(
      object({
        network: string().required(),
        handle: string().required(),
        name: string().required(),
        followers: number().nullable().defined(),
        postsAWeek: number().nullable().defined(),
        ownPostsAWeek: number().nullable().defined(),
        kinds: array(object({ kind: string().required(), share: number().required() }).required()).required(),
        tags: array(object({ tag: string().required(), posts: number().required() }).required()).required(),
        best: array(publicPost.required()).required(),
        problem: string().nullable().defined(),
      }).required(),
    ).required(),
    networks: array(object({ key: string().required(), name: string().required() }).required()).required(),
  }),
});

const otherBody = object({ network: string().max(40).required(), handle: string().trim().max(60).matches(/^@?[\p{L}\p{N}_.-]+$/u, 'A handle has letters, digits, dots and hyphens').required() }).noUnknown();
export const addOther = contract({ method: 'POST', path: '/api/brands/{brand}/others', summary: 'Look at a public account from now on', params: brandParams, body: otherBody });
export const removeOther = contract({ method: 'POST', path: '/api/brands/{brand}/others/remove', summary: 'Look at a public account no more', params: brandParams, body: otherBody });
export const searchOthers = contract({ method: 'GET', path: '/api/brands/{brand}/others/search', summary: 'Public posts of the last month that have all the words', params: brandParams, query: object({ network: string().max(40).required(), words: string().trim().min(2, 'Search for at least two letters').max(100).required() }), answer: object({ posts: array(publicPost.required()).required() }) });
