import { array, boolean, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';

/** The longest time before a post, in minutes, that somebody may be reminded of it: a day. */
const MAX_BEFORE_MIN = 1_440;

const remindersSchema = object({
  beforeMin: number().integer().min(1).max(MAX_BEFORE_MIN).nullable().defined(),
  whenOut: boolean().required(),
  whenFailed: boolean().required(),
  byMail: boolean().required(),
}).noUnknown();

export const listNotices = contract({
  method: 'GET',
  path: '/api/brands/{brand}/notices',
  summary: 'What you were told of the brand’s posts, the latest first, and what you want to hear of',
  params: brandParams,
  answer: object({
    items: array(object({ id: string().required(), sentence: string().required(), path: string().required(), atMs: number().required(), isRead: boolean().required() }).required()).required(),
    reminders: remindersSchema.required(),
    /** Whether this installation sends letters. */
    hasMail: boolean().required(),
  }),
});

export const readNotices = contract({ method: 'POST', path: '/api/brands/{brand}/notices/read', summary: 'Mark everything that you were told as read', params: brandParams, body: object({}).noUnknown() });

export const keepReminders = contract({ method: 'POST', path: '/api/brands/{brand}/reminders', summary: 'What you want to hear of the brand’s posts: before, when out, when failed; here and by mail', params: brandParams, body: remindersSchema, answer: remindersSchema });

/** What a line of Today is about; each kind has its own action. */
export const needKinds = ['failed', 'stuck', 'held', 'overdue-draft', 'changed', 'preflight', 'dry', 'licence', 'access', 'missed', 'hand-off', 'sign-off', 'sent-back', 'boost', 'reply', 'link'] as const;
export type NeedKind = (typeof needKinds)[number];

/** How urgent: it stops something, it waits for a person, or it comes soon. */
export const needGroups = ['stopped', 'waiting', 'soon'] as const;
export type NeedGroup = (typeof needGroups)[number];

export const getToday = contract({
  method: 'GET',
  path: '/api/brands/{brand}/today',
  summary: 'What needs a person now, the most urgent first, and what goes out next',
  params: brandParams,
  answer: object({
    needs: array(
      object({
        key: string().required(),
        kind: string<NeedKind>().oneOf([...needKinds]).required(),
        group: string<NeedGroup>().oneOf([...needGroups]).required(),
        title: string().required(),
        sentence: string().defined(),
        pieceId: string().nullable().defined(),
        postId: string().nullable().defined(),
        deliveryId: string().nullable().defined(),
        channelIds: array(string().required()).required(),
        mediaId: string().nullable().defined(),
        atMs: number().nullable().defined(),
      }).required(),
    ).required(),
    /** How many things wait beyond those listed. */
    more: number().required(),
    next: array(object({ postId: string().required(), pieceId: string().required(), pieceName: string().required(), dueMs: number().required(), day: string().required(), channels: number().required(), channelId: string().required(), kind: string().required() }).required()).required(),
    outToday: number().required(),
    days: array(object({ day: string().required(), name: string().required() }).required()).required(),
  }),
});
