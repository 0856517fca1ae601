import { array, number, object, string } from 'yup';
import type { PieceKind } from '../core/piece/piece.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { kind } from './plan-fields.ts';

/** How something that is in the archive ended. */
export const archiveStates = ['sent', 'removed', 'failed', 'cancelled'] as const;
export type ArchiveState = (typeof archiveStates)[number];

export const listArchive = contract({
  method: 'GET',
  path: '/api/brands/{brand}/archive',
  summary: 'Everything that went out, the latest first, with its words and pictures as they were; found by words, status, kind and channel',
  params: brandParams,
  query: object({ words: string().max(200), state: string<ArchiveState>().oneOf([...archiveStates]), kind: kind(), channels: string().max(8_000), before: string().max(80), limit: number().integer().min(1).max(100) }),
  answer: object({
    items: array(
      object({
        deliveryId: string().required(),
        postId: string().required(),
        pieceId: string().required(),
        pieceName: string().required(),
        kind: string<PieceKind>().required(),
        channelId: string().required(),
        placementName: string().required(),
        state: string<ArchiveState>().required(),
        atMs: number().required(),
        address: string().nullable().defined(),
        caption: string().defined(),
        publicationId: string().nullable().defined(),
      }).required(),
    ).required(),
    next: string().nullable().defined(),
  }),
});

export const pieceOfDelivery = contract({ method: 'POST', path: '/api/brands/{brand}/deliveries/{delivery}/as-piece', summary: 'A new piece of what went out, exactly as it was', params: brandParams.shape({ delivery: string().max(40).required() }), body: object({}).noUnknown(), answer: object({ pieceId: string().required() }), status: 201 });

export const pieceOfOutsidePost = contract({ method: 'POST', path: '/api/brands/{brand}/results/posts/{publication}/as-piece', summary: 'A new piece with the words of a post that was made without Confetti', params: brandParams.shape({ publication: string().max(40).required() }), body: object({}).noUnknown(), answer: object({ pieceId: string().required() }), status: 201 });
