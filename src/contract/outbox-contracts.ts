import { array, boolean, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { contract, documentOrNull } from './contract.ts';

const deliveryParams = brandParams.shape({ delivery: string().max(40).required() });
const postParams = brandParams.shape({ post: string().max(40).required() });
/** A hand-off is put off for at most a week. */
const MAX_SNOOZE_MIN = 10_080;

export const takeDown = contract({ method: 'POST', path: '/api/brands/{brand}/deliveries/{delivery}/take-down', summary: 'Remove a post from its network, where that can be done; Confetti keeps what it was', params: deliveryParams, body: object({}).noUnknown() });

export const rewrite = contract({
  method: 'POST',
  path: '/api/brands/{brand}/deliveries/{delivery}/rewrite',
  summary: 'Give a post that is out another text, where its network allows it',
  params: deliveryParams,
  body: object({ caption: string().max(100_000).required(), title: string().max(1_000) }).noUnknown(),
  answer: object({ address: string().required() }),
});

export const handOffs = contract({
  method: 'GET',
  path: '/api/brands/{brand}/hand-offs',
  summary: 'Posts that a person has to place, each with its files, its words field by field, and where to go; and boosts to set up',
  params: brandParams,
  answer: object({
    items: array(
      object({
        deliveryId: string().required(),
        postId: string().required(),
        pieceName: string().required(),
        channelName: string().required(),
        network: string().required(),
        networkName: string().required(),
        badge: documentOrNull<NetworkSheet['badge']>('The sign of its network'),
        placementName: string().required(),
        dueMs: number().required(),
        snoozedUntilMs: number().nullable().defined(),
        /** Where the account is on its network. */
        place: string().required(),
        fields: array(object({ label: string().required(), text: string().required() }).required()).required(),
        files: number().integer().required(),
      }).required(),
    ).required(),
    boosts: array(object({ postId: string().required(), pieceName: string().required(), dueMs: number().required(), isOut: boolean().required(), budget: number().required(), currency: string().required(), days: number().required(), audience: string().defined(), aim: string().defined() }).required()).required(),
  }),
});

export const handOffFile = contract({ method: 'GET', path: '/api/brands/{brand}/deliveries/{delivery}/files/{index}', summary: 'A file of a post as it goes out, to save', params: deliveryParams.shape({ index: string().matches(/^\d{1,3}$/).required() }), answer: 'picture' });

export const markPlaced = contract({ method: 'POST', path: '/api/brands/{brand}/deliveries/{delivery}/placed', summary: 'Note that a person has placed a post, with its address', params: deliveryParams, body: object({ address: string().trim().max(2_000).matches(/^(https?:\/\/\S+)?$/, 'Start the address with https://') }).noUnknown() });

export const snooze = contract({ method: 'POST', path: '/api/brands/{brand}/deliveries/{delivery}/snooze', summary: 'Put a hand-off off for a while', params: deliveryParams, body: object({ minutes: number().integer().min(5).max(MAX_SNOOZE_MIN).required() }).noUnknown() });

export const duplicatePost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/posts/{post}/duplicate',
  summary: 'Schedule a post once more at another moment, exactly as it was',
  params: postParams,
  body: object({ wall: string().max(20).required('Choose a date and a time'), repeated: string<'earlier' | 'later'>().oneOf(['earlier', 'later']) }).noUnknown(),
  answer: object({ postId: string().required(), dueMs: number().required() }),
  status: 201,
});

export const boostFields = () => ({
  budget: number().positive('Give an amount above 0').max(1_000_000).required('Give an amount'),
  currency: string().matches(/^[A-Z]{3}$/, 'A currency has three letters, like EUR').required(),
  days: number().integer().min(1).max(90).required('Give a number of days'),
  audience: string().trim().max(300).defined(),
  aim: string().trim().max(300).defined(),
});

export const keepBoost = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/boost', summary: 'Note a paid boost with a post; no money is moved, a person sets it up', params: postParams, body: object(boostFields()).noUnknown() });
export const endBoost = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/boost/{action}', summary: 'Note that a boost is set up, or remove it', params: postParams.shape({ action: string<'done' | 'remove'>().oneOf(['done', 'remove']).required() }), body: object({}).noUnknown() });

const actSchema = object({ seq: number().required(), atMs: number().required(), name: string().required(), kind: string().required(), subjectId: string().required(), sentence: string().required() });
export const actKindNames = ['post', 'channel', 'network', 'people', 'settings'] as const;
export type ActKindName = (typeof actKindNames)[number];

export const listActs = contract({
  method: 'GET',
  path: '/api/brands/{brand}/acts',
  summary: 'Who did what, the latest first',
  params: brandParams,
  query: object({ kind: string<ActKindName>().oneOf([...actKindNames]), person: string().max(40), before: number().integer().positive() }),
  answer: object({ items: array(actSchema.required()).required(), next: number().nullable().defined() }),
});

export const exportActs = contract({ method: 'GET', path: '/api/brands/{brand}/acts-csv', summary: 'The same as CSV', params: brandParams, query: object({ kind: string<ActKindName>().oneOf([...actKindNames]), person: string().max(40) }), answer: 'text' });
