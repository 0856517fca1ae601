import { nanoid } from 'nanoid';
import * as contracts from '../../contract/reply-contracts.ts';
import { MAX_COUNTED } from '../../contract/contract.ts';
import { answerTimes } from '../../core/replies/answer-times.ts';
import { wordsOf } from '../../core/replies/held-words.ts';
import * as conversations from '../db/conversation-repository.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { findDelivery } from '../db/delivery-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { listMembers } from '../db/people-repository.ts';
import { findPublication } from '../db/publication-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { answerConversation, sendAgain, talkOf } from '../replies/answer.ts';
import { moderate as moderateUtterance } from '../replies/moderate.ts';
import { takeFromHook } from '../replies/network-hook.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';
import { nextCursor, readCursor } from './page-cursor.ts';

const PAGE = 60;
const MAX_LABELS = 200;
const MAX_UTTERANCES = 200;
const MAX_OTHERS = 8;
const MAX_ANSWERED = 20_000;
const TIMES_MS = 90 * 86_400_000;
const HOUR_MS = 3_600_000;
/** A person counts as writing for this long after their last key. */
const WRITING_MS = 8_000;

function summaryOf(conversation: conversations.Conversation, labels: readonly string[]) {
  const { id, channelId, kind, state, authorHandle, authorName, authorFollowers, snippet, assignedTo, firstMs, lastMs, waitingSinceMs, publicationId } = conversation;
  return { id, channelId, kind, state, author: { handle: authorHandle, name: authorName, followers: authorFollowers }, snippet, assignedTo, labels: [...labels], firstMs: Number(firstMs), lastMs: Number(lastMs), waitingSinceMs: waitingSinceMs === null ? null : Number(waitingSinceMs), publicationId };
}

/** @throws ProblemError 404 */
async function found(db: Db, brand: Brand, id: string): Promise<conversations.Conversation> {
  const conversation = await conversations.findConversation(db, brand.id, id);
  if (!conversation) throw notFound('conversation');
  return conversation;
}

const list = defineEndpoint({
  contract: contracts.listConversations,
  may: 'see',
  async handle({ services, brand, query, nowMs }) {
    const { db } = services;
    const limit = query.limit ?? PAGE;
    const channelIds = (query.channels ?? '').split(',').filter((each) => each !== '');
    const page = await conversations.pageConversations(db, brand.id, {
      state: query.state ?? null,
      channelIds: channelIds.length === 0 ? null : channelIds,
      kind: query.kind ?? null,
      assignedTo: query.assigned ?? null,
      label: query.label ?? null,
      words: wordsOf(query.words ?? '').split(' ').filter((word) => word !== ''),
      beforeMs: query.olderHours === undefined ? null : nowMs - query.olderHours * HOUR_MS,
      after: readCursor(query.after),
      limit,
    });
    const labels = await conversations.listLabelsOf(db, page.map(({ id }) => id));
    const { answerWithinHours } = await readLearnSettings(db, brand.id);
    return { items: page.map((each) => summaryOf(each, labels.get(each.id) ?? [])), next: nextCursor(page, limit, ({ id, lastMs }) => ({ ms: Number(lastMs), id })), counts: await conversations.countConversations(db, brand.id, MAX_COUNTED), labels: [...(await conversations.listLabelNames(db, brand.id, MAX_LABELS))], answerWithinHours };
  },
});

const get = defineEndpoint({
  contract: contracts.getConversation,
  may: 'see',
  async handle({ services, brand, caller, params }) {
    const { db, clock } = services;
    const conversation = await found(db, brand, params.conversation);
    const [utterances, others, labels, rules, writing] = [await conversations.listUtterances(db, conversation.id, MAX_UTTERANCES), await conversations.listOthersOf(db, conversation, MAX_OTHERS), await conversations.listLabelsOf(db, [conversation.id]), await talkOf(services, conversation), await conversations.listWriting(db, conversation.id, caller.person.id, clock.machineNowMs())];
    const post = conversation.publicationId === null ? null : await findPublication(db, brand.id, conversation.publicationId);
    return {
      conversation: summaryOf(conversation, labels.get(conversation.id) ?? []),
      utterances: utterances.map(({ id, kind, author, text, atMs, state, problem, fate }) => ({ id, kind, author, text, atMs: Number(atMs), state, problem, fate })),
      post: post && { id: post.id, title: post.title, address: post.address, publishedMs: Number(post.publishedMs), deliveryId: post.deliveryId },
      others: others.map(({ id, kind, snippet, lastMs, state }) => ({ id, kind, snippet, lastMs: Number(lastMs), state })),
      talk: rules?.talk ?? null,
      linkAs: rules?.sheet.words.links.countAs ?? null,
      writing: [...writing],
    };
  },
});

const propose = defineEndpoint({
  contract: contracts.proposeAnswers,
  may: 'see',
  async handle({ services: { db }, brand, params, query }) {
    const conversation = await found(db, brand, params.conversation);
    const said = (await conversations.listUtterances(db, conversation.id, MAX_UTTERANCES)).findLast(({ kind }) => kind === 'in')?.text ?? '';
    const delivery = conversation.publicationId === null ? null : ((await findPublication(db, brand.id, conversation.publicationId))?.deliveryId ?? null);
    const post = delivery === null ? '' : ((await findDelivery(db, brand.id, delivery))?.words.caption ?? '');
    const { voice, facts, language } = brand.book;
    const known = [...(await conversations.listSavedAnswers(db, brand.id)).map(({ name, text }) => ({ name, text })), ...voice.snippets.map(({ name, text }) => ({ name, text }))];
    const [{ proposeAnswers }, { guessLanguage }] = await Promise.all([import('../../core/replies/propose-answers.ts'), import('../../core/write/guess-language.ts')]);
    return { answers: proposeAnswers({ language: guessLanguage(said) ?? language ?? 'en', said, tone: voice.tone, facts, known, post, turn: query.turn ?? 0 }).map((each) => ({ ...each })) };
  },
});

