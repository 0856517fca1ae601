import { array, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';

/** What a line of Today is about; each kind has its own action. */
export const needKinds = ['failed', 'stuck', 'held', 'overdue-draft', 'changed', 'preflight', 'dry', 'licence'] as const;
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
