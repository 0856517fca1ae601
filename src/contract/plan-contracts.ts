import { array, boolean, number, object, string } from 'yup';
import type { Plan, Tone } from '../core/plan/plan.ts';
import { tones } from '../core/plan/plan.ts';
import { releaseRules, type ReleaseRule } from '../core/plan/hold.ts';
import type { OpenReason } from '../core/plan/forecast.ts';
import { deliveryStates, type DeliveryState } from '../core/post/delivery-state.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';
import { cutRefSchema } from './piece-contracts.ts';
import { day, id, ids, kind, wall } from './plan-fields.ts';

/** Slots that a forecast may look ahead: a year. */
export const MAX_FORECAST_DAYS = 370;
const MAX_RANGE_DAYS = 100;

const campaignSchema = object({
  id: id(),
  name: string().trim().min(1, 'Give the campaign a name').max(60).required(),
  fromDay: day(),
  untilDay: day(),
  aim: string().max(500).defined(),
  note: string().max(5_000).defined(),
  tone: string<Tone>().oneOf([...tones]).required(),
  letter: string().matches(/^[\p{L}\p{N}]$/u, 'One letter or digit').required(),
}).noUnknown();

export const getPlan = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan',
  summary: 'How the brand plans: themes, rota, pauses, days, campaigns and labels',
  params: brandParams,
  answer: object({
    plan: documentOf<Plan>('The plan document'),
    revision: number().required(),
    heldSinceMs: number().nullable().defined(),
    hasFeed: boolean().required(),
    campaigns: array(campaignSchema.required()).required(),
    labels: array(string().required()).required(),
    people: array(object({ id: string().required(), name: string().required() }).required()).required(),
  }),
});

export const changePlan = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan',
  summary: 'Save the plan on top of a revision; 409 with the newer one when somebody else was faster, 422 when two slots of a channel share a minute',
  params: brandParams,
  body: object({ revision: number().integer().required(), plan: documentOf<Plan>('The plan document') }).noUnknown(),
  answer: object({ plan: documentOf<Plan>('The plan document'), revision: number().required() }),
});

const outingSchema = object({
  id: string().required(),
  postId: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  kind: kind().required(),
  channelId: string().required(),
  placement: string().required(),
  state: string<DeliveryState>().oneOf([...deliveryStates]).required(),
  dueMs: number().required(),
  wall: string().required(),
  origin: string<'person' | 'slot' | 'rotation' | 'repeat'>().oneOf(['person', 'slot', 'rotation', 'repeat']).required(),
  themeId: string().nullable().defined(),
  campaignId: string().nullable().defined(),
  hasChanged: boolean().required(),
  problem: string().nullable().defined(),
});

const entrySchema = object({
  id: string().required(),
  /** Null: a placeholder. */
  pieceId: string().nullable().defined(),
  name: string().defined(),
  kind: kind().nullable().defined(),
  themeId: string().nullable().defined(),
  campaignId: string().nullable().defined(),
  dueMs: number().required(),
  wall: string().required(),
  slotKey: string().nullable().defined(),
  revision: number().required(),
  cuts: array(cutRefSchema.shape({ placement: string().defined() }).required()).required(),
});

/** A slot of one channel with what the forecast puts there; `open` says why nothing does. */
const fillSchema = object({
  slotKey: string().required(),
  channelId: string().required(),
  atMs: number().required(),
  wall: string().required(),
  themeId: string().nullable().defined(),
  kind: string<'waiting' | 'rotation' | 'open'>().oneOf(['waiting', 'rotation', 'open']).required(),
  pieceId: string().nullable().defined(),
  pieceName: string().nullable().defined(),
  why: string<OpenReason>().nullable().defined(),
});

const laneSchema = object({
  channelId: string().required(),
  /** The first slot that nothing goes out in; null: none within the horizon. */
  dryAtMs: number().nullable().defined(),
  slots: number().required(),
  open: number().required(),
  waiting: number().required(),
  /** Posts that rotations can still make different ones of. */
  evergreen: number().required(),
});

const dayNameSchema = object({ day: string().required(), until: string().required(), name: string().required(), of: string().required() });

/** Filters that all views of the plan share; lists are separated by commas. */
const filterShape = {
  channels: string().max(4_000),
  state: string<DeliveryState | 'draft' | 'placeholder' | 'open' | 'changed'>().oneOf([...deliveryStates, 'draft', 'placeholder', 'open', 'changed']),
  kind: kind(),
  theme: string().max(40),
  campaign: string().max(40),
  label: string().max(60),
  person: string().max(40),
};

