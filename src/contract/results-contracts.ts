import { array, boolean, number, object, string } from 'yup';
import { families, type Family } from '../core/results/features.ts';
import type { Figures, RateBase } from '../core/results/measures.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { tones, type Tone } from '../core/plan/plan.ts';
import type { Usual } from '../core/results/usual.ts';
import type { Stretch } from '../core/results/series.ts';
import { measureKeys } from '../core/results/measures.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf, documentOrNull } from './contract.ts';
import { day, id } from './plan-fields.ts';

const filterShape = {
  from: day(),
  until: day(),
  /** Ids with commas between them. */
  channels: string().max(8_000),
  theme: string().max(60),
  campaign: string().max(60),
  label: string().max(60),
  format: string().max(20),
  template: string().max(80),
  person: string().max(40),
  outside: string().oneOf(['yes']),
};

const figureOrNull = () => number().nullable().defined();

const sumsSchema = object({
  posts: number().required(),
  reach: figureOrNull(),
  impressions: figureOrNull(),
  engagement: figureOrNull(),
  clicks: figureOrNull(),
  /** Null where nothing can be divided. */
  rate: figureOrNull(),
  followers: figureOrNull(),
});

export const sortKeys = [...measureKeys, 'engagement', 'rate', 'published'] as const;

const postRowSchema = object({
  id: string().required(),
  title: string().defined(),
  channelId: string().required(),
  /** Null: made without Confetti. */
  deliveryId: string().nullable().defined(),
  postId: string().nullable().defined(),
  pieceId: string().nullable().defined(),
  address: string().required(),
  publishedMs: number().required(),
  format: string().nullable().defined(),
  slides: number().required(),
  themeId: string().nullable().defined(),
  figures: documentOf<Figures>('Figures by measure; what the network does not give is missing'),
  engagement: figureOrNull(),
  rate: figureOrNull(),
  rateBase: string<RateBase>().oneOf(['reach', 'impressions']).nullable().defined(),
  /** How its rate stands in what is usual, at the same age. */
  standing: documentOrNull<{ readonly value: number; readonly hours: number; readonly usual: Usual }>('Its rate at an age, and what is usual then'),
  removedMs: number().nullable().defined(),
  measuredMs: number().nullable().defined(),
});

export const getOverview = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/overview',
  summary: 'What a period came to beside another one, by account and in total',
  params: brandParams,
  query: object({ ...filterShape, beside: string<'before' | 'year'>().oneOf(['before', 'year']) }),
  answer: object({
    from: string().required(),
    until: string().required(),
    besideFrom: string().required(),
    besideUntil: string().required(),
    rateBase: string<RateBase>().oneOf(['reach', 'impressions']).required(),
    now: sumsSchema.required(),
    beside: sumsSchema.required(),
    accounts: array(object({ channelId: string().required(), now: sumsSchema.required(), beside: sumsSchema.required(), followersByDay: array(number().required()).required(), problem: string().nullable().defined() }).required()).required(),
    /** Followers of all accounts together; null on a day that was not told. */
    days: array(object({ day: string().required(), followers: figureOrNull(), reach: figureOrNull(), posts: number().required() }).required()).required(),
    best: array(postRowSchema.required()).required(),
    worst: array(postRowSchema.required()).required(),
  }),
});

export const listResults = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/posts',
  summary: 'Posts of a period with their figures, sorted by any measure, each beside what is usual for its channel and format',
  params: brandParams,
  query: object({ ...filterShape, sort: string<(typeof sortKeys)[number]>().oneOf([...sortKeys]), order: string<'up' | 'down'>().oneOf(['up', 'down']), offset: number().integer().min(0).max(100_000), limit: number().integer().min(1).max(100) }),
  answer: object({ posts: array(postRowSchema.required()).required(), count: number().required(), rateBase: string<RateBase>().oneOf(['reach', 'impressions']).required() }),
});

const effectSchema = object({
  family: string<Family>().oneOf(Object.keys(families) as Family[]).required(),
  level: string().required(),
  /** As people read it, after "Posts". */
  name: string().required(),
  effect: number().required(),
  low: number().required(),
  high: number().required(),
  count: number().required(),
  says: string<'more' | 'less' | 'no-difference' | 'not-enough'>().oneOf(['more', 'less', 'no-difference', 'not-enough']).required(),
});

