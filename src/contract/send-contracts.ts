import { array, number, object, string } from 'yup';
import { deliveryStates, type DeliveryState } from '../core/post/delivery-state.ts';
import { WALL_TIME_PATTERN } from '../core/time/wall-time.ts';
import { brandParams, pageQuery } from './brand-params.ts';
import { contract } from './contract.ts';
import { cutRefSchema } from './piece-contracts.ts';

const count = () => number().integer().required();

export const deliverySchema = object({
  id: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
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
  /** True when the piece has been changed since this post was scheduled. */
  pieceChanged: string<'no' | 'yes'>().oneOf(['no', 'yes']).required(),
});

const deliveryParams = brandParams.shape({ delivery: string().max(40).required() });

export const schedulePiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/deliveries',
  summary: 'Schedule cuts of a piece for a moment in the brand’s zone, or send them now; each keeps its own copy',
  params: brandParams.shape({ piece: string().max(40).required() }),
  body: object({
    revision: number().integer().required(),
    cuts: array(cutRefSchema.required()).min(1, 'Choose at least one cut').max(200).required(),
    when: object({
      kind: string<'now' | 'at'>().oneOf(['now', 'at']).required(),
      wall: string().when('kind', { is: 'at', then: (schema) => schema.matches(WALL_TIME_PATTERN, 'Choose a date and a time').required('Choose a date and a time') }),
      /** Which of two moments is meant, when the clock shows this time twice. */
      repeated: string<'earlier' | 'later'>().oneOf(['earlier', 'later']),
    }).noUnknown().required(),
  }).noUnknown(),
  answer: object({ deliveries: array(deliverySchema.required()).required() }),
  status: 201,
});

export const listDeliveries = contract({
  method: 'GET',
  path: '/api/brands/{brand}/deliveries',
  summary: 'What is going out, has gone out or is stuck, latest first',
  params: brandParams,
  query: pageQuery.shape({ state: string<DeliveryState>().oneOf([...deliveryStates]), piece: string().max(40) }),
  answer: object({
    items: array(deliverySchema.required()).required(),
    next: string().nullable().defined(),
    counts: object({ scheduled: count(), sending: count(), sent: count(), failed: count(), cancelled: count() }).required(),
  }),
});

export const actOnDelivery = contract({
  method: 'POST',
  path: '/api/brands/{brand}/deliveries/{delivery}/{action}',
  summary: 'Take a delivery back, try a failed one again, or send a scheduled one now',
  params: deliveryParams.shape({ action: string<'cancel' | 'retry' | 'send-now'>().oneOf(['cancel', 'retry', 'send-now']).required() }),
  answer: deliverySchema,
});

export const getDeliveryPicture = contract({
  method: 'GET',
  path: '/api/brands/{brand}/deliveries/{delivery}/picture',
  summary: 'A small picture of what is (or was) sent, from the post’s own copy',
  params: deliveryParams,
  answer: 'picture',
});

export const watchDeliveries = contract({
  method: 'GET',
  path: '/api/brands/{brand}/events',
  summary: 'Server-sent events: `deliveries` whenever something in the outbox has changed, `clock` when the clock was moved',
  params: brandParams,
  answer: 'events',
});
