import { array, boolean, number, object, string } from 'yup';
import { ideaKinds, ideaStates, type IdeaKind, type IdeaState } from '../core/ideas/idea.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { day, ids, wall } from './plan-fields.ts';

const kind = () => string<IdeaKind>().oneOf([...ideaKinds]);
const state = () => string<IdeaState>().oneOf([...ideaStates]);
const ideaParams = brandParams.shape({ idea: string().max(40).required() });
export const MAX_IDEA_TITLE = 300;
const MAX_IDEA_TEXT = 20_000;

const useSchema = object({ kind: string<'piece' | 'entry' | 'theme'>().oneOf(['piece', 'entry', 'theme']).required(), subjectId: string().required(), name: string().defined(), atMs: number().required() });

const ideaSchema = object({
  id: string().required(),
  kind: kind().required(),
  title: string().required(),
  text: string().defined(),
  link: string().defined(),
  pictureUrl: string().defined(),
  mediaId: string().nullable().defined(),
  day: string().nullable().defined(),
  themeId: string().nullable().defined(),
  source: string().defined(),
  why: array(string().required()).required(),
  state: state().required(),
  snoozedUntil: string().nullable().defined(),
  assignedTo: string().nullable().defined(),
  createdBy: string().nullable().defined(),
  createdMs: number().required(),
  /** What it leads to: the piece of a revival, the slot of a gap, the conversation of a reply. */
  pieceId: string().nullable().defined(),
  slotKey: string().nullable().defined(),
  channelIds: array(string().required()).required(),
  conversationId: string().nullable().defined(),
  uses: array(useSchema.required()).required(),
});

export const listIdeas = contract({
  method: 'GET',
  path: '/api/brands/{brand}/ideas',
  summary: 'Ideas of the shelf, what fits best first, each with why it fits and what was made of it',
  params: brandParams,
  query: object({ state: state(), kind: kind(), theme: string().max(40), assigned: string().max(40), words: string().max(100), used: string<'yes' | 'no'>().oneOf(['yes', 'no']), after: string().max(600), limit: number().integer().min(1).max(100) }),
  answer: object({ items: array(ideaSchema.required()).required(), next: string().nullable().defined(), counts: object({ open: number().required(), snoozed: number().required(), archived: number().required() }).required(), kinds: array(object({ kind: kind().required(), count: number().required() }).required()).required() }),
});

export const addIdea = contract({
  method: 'POST',
  path: '/api/brands/{brand}/ideas',
  summary: 'Put a note on the shelf: a text, a link, a picture',
  params: brandParams,
  body: object({ request: string().matches(/^[\w-]{8,60}$/).required(), title: string().trim().min(1, 'Write what the idea is').max(MAX_IDEA_TITLE).required(), text: string().max(MAX_IDEA_TEXT).defined(), link: string().trim().max(2_000).defined(), mediaId: string().max(40).nullable().defined(), day: day().notRequired().nullable().defined(), themeId: string().max(40).nullable().defined(), /** A conversation that it comes from. */ conversationId: string().max(40).nullable() }).noUnknown(),
  answer: ideaSchema,
  status: 201,
});

export const changeIdea = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/ideas/{idea}',
  summary: 'Change an idea, give it to a person, set it aside until a day, archive it or take it back',
  params: ideaParams,
  body: object({
    title: string().trim().min(1, 'Write what the idea is').max(MAX_IDEA_TITLE),
    text: string().max(MAX_IDEA_TEXT),
    link: string().trim().max(2_000),
    day: day().notRequired().nullable(),
    themeId: string().max(40).nullable(),
    assignedTo: string().max(40).nullable(),
    event: string<'snooze' | 'archive' | 'restore'>().oneOf(['snooze', 'archive', 'restore']),
    until: day().notRequired().when('event', { is: 'snooze', then: (schema) => schema.required('Until when?') }),
  }).noUnknown(),
  answer: ideaSchema,
});

export const makePieceOfIdea = contract({ method: 'POST', path: '/api/brands/{brand}/ideas/{idea}/piece', summary: 'Make a piece of an idea: a saying becomes a quote, an article or a note what it says most, a revival a copy of its piece', params: ideaParams, body: object({ request: string().matches(/^[\w-]{8,60}$/).required() }).noUnknown(), answer: object({ pieceId: string().required() }), status: 201 });

export const planIdea = contract({
  method: 'POST',
  path: '/api/brands/{brand}/ideas/{idea}/placeholder',
  summary: 'Put an idea into the plan as a placeholder, at a moment or in an open slot',
  params: ideaParams,
  body: object({ request: string().matches(/^[\w-]{8,60}$/).required(), channelIds: ids(200).min(1, 'Choose at least one channel'), wall: wall().notRequired().nullable(), slotKey: string().max(80).nullable().defined() }).noUnknown(),
  answer: object({ entryId: string().required(), dueMs: number().required() }),
  status: 201,
});