export const getLanes = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan/lanes',
  summary: 'What went out, goes out and could go out on each channel in some days, with days that matter and how long each lane lasts',
  params: brandParams,
  query: object({ from: day(), days: number().integer().min(1).max(MAX_RANGE_DAYS).required(), ...filterShape }),
  answer: object({
    outings: array(outingSchema.required()).required(),
    /** More outings lie in these days than are answered. */
    isCut: boolean().required(),
    entries: array(entrySchema.required()).required(),
    fills: array(fillSchema.required()).required(),
    lanes: array(laneSchema.required()).required(),
    days: array(dayNameSchema.required()).required(),
  }),
});

export const getWhatIf = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/what-if',
  summary: 'The forecast of a changed plan beside that of the plan as it is; nothing is kept',
  params: brandParams,
  body: object({ plan: documentOf<Plan>('The changed plan'), days: number().integer().min(7).max(MAX_FORECAST_DAYS).required() }).noUnknown(),
  answer: object({ now: array(laneSchema.required()).required(), then: array(laneSchema.required()).required() }),
});

const spotSchema = object({
  kind: string<'slot' | 'at'>().oneOf(['slot', 'at']).required(),
  slotKey: string().max(80).when('kind', { is: 'slot', then: (schema) => schema.required() }),
  wall: wall().when('kind', { is: 'at', then: (schema) => schema.required('Choose a date and a time') }),
  repeated: string<'earlier' | 'later'>().oneOf(['earlier', 'later']),
}).noUnknown();

export const placePiece = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/places',
  summary: 'Put a piece into a slot or at a moment: scheduled when preflight passes it, else a draft with what stops it; without a piece a placeholder',
  params: brandParams,
  body: object({
    pieceId: string().max(40).nullable().defined(),
    text: string().trim().max(200),
    themeId: string().max(40).nullable(),
    channelIds: ids(200).min(1, 'Choose at least one channel'),
    spot: spotSchema.required(),
    again: boolean(),
    /** A draft that this schedules. */
    entryId: string().max(40),
  }).noUnknown(),
  answer: object({ kind: string<'post' | 'draft' | 'placeholder'>().oneOf(['post', 'draft', 'placeholder']).required(), dueMs: number().required(), postIds: array(string().required()).required(), entryId: string().nullable().defined(), sentence: string().nullable().defined() }),
  status: 201,
});

export const changeChosen = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/changes',
  summary: 'Move, shift by days, tag, refresh, hold, release or cancel posts and entries together; what cannot be changed stays, with the reason',
  params: brandParams,
  body: object({
    postIds: ids(500),
    entryIds: ids(500),
    change: object({
      kind: string<'shift' | 'move' | 'theme' | 'campaign' | 'label' | 'refresh' | 'hold' | 'release' | 'cancel'>().oneOf(['shift', 'move', 'theme', 'campaign', 'label', 'refresh', 'hold', 'release', 'cancel']).required(),
      days: number().integer().min(-366).max(366).when('kind', { is: 'shift', then: (schema) => schema.required() }),
      spot: spotSchema.default(undefined).when('kind', { is: 'move', then: (schema) => schema.required() }),
      revision: number().integer(),
      themeId: string().max(40).nullable(),
      campaignId: string().max(40).nullable(),
      label: string().trim().max(60).when('kind', { is: 'label', then: (schema) => schema.required('Give the label a name') }),
    }).noUnknown().required(),
  }).noUnknown(),
  answer: object({
    done: number().required(),
    problems: array(string().required()).required(),
    before: array(object({ id: string().required(), kind: string<'post' | 'entry'>().oneOf(['post', 'entry']).required(), wall: string().required() }).required()).required(),
  }),
});

const queueEntrySchema = object({ id: string().required(), pieceId: string().required(), pieceName: string().required(), kind: kind().required(), channelId: string().required(), placement: string().required(), themeId: string().nullable().defined(), template: string().required(), /** Where it would go out as things stand; null: no slot within the horizon. */ atMs: number().nullable().defined() });

export const listQueue = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan/queue',
  summary: 'What waits for a slot, channel by channel, in its order, with the slot that each would get',
  params: brandParams,
  query: object({ channel: string().max(40) }),
  answer: object({ items: array(queueEntrySchema.required()).required() }),
});

export const addToQueue = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/queue',
  summary: 'Let a piece wait for a slot on channels; where it waits already it stays',
  params: brandParams,
  body: object({ pieceId: id(), channelIds: ids(200).min(1, 'Choose at least one channel'), cuts: array(cutRefSchema.required()).max(200) }).noUnknown(),
  answer: object({ added: array(string().required()).required(), left: array(object({ channelId: string().required(), why: string().required() }).required()).required() }),
  status: 201,
});

export const removeFromQueue = contract({
  method: 'DELETE',
  path: '/api/brands/{brand}/plan/queue/{entry}',
  summary: 'Remove a piece from a queue',
  params: brandParams.shape({ entry: string().max(40).required() }),
});

