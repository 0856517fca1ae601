import { array, boolean, number, object, string } from 'yup';
import { deliveryActions, type DeliveryAction } from '../core/post/delivery-action.ts';
import { deliveryStates, type DeliveryState } from '../core/post/delivery-state.ts';
import { deliverySteps, type DeliveryStep } from '../core/post/delivery-step.ts';
import type { PieceKind } from '../core/piece/piece.ts';
import { postStates, type PostState } from '../core/post/post-state.ts';
import { fieldKeys, type FieldKey } from '../core/words/fields.ts';
import { WALL_TIME_PATTERN } from '../core/time/wall-time.ts';
import { brandParams, pageQuery } from './brand-params.ts';
import { contract } from './contract.ts';
import { cutRefSchema } from './piece-contracts.ts';

/** Longer than any network's text. */
const text = () => string().max(100_000);
const count = () => number().integer().required();

export const deliverySchema = object({
  id: string().required(),
  /** The post that it is a cut of. */
  postId: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  kind: string<PieceKind>().oneOf(['graphic', 'carousel', 'video']).required(),
  channelId: string().required(),
  channelName: string().required(),
  network: string().required(),
  placement: string().required(),
  placementName: string().required(),
  state: string<DeliveryState>().oneOf([...deliveryStates]).required(),
  dueMs: number().required(),
  wall: string().required(),
  zone: string().required(),
  attempt: number().required(),
  /** When the next attempt is due after a passing fault, by the machine's own clock; null otherwise. */
  retryInMs: number().nullable().defined(),
  address: string().nullable().defined(),
  problem: string().nullable().defined(),
  caption: string().defined(),
  sentMs: number().nullable().defined(),
  /** What is being done while it is sent. */
  step: string<DeliveryStep>().oneOf([...deliverySteps]).nullable().defined(),
  /** What can be done to it on its network, once it is out. */
  afterwards: array(string<'text' | 'remove'>().oneOf(['text', 'remove']).required()).required(),
  /** True when the piece has been changed since this post was scheduled. */
  pieceChanged: string<'no' | 'yes'>().oneOf(['no', 'yes']).required(),
});

/** When a post goes out: at once, or at a wall time in the brand's zone. */
const whenShape = () =>
  object({
    kind: string<'now' | 'at'>().oneOf(['now', 'at']).required(),
    wall: string().when('kind', { is: 'at', then: (schema) => schema.matches(WALL_TIME_PATTERN, 'Choose a date and a time').required('Choose a date and a time') }),
    /** Which of two moments is meant, when the clock shows this time twice. */
    repeated: string<'earlier' | 'later'>().oneOf(['earlier', 'later']),
  }).noUnknown();
const when = () => whenShape().required();

const deliveryParams = brandParams.shape({ delivery: string().max(40).required() });

export const schedulePiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/deliveries',
  summary: 'Schedule cuts of a piece for moments in the brand’s zone, or send them now, as one post a moment; what it is made of is pinned',
  params: brandParams.shape({ piece: string().max(40).required() }),
  body: object({
    revision: number().integer().required(),
    /** A cut may go out at a moment of its own. */
    cuts: array(cutRefSchema.shape({ when: whenShape().optional().default(undefined) }).required()).min(1, 'Choose at least one cut').max(200).required(),
    when: when(),
    /** Whether cuts that are scheduled or out already may go out once more. */
    again: boolean(),
    /** A name that the client gives this request: sent twice, it schedules once. */
    request: string().matches(/^[\w-]{8,40}$/),
  }).noUnknown(),
  answer: object({ deliveries: array(deliverySchema.required()).required() }),
  status: 201,
});

export const listDeliveries = contract({
  method: 'GET',
  path: '/api/brands/{brand}/deliveries',
  summary: 'What is going out, has gone out or is stuck, latest first; `ids` asks for some, separated by commas',
  params: brandParams,
  query: pageQuery.shape({ ids: string().max(2_000), state: string<DeliveryState>().oneOf([...deliveryStates]), piece: string().max(40) }),
  answer: object({
    items: array(deliverySchema.required()).required(),
    next: string().nullable().defined(),
    /** Counts stop at 1000. */
    counts: object(Object.fromEntries(deliveryStates.map((state) => [state, count()])) as Record<DeliveryState, ReturnType<typeof count>>).required(),
  }),
});

export const actOnDelivery = contract({
  method: 'POST',
  path: '/api/brands/{brand}/deliveries/{delivery}/{action}',
  summary: 'Cancel, hold, release or retry a delivery, or send a scheduled one now',
  params: deliveryParams.shape({ action: string<DeliveryAction>().oneOf([...deliveryActions]).required() }),
  answer: deliverySchema,
});

export const getDeliveryPicture = contract({
  method: 'GET',
  path: '/api/brands/{brand}/deliveries/{delivery}/picture',
  summary: 'A small picture of what is (or was) sent, from the post’s own copy',
  params: deliveryParams,
  query: object({ slide: number().integer().min(0).max(400) }),
  answer: 'picture',
});

export const getDeliveryWords = contract({
  method: 'GET',
  path: '/api/brands/{brand}/deliveries/{delivery}/words',
  summary: 'What a scheduled post says on its channel, field by field, as it goes out',
  params: deliveryParams,
  answer: object({ fields: array(object({ key: string<FieldKey>().oneOf([...fieldKeys]).required(), label: string().required(), text: string().defined(), max: number().nullable().defined() }).required()).required() }),
});

export const changeDeliveryWords = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/deliveries/{delivery}/words',
  summary: 'Give a scheduled post words of its own on its channel; its piece stays. 409 once it is on its way',
  params: deliveryParams,
  body: object({ words: object({ title: text(), caption: text(), firstComment: text(), altText: text(), link: text() }).noUnknown().required() }).noUnknown(),
  answer: deliverySchema,
});

const postParams = brandParams.shape({ post: string().max(40).required() });

const postSchema = object({
  id: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  state: string<PostState>().oneOf([...postStates]).required(),
  dueMs: number().required(),
  wall: string().required(),
  zone: string().required(),
  revision: number().required(),
  deliveries: array(deliverySchema.required()).required(),
});

export const getPost = contract({ method: 'GET', path: '/api/brands/{brand}/posts/{post}', summary: 'A post with its deliveries', params: postParams, answer: postSchema });

export const actOnPost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/posts/{post}/{action}',
  summary: 'Cancel, hold, release, retry or send now all deliveries of a post that allow it',
  params: postParams.shape({ action: string<DeliveryAction>().oneOf([...deliveryActions]).required() }),
  answer: postSchema,
});

export const reschedulePost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/posts/{post}/reschedule',
  summary: 'Move what of a post still waits to another moment in the brand’s zone',
  params: postParams,
  body: object({ when: when() }).noUnknown(),
  answer: postSchema,
});

export const refreshPost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/posts/{post}/refresh',
  summary: 'Pin a scheduled post anew, from its piece as it is now',
  params: postParams,
  answer: postSchema,
});

export const getPostDifferences = contract({
  method: 'GET',
  path: '/api/brands/{brand}/posts/{post}/differences',
  summary: 'Where a post’s piece has changed since the post was scheduled',
  params: postParams,
  answer: object({ differences: array(object({ place: string().required(), pinned: string().required(), now: string().required() }).required()).required() }),
});

export const watchChanges = contract({
  method: 'GET',
  path: '/api/brands/{brand}/events',
  summary: 'Server-sent events: an event a change, named by its kind, with the id of what has changed; `piece` also says who has that piece open',
  params: brandParams,
  query: object({ piece: string().max(40) }),
  answer: 'events',
});