export const getResult = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/posts/{publication}',
  summary: 'One post: its curve beside what is usual, what was different about it, its slides and its video',
  params: brandParams.shape({ publication: id() }),
  answer: object({
    post: postRowSchema.required(),
    caption: string().defined(),
    curve: documentOf<{ readonly metric: string; readonly stretches: readonly Stretch[] }>('The main figure over the hours; stretches break where it was not measured'),
    band: array(object({ hours: number().required(), low: number().required(), middle: number().required(), high: number().required() }).required()).required(),
    bandCount: number().required(),
    differences: array(object({ family: string<Family>().required(), name: string().required(), earlier: array(string().required()).required(), effect: effectSchema.nullable().defined() }).required()).required(),
    nearest: number().required(),
    slides: array(object({ slide: number().required(), people: number().required() }).required()).required(),
    watched: array(object({ percent: number().required(), people: number().required() }).required()).required(),
    kinds: array(object({ kind: string().required(), count: number().required() }).required()).required(),
    /** Measures that its network counts in another way since some time. */
    countedAnew: array(string().required()).required(),
    comments: array(object({ id: string().required(), author: string().required(), text: string().defined(), atMs: number().required(), state: string().required() }).required()).required(),
  }),
});

export const getWhatWorks = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/works',
  summary: 'What posts had that did better or worse, with intervals; and the hours of the week',
  params: brandParams,
  query: object(filterShape),
  answer: object({
    posts: number().required(),
    hoursCompared: number().required(),
    effects: array(effectSchema.required()).required(),
    hours: array(object({ weekday: number().required(), hour: number().required(), effect: number().required(), count: number().required() }).required()).required(),
    /** How themes are planned in the weeks to come, beside what they had. */
    themes: array(object({ themeId: string().required(), planned: number().required(), share: number().required() }).required()).required(),
  }),
});

const audienceSchema = object({ channelId: string().required(), followers: figureOrNull(), countries: documentOf<Figures>('Followers by country'), languages: documentOf<Figures>('Followers by language'), ages: documentOf<Figures>('Followers by age'), hours: documentOf<Figures>('Followers who are there, by hour') });

export const getAudience = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/audience',
  summary: 'Who follows each account; accounts with too few followers are named apart',
  params: brandParams,
  answer: object({ accounts: array(audienceSchema.required()).required(), tooFew: array(string().required()).required() }),
});

export const learnSettingsSchema = object({
  rateBase: string<RateBase>().oneOf(['reach', 'impressions']).required(),
  heldWords: array(string().trim().min(1).max(80).required()).max(200).required(),
  answerWithinHours: number().integer().min(1).max(720).required(),
}).noUnknown();

export const getLearnSettings = contract({ method: 'GET', path: '/api/brands/{brand}/learn-settings', summary: 'What the rate of engagement is measured by, which words hold messages back, and how long people may wait', params: brandParams, answer: learnSettingsSchema });

export const keepLearnSettings = contract({ method: 'POST', path: '/api/brands/{brand}/learn-settings', summary: 'Change how the brand reads its figures and replies', params: brandParams, body: learnSettingsSchema, answer: learnSettingsSchema });

export const getFacets = contract({
  method: 'GET',
  path: '/api/brands/{brand}/results/facets',
  summary: 'What results can be filtered by',
  params: brandParams,
  answer: object({
    channels: array(object({ id: string().required(), name: string().required(), handle: string().defined(), network: string().required(), networkName: string().required(), badge: documentOrNull<NetworkSheet['badge']>('The sign of its network'), isConnected: boolean().required() }).required()).required(),
    themes: array(object({ id: string().required(), name: string().required(), letter: string().required(), tone: string<Tone>().oneOf([...tones]).required() }).required()).required(),
    campaigns: array(object({ id: string().required(), name: string().required() }).required()).required(),
    labels: array(string().required()).required(),
    formats: array(string().required()).required(),
    templates: array(object({ key: string().required(), name: string().required() }).required()).required(),
    people: array(object({ id: string().required(), name: string().required() }).required()).required(),
  }),
});