export const noteIdeaOnTheme = contract({ method: 'POST', path: '/api/brands/{brand}/ideas/{idea}/theme-note', summary: 'Write an idea into a theme’s notes', params: ideaParams, body: object({ themeId: string().max(40).required('Choose a theme') }).noUnknown() });

export const ideaSettingsSchema = object({ perWeek: number().integer().min(0).max(60).required(), kinds: array(kind().required()).max(12).required(), revivalDays: number().integer().min(7).max(730).required() }).noUnknown();

export const getIdeaSettings = contract({ method: 'GET', path: '/api/brands/{brand}/idea-settings', summary: 'What comes to the shelf by itself, and how much of it a week', params: brandParams, answer: ideaSettingsSchema });
export const keepIdeaSettings = contract({ method: 'POST', path: '/api/brands/{brand}/idea-settings', summary: 'Set what comes to the shelf by itself; it is looked for at once', params: brandParams, body: ideaSettingsSchema, answer: object({ came: number().required() }) });

const feedSchema = object({ id: string().required(), name: string().required(), address: string().required(), /** The brand’s own channel that it is; null: a feed of the web. */ channelId: string().nullable().defined(), polledMs: number().nullable().defined(), problem: string().nullable().defined(), items: array(object({ title: string().required(), link: string().defined(), publishedMs: number().required() }).required()).required() });

export const ruleSettings = object({
  channelIds: ids(200).min(1, 'Choose at least one channel'),
  templateKey: string().matches(/^[a-z][a-z0-9-]*$/).max(60).nullable().defined(),
  caption: string().trim().min(1, 'Write a pattern for the caption').max(5_000).required(),
  button: string().max(60).defined(),
  themeId: string().max(40).nullable().defined(),
  everyHours: number().integer().min(0).max(720).required(),
  take: string<'newest' | 'backlog'>().oneOf(['newest', 'backlog']).required(),
  backlog: number().integer().min(1).max(100).required(),
  as: string<'draft' | 'queue'>().oneOf(['draft', 'queue']).required(),
}).noUnknown();

const ruleSchema = object({
  id: string().required(),
  feedId: string().required(),
  settings: ruleSettings.required(),
  isOn: boolean().required(),
  stopped: string().nullable().defined(),
  acts: array(object({ title: string().defined(), outcome: string<'made' | 'passed' | 'failed'>().oneOf(['made', 'passed', 'failed']).required(), sentence: string().defined(), pieceId: string().nullable().defined(), atMs: number().required() }).required()).required(),
});

export const listFeeds = contract({ method: 'GET', path: '/api/brands/{brand}/feeds', summary: 'The feeds that the brand reads, what they said last, and what its rules did with them', params: brandParams, answer: object({ feeds: array(feedSchema.required()).required(), rules: array(ruleSchema.required()).required() }) });
export const addFeed = contract({ method: 'POST', path: '/api/brands/{brand}/feeds', summary: 'Read a feed from now on: RSS, Atom or JSON Feed, by its own address or that of its site', params: brandParams, body: object({ address: string().trim().min(4, 'Give an address').max(2_000).required() }).noUnknown(), answer: feedSchema, status: 201 });
export const followChannel = contract({ method: 'POST', path: '/api/brands/{brand}/channel-feeds', summary: 'Follow what is posted by hand on a channel of the brand’s own, as a feed', params: brandParams, body: object({ channelId: string().max(40).required('Choose a channel') }).noUnknown(), answer: feedSchema, status: 201 });
export const removeFeed = contract({ method: 'DELETE', path: '/api/brands/{brand}/feeds/{feed}', summary: 'Read a feed no more; what was made of it stays', params: brandParams.shape({ feed: string().max(40).required() }) });
export const pollFeed = contract({ method: 'POST', path: '/api/brands/{brand}/feeds/{feed}/poll', summary: 'Read a feed now', params: brandParams.shape({ feed: string().max(40).required() }), body: object({}).noUnknown(), answer: object({ fresh: number().required() }) });
export const keepFeedRule = contract({ method: 'POST', path: '/api/brands/{brand}/feed-rules', summary: 'Let items of a feed become posts by a rule, or change one; a rule that had stopped goes on', params: brandParams, body: object({ id: string().matches(/^[\w-]{8,40}$/).required(), feedId: string().max(40).required(), settings: ruleSettings.required(), isOn: boolean().required() }).noUnknown() });
export const removeFeedRule = contract({ method: 'DELETE', path: '/api/brands/{brand}/feed-rules/{rule}', summary: 'Remove a rule; what it made stays', params: brandParams.shape({ rule: string().max(40).required() }) });