export const orderQueue = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/queue-order',
  summary: 'Another order of a channel’s queue: what it would change, and with `keep` that it does. `seed` shuffles under the plan’s rules. 409 when other pieces wait there by now',
  params: brandParams,
  body: object({ channelId: id(), order: ids(5_000), seed: number().integer().min(1), keep: boolean().required() }).noUnknown(),
  answer: object({ order: array(string().required()).required(), moves: array(object({ entryId: string().required(), fromMs: number().nullable().defined(), toMs: number().nullable().defined() }).required()).required() }),
});

export const keepCampaign = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/campaigns',
  summary: 'Write a campaign, new or changed',
  params: brandParams,
  body: campaignSchema.test('order', 'The last day comes before the first', (campaign) => !campaign || campaign.fromDay <= campaign.untilDay),
  answer: campaignSchema,
});

export const deleteCampaign = contract({ method: 'DELETE', path: '/api/brands/{brand}/plan/campaigns/{campaign}', summary: 'Delete a campaign; its pieces and posts stay', params: brandParams.shape({ campaign: string().max(40).required() }) });

export const getCampaign = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan/campaigns/{campaign}',
  summary: 'A campaign: what of it is out, planned and missing',
  params: brandParams.shape({ campaign: string().max(40).required() }),
  answer: object({
    outings: array(outingSchema.required()).required(),
    entries: array(entrySchema.required()).required(),
    /** Its pieces, with whether any of them is planned or out. */
    pieces: array(object({ id: string().required(), name: string().required(), isPlanned: boolean().required() }).required()).required(),
  }),
});

export const holdEverything = contract({ method: 'POST', path: '/api/brands/{brand}/plan/hold', summary: 'Hold everything that is scheduled; nothing goes out until it is let go', params: brandParams, body: object({}).noUnknown(), answer: object({ held: number().required() }) });

export const releaseEverything = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/release',
  summary: 'Let go of what is held: what would become of each post by a rule, and with `keep` that it does',
  params: brandParams,
  body: object({ rule: string<ReleaseRule>().oneOf([...releaseRules]).required(), keep: boolean().required() }).noUnknown(),
  answer: object({ releases: array(object({ postId: string().required(), pieceName: string().required(), dueMs: number().required(), atMs: number().nullable().defined(), isMissed: boolean().required() }).required()).required() }),
});

const viewSchema = object({ id: id(), name: string().trim().min(1, 'Give the view a name').max(60).required(), address: string().max(1_000).matches(/^\/b\/[a-z0-9-]+\/plan\//, 'A view is an address of the plan').required() }).noUnknown();

export const listPlanViews = contract({ method: 'GET', path: '/api/brands/{brand}/plan/views', summary: 'The views of the plan that you keep', params: brandParams, answer: object({ items: array(viewSchema.required()).required() }) });
export const keepPlanView = contract({ method: 'POST', path: '/api/brands/{brand}/plan/views', summary: 'Keep a view of the plan with its filters; one of the same name is replaced', params: brandParams, body: viewSchema, answer: viewSchema, status: 201 });
export const deletePlanView = contract({ method: 'DELETE', path: '/api/brands/{brand}/plan/views/{view}', summary: 'Delete a view that you keep', params: brandParams.shape({ view: string().max(40).required() }) });

export const getProfile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/plan/profile',
  summary: 'The grid that a visitor of a channel will see: what is planned and out, the latest first',
  params: brandParams,
  query: object({ channel: string().max(40).required() }),
  answer: object({ tiles: array(object({ key: string().required(), kind: string<'out' | 'planned' | 'waiting'>().oneOf(['out', 'planned', 'waiting']).required(), pieceId: string().required(), placement: string().required(), pieceName: string().required(), atMs: number().nullable().defined(), deliveryId: string().nullable().defined(), postId: string().nullable().defined(), entryId: string().nullable().defined(), themeId: string().nullable().defined() }).required()).required() }),
});

export const importDays = contract({
  method: 'POST',
  path: '/api/brands/{brand}/plan/days',
  summary: 'Read the days of an iCalendar file (.ics, up to 2 MB); they are answered, and kept with the plan when it is saved',
  params: brandParams,
  body: 'bytes',
  answer: object({ days: array(object({ name: string().required(), from: string().required(), until: string().required(), yearly: boolean() }).required()).required() }),
});

export const listHolidayCountries = contract({ method: 'GET', path: '/api/holiday-countries', summary: 'Countries whose public holidays Confetti knows', answer: object({ items: array(object({ code: string().required(), name: string().required() }).required()).required() }) });

export const openFeed = contract({ method: 'POST', path: '/api/brands/{brand}/plan/feed', summary: 'Give the plan a secret address for calendar programs; the one before ends', params: brandParams, body: object({}).noUnknown(), answer: object({ path: string().required() }), status: 201 });
export const closeFeed = contract({ method: 'DELETE', path: '/api/brands/{brand}/plan/feed', summary: 'End the address for calendar programs', params: brandParams });
