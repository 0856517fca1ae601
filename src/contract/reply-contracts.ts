import { array, boolean, number, object, string } from 'yup';
import { conversationStates, type ConversationState } from '../core/replies/conversation-state.ts';
import type { TalkRule } from '../core/network/network-sheet.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOrNull } from './contract.ts';
import { id, ids } from './plan-fields.ts';

/** Conversations that one act may be about. */
const MAX_AT_ONCE = 200;
const MAX_ANSWER = 10_000;
const conversationParams = brandParams.shape({ conversation: id() });
const kinds = ['comment', 'mention', 'message'] as const;
export type ConversationKind = (typeof kinds)[number];
const kind = () => string<ConversationKind>().oneOf([...kinds]);
const state = () => string<ConversationState>().oneOf([...conversationStates]);
const label = () => string().trim().min(1, 'Give the label a name').max(40);

const conversationSchema = object({
  id: string().required(),
  channelId: string().required(),
  kind: kind().required(),
  state: state().required(),
  author: object({ handle: string().defined(), name: string().required(), followers: number().required() }).required(),
  snippet: string().defined(),
  assignedTo: string().nullable().defined(),
  labels: array(string().required()).required(),
  firstMs: number().required(),
  lastMs: number().required(),
  waitingSinceMs: number().nullable().defined(),
  publicationId: string().nullable().defined(),
});

export const listConversations = contract({
  method: 'GET',
  path: '/api/brands/{brand}/conversations',
  summary: 'Comments, mentions and messages of all channels, the latest first',
  params: brandParams,
  query: object({
    state: string<ConversationState | 'to-do'>().oneOf([...conversationStates, 'to-do']),
    channels: string().max(8_000),
    kind: kind(),
    /** A person, or `nobody`. */
    assigned: string().max(40),
    label: string().max(40),
    words: string().max(200),
    /** Only what is older than so many hours. */
    olderHours: number().integer().min(1).max(10_000),
    after: string().max(80),
    limit: number().integer().min(1).max(100),
  }),
  answer: object({ items: array(conversationSchema.required()).required(), next: string().nullable().defined(), counts: object({ unread: number().required(), open: number().required(), closed: number().required(), apart: number().required() }).required(), labels: array(string().required()).required(), answerWithinHours: number().required() }),
});

const utteranceSchema = object({
  id: string().required(),
  kind: string<'in' | 'out' | 'note'>().oneOf(['in', 'out', 'note']).required(),
  author: string().required(),
  text: string().defined(),
  atMs: number().required(),
  state: string<'heard' | 'waiting' | 'sent' | 'failed'>().oneOf(['heard', 'waiting', 'sent', 'failed']).required(),
  problem: string().nullable().defined(),
  fate: string<'hidden' | 'removed'>().oneOf(['hidden', 'removed']).nullable().defined(),
});

export const getConversation = contract({
  method: 'GET',
  path: '/api/brands/{brand}/conversations/{conversation}',
  summary: 'A conversation with all that was said, the post it belongs to, who it is and what passed before',
  params: conversationParams,
  answer: object({
    conversation: conversationSchema.required(),
    utterances: array(utteranceSchema.required()).required(),
    post: object({ id: string().required(), title: string().defined(), address: string().required(), publishedMs: number().required(), deliveryId: string().nullable().defined() }).nullable().defined(),
    others: array(object({ id: string().required(), kind: kind().required(), snippet: string().defined(), lastMs: number().required(), state: state().required() }).required()).required(),
    /** What can be done on its network; null: nothing from here. */
    talk: documentOrNull<TalkRule>('What its network allows'),
    linkAs: number().nullable().defined(),
    /** Colleagues who are writing an answer now. */
    writing: array(string().required()).required(),
  }),
});

export const proposeAnswers = contract({
  method: 'GET',
  path: '/api/brands/{brand}/conversations/{conversation}/proposals',
  summary: 'Short answers from the brand’s facts, saved answers and words, each with what it was made of',
  params: conversationParams,
  query: object({ turn: number().integer().min(0).max(1_000) }),
  answer: object({ answers: array(object({ text: string().required(), used: string().required() }).required()).required() }),
});