const move = defineEndpoint({
  contract: contracts.moveConversations,
  may: 'answer',
  handle: async ({ services, brand, body }) => ({ moved: [...(await conversations.moveConversations(services.db, brand.id, body.ids, body.event, services.clock.machineNowMs()))] }),
});

const assign = defineEndpoint({
  contract: contracts.assignConversations,
  may: 'answer',
  async handle({ services, brand, body }) {
    if (body.personId !== null && !(await listMembers(services.db, brand.id)).some(({ id }) => id === body.personId)) throw new ProblemError(422, 'unknown-person', 'This person is not a member of the brand.');
    await conversations.assignConversations(services.db, brand.id, body.ids, body.personId, services.clock.machineNowMs());
    return undefined;
  },
});

const label = defineEndpoint({
  contract: contracts.labelConversations,
  may: 'answer',
  async handle({ services, brand, body }) {
    await conversations.setLabel(services.db, brand.id, body.ids, body.label, body.on, services.clock.machineNowMs());
    return undefined;
  },
});

const answer = defineEndpoint({
  contract: contracts.answerConversation,
  may: 'answer',
  async handle(context) {
    const { services, brand, caller, params, body, nowMs } = context;
    const conversation = await found(services.db, brand, params.conversation);
    const answerId = await answerConversation(services, brand, conversation, caller.person, { ...body, again: body.again ?? false }, nowMs);
    await noteActOf(context, 'post', conversation.id, `Answered ${conversation.authorName}`);
    return { answerId };
  },
});

/** @throws ProblemError 404 */
async function utteranceOf(db: Db, conversation: conversations.Conversation, id: string): Promise<conversations.Utterance> {
  const utterance = await conversations.findUtterance(db, id);
  if (utterance?.conversationId !== conversation.id) throw notFound('message');
  return utterance;
}

const retry = defineEndpoint({
  contract: contracts.retryAnswer,
  may: 'answer',
  async handle({ services, brand, params }) {
    const conversation = await found(services.db, brand, params.conversation);
    await sendAgain(services, conversation, await utteranceOf(services.db, conversation, params.answer));
    return undefined;
  },
});

const note = defineEndpoint({
  contract: contracts.noteOnConversation,
  may: 'answer',
  async handle({ services, brand, caller, params, body, nowMs }) {
    const conversation = await found(services.db, brand, params.conversation);
    await conversations.insertUtterance(services.db, conversation, { id: nanoid(12), conversationId: conversation.id, kind: 'note', personId: caller.person.id, author: caller.person.name, text: body.text, atMs: nowMs, state: 'sent', target: null, answerKey: null }, services.clock.machineNowMs());
    return undefined;
  },
});

const writing = defineEndpoint({
  contract: contracts.writeOnConversation,
  may: 'answer',
  async handle({ services, brand, caller, params }) {
    const conversation = await found(services.db, brand, params.conversation);
    const machineNowMs = services.clock.machineNowMs();
    await conversations.noteWriting(services.db, conversation, caller.person.id, machineNowMs + WRITING_MS, machineNowMs);
    return undefined;
  },
});

const moderate = defineEndpoint({
  contract: contracts.moderate,
  may: 'answer',
  async handle(context) {
    const { services, brand, params, body } = context;
    const conversation = await found(services.db, brand, params.conversation);
    const utterance = await utteranceOf(services.db, conversation, params.utterance);
    await moderateUtterance(services, conversation, utterance, body.fate);
    await noteActOf(context, 'post', conversation.id, `${body.fate === 'removed' ? 'Removed' : body.fate === 'hidden' ? 'Hid' : 'Showed again'} a comment of ${conversation.authorName}`);
    return undefined;
  },
});

const saved = defineEndpoint({ contract: contracts.listSavedAnswers, may: 'see', handle: async ({ services, brand }) => ({ answers: [...(await conversations.listSavedAnswers(services.db, brand.id))] }) });

const keepSaved = defineEndpoint({
  contract: contracts.keepSavedAnswer,
  may: 'answer',
  async handle({ services, brand, body }) {
    await conversations.keepSavedAnswer(services.db, brand.id, body);
    return body;
  },
});

const removeSaved = defineEndpoint({
  contract: contracts.removeSavedAnswer,
  may: 'answer',
  async handle({ services, brand, params }) {
    if (!(await conversations.removeSavedAnswer(services.db, brand.id, params.saved))) throw notFound('saved answer');
    return undefined;
  },
});

const times = defineEndpoint({
  contract: contracts.getAnswerTimes,
  may: 'see',
  async handle({ services, brand, nowMs }) {
    const answered = await conversations.listAnswered(services.db, brand.id, nowMs - TIMES_MS, MAX_ANSWERED);
    return { channels: [...answerTimes(answered, 'channel', brand.zone)], weekdays: [...answerTimes(answered, 'weekday', brand.zone)] };
  },
});

const hear = defineEndpoint({
  contract: contracts.hearFromNetwork,
  may: 'network',
  async handle({ services, params, request, nowMs }) {
    await takeFromHook(services, params.channel, request, nowMs);
    return undefined;
  },
});

export const replyEndpoints: readonly Endpoint[] = [list, get, propose, move, assign, label, answer, retry, note, writing, moderate, saved, keepSaved, removeSaved, times, hear];
