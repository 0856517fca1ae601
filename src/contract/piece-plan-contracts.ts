import { array, boolean, mixed, number, object, string } from 'yup';
import type { RotationSettings } from '../core/plan/rotation.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { cutRefSchema, pieceParams } from './piece-contracts.ts';
import { day, id, ids, kind, wall } from './plan-fields.ts';

export const getPiecePlan = contract({
  method: 'GET',
  path: '/api/brands/{brand}/pieces/{piece}/plan',
  summary: 'What a piece is about, its subject, notes and labels, where it waits, its repeats and its rotation',
  params: pieceParams,
  answer: object({
    themeId: string().nullable().defined(),
    campaignId: string().nullable().defined(),
    subject: string().defined(),
    notes: string().defined(),
    labels: array(string().required()).required(),
    /** The channels that it has cuts for. */
    channelIds: array(string().required()).required(),
    queue: array(object({ id: string().required(), channelId: string().required() }).required()).required(),
    repeats: array(object({ id: string().required(), rule: string().required(), words: string().required(), start: string().required(), except: array(string().required()).required(), cuts: array(cutRefSchema.required()).required(), next: array(object({ key: string().required(), atMs: number().required(), postId: string().nullable().defined() }).required()).required() }).required()).required(),
    rotation: mixed<{ readonly settings: RotationSettings; readonly isOn: boolean }>().nullable().defined(),
    /** What of it can take turns. */
    wordings: array(object({ id: string().required(), text: string().defined() }).required()).required(),
    picture: string().nullable().defined(),
    runs: array(object({ day: string().required(), channelId: string().required(), wording: string().defined(), picture: string().defined(), postId: string().required() }).required()).required(),
  }),
});

export const changePiecePlan = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/pieces/{piece}/plan',
  summary: 'Change what a piece is about; posts that are scheduled keep their theme',
  params: pieceParams,
  body: object({ themeId: string().max(40).nullable(), campaignId: string().max(40).nullable(), subject: string().max(200), notes: string().max(10_000), labels: array(string().trim().min(1).max(60).required()).max(20) }).noUnknown(),
});

export const suggestMoments = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/suggestions',
  summary: 'The next open slots of channels, and the best moments of the coming days with their reasons',
  params: brandParams,
  body: object({ channelIds: ids(200).min(1, 'Choose at least one channel'), themeId: string().max(40).nullable().defined() }).noUnknown(),
  answer: object({
    slots: array(object({ slotKey: string().required(), wall: string().required(), atMs: number().required(), themeId: string().nullable().defined(), channelIds: array(string().required()).required() }).required()).required(),
    suggestions: array(object({ wall: string().required(), atMs: number().required(), score: number().required(), reasons: array(string().required()).required() }).required()).required(),
  }),
});

export const startRepeat = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/repeats',
  summary: 'Let a piece come round by a rule of RFC 5545, in wall times of the brand’s zone',
  params: pieceParams,
  body: object({ rule: string().max(500).required(), start: wall().required(), cuts: array(cutRefSchema.required()).min(1, 'Choose at least one place').max(200).required(), /** Agreed that clocks move or repeat some of them. */ isClockAgreed: boolean() }).noUnknown(),
  answer: object({ id: string().required(), words: string().required(), next: array(number().required()).required() }),
  status: 201,
});

export const changeRepeat = contract({
  method: 'POST',
  path: '/api/brands/{brand}/repeats/{repeat}',
  summary: 'Change one occurrence of a repeat, this and those that follow, or all: move to another time, or leave out',
  params: brandParams.shape({ repeat: string().max(40).required() }),
  body: object({ occurrence: wall(), reach: string<'this' | 'following' | 'all'>().oneOf(['this', 'following', 'all']).required(), to: wall().nullable().defined() }).noUnknown(),
  answer: object({ done: boolean().required() }),
});

export const rotationSettings = object({
  cuts: array(cutRefSchema.required()).min(1, 'Choose at least one place').max(200).required(),
  wordings: array(id()).min(1, 'Choose at least one wording').max(41).required(),
  pictures: array(string().max(40).defined()).min(1).max(60).required(),
  pairDays: number().integer().min(0).max(3_650).required(),
  restDays: number().integer().min(0).max(3_650).required(),
  lastDay: day().notRequired().nullable().defined(),
  maxRuns: number().integer().min(1).max(10_000).nullable().defined(),
  season: object({ from: string().matches(/^(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])$/).required(), until: string().matches(/^(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])$/).required() }).noUnknown().nullable().defined(),
}).noUnknown();

export const keepRotation = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/rotation',
  summary: 'Put a piece into rotation, or change how it turns',
  params: pieceParams,
  body: object({ settings: rotationSettings.required(), isOn: boolean().required() }).noUnknown(),
  answer: object({ distinct: number().required() }),
});

export const endRotation = contract({ method: 'DELETE', path: '/api/brands/{brand}/pieces/{piece}/rotation', summary: 'Remove a piece from rotation; what has run stays known', params: pieceParams });

export const listRotations = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan/rotations',
  summary: 'Evergreen pieces: how many different posts each can make, when it ran last and runs next',
  params: brandParams,
  answer: object({
    items: array(
      object({
        pieceId: string().required(),
        pieceName: string().required(),
        kind: kind().required(),
        themeId: string().nullable().defined(),
        isOn: boolean().required(),
        settings: mixed<RotationSettings>().required(),
        distinct: number().required(),
        ran: number().required(),
        lastDay: string().nullable().defined(),
        nextMs: number().nullable().defined(),
        /** Slots a week that it may fill. */
        slotsAWeek: number().required(),
      }).required(),
    ).required(),
  }),
});