export const moveConversations = contract({
  method: 'POST',
  path: '/api/brands/{brand}/conversations/move',
  summary: 'Mark conversations as read, close them, open them again, set them apart or bring them back; answers what they were, to undo it',
  params: brandParams,
  body: object({ ids: ids(MAX_AT_ONCE), event: string<'read' | 'close' | 'reopen' | 'set-apart' | 'bring-back'>().oneOf(['read', 'close', 'reopen', 'set-apart', 'bring-back']).required() }).noUnknown(),
  answer: object({ moved: array(object({ id: string().required(), from: state().required() }).required()).required() }),
});

export const assignConversations = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/assign', summary: 'Give conversations to a person, or to nobody', params: brandParams, body: object({ ids: ids(MAX_AT_ONCE), personId: string().max(40).nullable().defined() }).noUnknown() });

export const labelConversations = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/label', summary: 'Put a label on conversations, or take it off', params: brandParams, body: object({ ids: ids(MAX_AT_ONCE), label: label().required(), on: boolean().required() }).noUnknown() });

export const answerConversation = contract({
  method: 'POST',
  path: '/api/brands/{brand}/conversations/{conversation}/answers',
  summary: 'Answer within the network’s limits, once for a key; 409 when a colleague has answered what was not seen yet',
  params: conversationParams,
  body: object({ text: string().trim().min(1, 'Write an answer').max(MAX_ANSWER).required(), key: string().matches(/^[\w-]{8,60}$/).required(), seen: string().max(40).nullable().defined(), close: boolean().required(), again: boolean() }).noUnknown(),
  answer: object({ answerId: string().required() }),
  status: 201,
});

export const retryAnswer = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/{conversation}/answers/{answer}/retry', summary: 'Send a failed answer once more; the network is asked first whether it is there', params: conversationParams.shape({ answer: id() }), body: object({}).noUnknown() });

export const noteOnConversation = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/{conversation}/notes', summary: 'Write a note that only colleagues see', params: conversationParams, body: object({ text: string().trim().min(1, 'Write a note').max(5_000).required() }).noUnknown() });

export const writeOnConversation = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/{conversation}/writing', summary: 'Say that an answer is being written', params: conversationParams, body: object({}).noUnknown() });

export const moderate = contract({ method: 'POST', path: '/api/brands/{brand}/conversations/{conversation}/utterances/{utterance}/fate', summary: 'Hide or remove what somebody wrote at the network, where its rules allow it; hiding can be undone', params: conversationParams.shape({ utterance: id() }), body: object({ fate: string<'hidden' | 'removed'>().oneOf(['hidden', 'removed']).nullable().defined() }).noUnknown() });

const savedSchema = object({ id: id(), name: string().trim().min(1, 'Give the answer a name').max(60).required(), text: string().trim().min(1, 'Write the answer').max(MAX_ANSWER).required() }).noUnknown();

export const listSavedAnswers = contract({ method: 'GET', path: '/api/brands/{brand}/saved-answers', summary: 'Answers that come again, with fill-ins of the brand’s facts', params: brandParams, answer: object({ answers: array(savedSchema.required()).required() }) });
export const keepSavedAnswer = contract({ method: 'POST', path: '/api/brands/{brand}/saved-answers', summary: 'Keep an answer; one of the same id is replaced', params: brandParams, body: savedSchema, answer: savedSchema });
export const removeSavedAnswer = contract({ method: 'DELETE', path: '/api/brands/{brand}/saved-answers/{saved}', summary: 'Remove a saved answer', params: brandParams.shape({ saved: id() }) });

export const getAnswerTimes = contract({
  method: 'GET',
  path: '/api/brands/{brand}/answer-times',
  summary: 'How long first answers took in the last 90 days, by channel and weekday',
  params: brandParams,
  answer: object({
    channels: array(object({ key: string().required(), medianMs: number().required(), ninetiethMs: number().required(), count: number().required() }).required()).required(),
    weekdays: array(object({ key: string().required(), medianMs: number().required(), ninetiethMs: number().required(), count: number().required() }).required()).required(),
  }),
});

/** What a network tells by itself; what it tells is checked by its signature and not by a session. */
export const hearFromNetwork = contract({ method: 'POST', path: '/api/hooks/{channel}', summary: 'Takes what came in on a channel from its network, signed with the channel’s secret', params: object({ channel: id() }), body: 'bytes' });
