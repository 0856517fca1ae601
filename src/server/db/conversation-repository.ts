import { nanoid } from 'nanoid';
import { wordsOf } from '../../core/replies/held-words.ts';
import { stateAfter, type AnswerState, type ConversationEvent, type ConversationState } from '../../core/replies/conversation-state.ts';
import type { Heard } from '../connectors/results-reader.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** What somebody wrote on a channel, with all that followed. */
export interface Conversation {
  readonly id: string;
  readonly brandId: string;
  readonly channelId: string;
  readonly thread: string;
  readonly kind: 'comment' | 'mention' | 'message';
  readonly publicationId: string | null;
  readonly authorHandle: string;
  readonly authorName: string;
  readonly authorFollowers: number;
  readonly state: ConversationState;
  readonly assignedTo: string | null;
  /** How the latest that they wrote begins. */
  readonly snippet: string;
  readonly firstMs: number;
  readonly lastMs: number;
  /** Since when they wait for an answer; null: they do not. */
  readonly waitingSinceMs: number | null;
  readonly firstAnswerMs: number | null;
  readonly revision: number;
}

/** One thing that was said: by them, by us, or among colleagues. */
export interface Utterance {
  readonly id: string;
  readonly conversationId: string;
  readonly kind: 'in' | 'out' | 'note';
  readonly remoteId: string | null;
  readonly personId: string | null;
  readonly author: string;
  readonly text: string;
  readonly atMs: number;
  readonly state: AnswerState | 'heard';
  readonly problem: string | null;
  readonly target: string | null;
  readonly answerKey: string | null;
  readonly intentMs: number | null;
  readonly fate: 'hidden' | 'removed' | null;
}

const SNIPPET = 160;
/** Words that are looked for at once. */
const MAX_SOUGHT = 8;
/** Words of one message that it is found by. */
const MAX_WORDS = 300;
const MAX_WORD = 60;

const toConversation = (row: object): Conversation => fromRow<Conversation>(row);
const toUtterance = (row: object): Utterance => fromRow<Utterance>(row);

export interface HeardOn {
  readonly brandId: string;
  readonly channelId: string;
  readonly publicationId: string | null;
  readonly heard: Heard;
  /** It has words that the brand holds back. */
  readonly isHeldBack: boolean;
  /** Not later than now: a network's clock may be ahead. */
  readonly atMs: number;
}

/** Keeps what somebody wrote, once, in whatever order it comes; false when it is known. */
export async function keepHeard(db: Db, { brandId, channelId, publicationId, heard, isHeldBack, atMs }: HeardOn, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const { author, kind, thread, text } = heard;
    const fresh = { id: nanoid(12), brand_id: brandId, channel_id: channelId, thread, kind, publication_id: publicationId, author_handle: author.handle, author_name: author.name, author_followers: author.followers, state: isHeldBack ? 'apart' : 'unread', snippet: '', first_ms: atMs, last_ms: 0 };
    await trx('conversations').insert(fresh).onConflict(['channel_id', 'thread']).ignore();
    const conversation = toConversation(await trx('conversations').where({ channel_id: channelId, thread }).first());
    const [kept] = await trx('utterances').insert({ id: nanoid(12), conversation_id: conversation.id, kind: 'in', remote_id: heard.remoteId, author: author.name, text, at_ms: atMs, state: 'heard' }).onConflict(['conversation_id', 'remote_id']).ignore().returning('id');
    if (!kept) return false;
    const isLatest = atMs >= conversation.lastMs;
    const state = conversation.lastMs === 0 ? conversation.state : (stateAfter(conversation.state, 'hear') ?? conversation.state);
    const waits = state !== 'apart' && kind !== 'mention';
    await trx('conversations')
      .where({ id: conversation.id })
      .update({
        state,
        first_ms: Math.min(conversation.firstMs, atMs),
        ...(isLatest ? { last_ms: atMs, snippet: text.slice(0, SNIPPET) } : {}),
        ...(waits && conversation.waitingSinceMs === null ? { waiting_since_ms: atMs } : {}),
        revision: trx.raw('revision + 1'),
      });
    const words = [...new Set(wordsOf(`${author.name} ${author.handle} ${text}`).split(' '))].filter((word) => word !== '').slice(0, MAX_WORDS);
    for (let from = 0; from < words.length; from += 100) await trx('conversation_words').insert(words.slice(from, from + 100).map((word) => ({ brand_id: brandId, word: word.slice(0, MAX_WORD), conversation_id: conversation.id }))).onConflict(['brand_id', 'word', 'conversation_id']).ignore();
    await noteChange(trx, { brandId, kind: 'conversation', subjectId: conversation.id }, machineNowMs);
    return true;
  });
}

export interface ConversationFilter {
  readonly state: ConversationState | 'to-do' | null;
  readonly channelIds: readonly string[] | null;
  readonly kind: Conversation['kind'] | null;
  /** A person's; `nobody`: assigned to nobody. */
  readonly assignedTo: string | null;
  readonly label: string | null;
  /** Words that all have to be there. */
  readonly words: readonly string[];
  /** Only what is older, by its latest message. */
  readonly beforeMs: number | null;
  readonly after: { readonly ms: number; readonly id: string } | null;
  readonly limit: number;
}

/** A page of conversations, the latest first. */
export async function pageConversations(db: Db, brandId: string, filter: ConversationFilter): Promise<readonly Conversation[]> {
  const query = db('conversations').where({ brand_id: brandId }).orderBy([{ column: 'last_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(filter.limit).select('conversations.*');
  applyFilter(db, brandId, query, filter);
  if (filter.after) query.whereRaw('(last_ms, id) < (?, ?)', [filter.after.ms, filter.after.id]);
  return (await query).map((row: object) => toConversation(row));
}

function applyFilter(db: Db, brandId: string, query: import('knex').Knex.QueryBuilder, { state, channelIds, kind, assignedTo, label, words, beforeMs }: Omit<ConversationFilter, 'after' | 'limit'>): void {
  if (state === 'to-do') query.whereIn('state', ['unread', 'open']);
  else if (state) query.where({ state });
  else query.whereNot({ state: 'apart' });
  if (channelIds) query.whereIn('channel_id', [...channelIds]);
  if (kind) query.where({ kind });
  if (assignedTo === 'nobody') query.whereNull('assigned_to');
  else if (assignedTo) query.where({ assigned_to: assignedTo });
  if (label) query.whereIn('id', db('conversation_labels').where({ label }).select('conversation_id'));
  // By how words begin: the last letter of the alphabet ends the range.
  for (const word of words.slice(0, MAX_SOUGHT)) query.whereIn('id', db('conversation_words').where({ brand_id: brandId }).where('word', '>=', word.slice(0, MAX_WORD)).where('word', '<', `${word.slice(0, MAX_WORD)}\u{10ffff}`).select('conversation_id'));
  if (beforeMs !== null) query.where('last_ms', '<', beforeMs);
}

/** How many conversations are in each state, each at most `most`. */
export async function countConversations(db: Db, brandId: string, most: number): Promise<Readonly<Record<ConversationState, number>>> {
  const counted = async (state: ConversationState): Promise<number> => {
    const row = await db.from(db('conversations').where({ brand_id: brandId, state }).select('id').limit(most).as('some')).count({ count: '*' }).first();
    return Number(row?.['count'] ?? 0);
  };
  return { unread: await counted('unread'), open: await counted('open'), closed: await counted('closed'), apart: await counted('apart') };
}

export async function findConversation(db: Db, brandId: string, id: string): Promise<Conversation | null> {
  const row: object | undefined = await db('conversations').where({ brand_id: brandId, id }).first();
  return row ? toConversation(row) : null;
}

/** What passed, the first first, at most so many of the latest. */
export async function listUtterances(db: Db, conversationId: string, limit: number): Promise<readonly Utterance[]> {
  const rows: object[] = await db('utterances').where({ conversation_id: conversationId }).orderBy([{ column: 'at_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(limit);
  return rows.map(toUtterance).toReversed();
}

/** Other conversations with the same person on the channel, the latest first. */
export async function listOthersOf(db: Db, { id, channelId, authorHandle }: Conversation, limit: number): Promise<readonly Conversation[]> {
  const rows: object[] = await db('conversations').where({ channel_id: channelId, author_handle: authorHandle }).whereNot({ id }).orderBy('last_ms', 'desc').limit(limit);
  return rows.map(toConversation);
}

export async function listLabelsOf(db: Db, conversationIds: readonly string[]): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows: { conversation_id: string; label: string }[] = await db('conversation_labels').whereIn('conversation_id', [...conversationIds]).orderBy('label');
  const found = new Map<string, string[]>();
  for (const { conversation_id, label } of rows) found.set(conversation_id, [...(found.get(conversation_id) ?? []), label]);
  return found;
}

export async function listLabelNames(db: Db, brandId: string, limit: number): Promise<readonly string[]> {
  return db('conversation_labels').join('conversations', 'conversations.id', 'conversation_labels.conversation_id').where({ brand_id: brandId }).distinct('label').orderBy('label').limit(limit).pluck('label');
}

/** Moves conversations on; answers those that allowed it, with the state they had: that is how it is undone. */
export async function moveConversations(db: Db, brandId: string, ids: readonly string[], event: Exclude<ConversationEvent, 'hear'>, machineNowMs: number): Promise<readonly { readonly id: string; readonly from: ConversationState }[]> {
  return db.transaction(async (trx) => {
    const moved: { id: string; from: ConversationState }[] = [];
    const rows: { id: string; state: ConversationState; waiting_since_ms: number | null }[] = await trx('conversations').where({ brand_id: brandId }).whereIn('id', [...ids]).select('id', 'state', 'waiting_since_ms');
    for (const { id, state } of rows) {
      const next = stateAfter(state, event);
      if (next === null || next === state) continue;
      const changed = await trx('conversations').where({ id, state }).update({ state: next, ...(next === 'closed' || next === 'apart' ? { waiting_since_ms: null } : {}), revision: trx.raw('revision + 1') });
      if (changed === 0) continue;
      moved.push({ id, from: state });
      await noteChange(trx, { brandId, kind: 'conversation', subjectId: id }, machineNowMs);
    }
    return moved;
  });
}

export async function assignConversations(db: Db, brandId: string, ids: readonly string[], personId: string | null, machineNowMs: number): Promise<void> {
  await changeAll(db, brandId, ids, { assigned_to: personId }, machineNowMs);
}

async function changeAll(db: Db, brandId: string, ids: readonly string[], fields: Readonly<Record<string, unknown>>, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const rows: { id: string }[] = await trx('conversations').where({ brand_id: brandId }).whereIn('id', [...ids]).update({ ...fields, revision: trx.raw('revision + 1') }).returning('id');
    for (const { id } of rows) await noteChange(trx, { brandId, kind: 'conversation', subjectId: id }, machineNowMs);
  });
}

export async function setLabel(db: Db, brandId: string, ids: readonly string[], label: string, isOn: boolean, machineNowMs: number): Promise<void> {
  const own: string[] = await db('conversations').where({ brand_id: brandId }).whereIn('id', [...ids]).pluck('id');
  if (isOn && own.length > 0) await db('conversation_labels').insert(own.map((id) => ({ conversation_id: id, label }))).onConflict(['conversation_id', 'label']).ignore();
  else await db('conversation_labels').whereIn('conversation_id', own).where({ label }).delete();
  await changeAll(db, brandId, own, {}, machineNowMs);
}

export type NewUtterance = Pick<Utterance, 'id' | 'conversationId' | 'kind' | 'personId' | 'author' | 'text' | 'atMs' | 'state' | 'target' | 'answerKey'>;

/** Writes an answer or a note down; false when an answer of that key is there already. */
export async function insertUtterance(trx: Db, conversation: Pick<Conversation, 'id' | 'brandId'>, utterance: NewUtterance, machineNowMs: number): Promise<boolean> {
  const { id, conversationId, kind, personId, author, text, atMs, state, target, answerKey } = utterance;
  const [kept] = await trx('utterances').insert({ id, conversation_id: conversationId, kind, person_id: personId, author, text, at_ms: atMs, state, target, answer_key: answerKey }).onConflict('answer_key').ignore().returning('id');
  if (!kept) return false;
  await trx('conversations').where({ id: conversation.id }).update({ revision: trx.raw('revision + 1') });
  await noteChange(trx, { brandId: conversation.brandId, kind: 'conversation', subjectId: conversation.id }, machineNowMs);
  return true;
}

export async function findUtterance(db: Db, id: string): Promise<Utterance | null> {
  const row: object | undefined = await db('utterances').where({ id }).first();
  return row ? toUtterance(row) : null;
}

export async function noteIntent(db: Db, id: string, intentMs: number): Promise<void> {
  await db('utterances').where({ id }).update({ intent_ms: intentMs });
}

/** Ends an answer: it is there, or it is not, with the reason. */
export async function endAnswer(db: Db, conversation: Conversation, answer: Utterance, end: { readonly kind: 'sent'; readonly remoteId: string; readonly atMs: number } | { readonly kind: 'failed'; readonly problem: string }, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('utterances').where({ id: answer.id }).update(end.kind === 'sent' ? { state: 'sent', remote_id: end.remoteId, at_ms: end.atMs, problem: null } : { state: 'failed', problem: end.problem });
    if (end.kind === 'sent') {
      await trx('conversations').where({ id: conversation.id }).update({ waiting_since_ms: null, first_answer_ms: trx.raw('coalesce(first_answer_ms, ?)', [end.atMs - conversation.firstMs]), last_ms: Math.max(conversation.lastMs, end.atMs) });
      if (conversation.publicationId !== null) await trx('publications').where({ id: conversation.publicationId }).where('published_ms', '>=', end.atMs - EARLY_MS).update({ answered_early: true });
    }
    await trx('conversations').where({ id: conversation.id }).update({ revision: trx.raw('revision + 1') });
    await noteChange(trx, { brandId: conversation.brandId, kind: 'conversation', subjectId: conversation.id }, machineNowMs);
  });
}

/** An answer that comes so soon after a post counts as early. */
const EARLY_MS = 2 * 3_600_000;

/** Makes a failed answer wait again; false when it has not failed. */
export async function retryAnswer(db: Db, id: string): Promise<boolean> {
  return (await db('utterances').where({ id, kind: 'out', state: 'failed' }).update({ state: 'waiting', problem: null })) > 0;
}

export async function setFate(db: Db, conversation: Pick<Conversation, 'id' | 'brandId'>, id: string, fate: Utterance['fate'], machineNowMs: number): Promise<void> {
  await db('utterances').where({ id }).update({ fate });
  await changeAll(db, conversation.brandId, [conversation.id], {}, machineNowMs);
}

/** Conversations whose first answer is known, since a moment. */
export async function listAnswered(db: Db, brandId: string, sinceMs: number, limit: number): Promise<readonly { readonly channelId: string; readonly firstMs: number; readonly afterMs: number }[]> {
  const rows: { channelId: string; firstMs: number; afterMs: number }[] = await db('conversations').where({ brand_id: brandId }).where('last_ms', '>=', sinceMs).whereNotNull('first_answer_ms').limit(limit).select('channel_id as channelId', 'first_ms as firstMs', 'first_answer_ms as afterMs');
  return rows.map((row) => ({ channelId: row.channelId, firstMs: Number(row.firstMs), afterMs: Number(row.afterMs) }));
}

/** Those who have waited longest, since before a moment. */
export async function listWaitingLong(db: Db, brandId: string, beforeMs: number, limit: number): Promise<readonly Conversation[]> {
  const rows: object[] = await db('conversations').where({ brand_id: brandId }).where('waiting_since_ms', '<', beforeMs).whereIn('state', ['unread', 'open']).orderBy('waiting_since_ms').limit(limit);
  return rows.map(toConversation);
}

/** Says that somebody is writing an answer, until a moment of the machine's clock; watchers hear of it when it was not known. */
export async function noteWriting(db: Db, conversation: Pick<Conversation, 'id' | 'brandId'>, personId: string, untilMs: number, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const prolonged = await trx('answer_writers').where({ conversation_id: conversation.id, person_id: personId }).where('until_ms', '>', machineNowMs).update({ until_ms: untilMs });
    if (prolonged > 0) return;
    await trx('answer_writers').insert({ conversation_id: conversation.id, person_id: personId, until_ms: untilMs }).onConflict(['conversation_id', 'person_id']).merge(['until_ms']);
    await noteChange(trx, { brandId: conversation.brandId, kind: 'conversation', subjectId: conversation.id }, machineNowMs);
  });
}

/** Whoever has sent an answer is not writing it any more. */
export async function endWriting(db: Db, conversationId: string, personId: string): Promise<void> {
  await db('answer_writers').where({ conversation_id: conversationId, person_id: personId }).delete();
}

/** People who are writing an answer now, but one. */
export async function listWriting(db: Db, conversationId: string, butPersonId: string, machineNowMs: number): Promise<readonly string[]> {
  return db('answer_writers').join('people', 'people.id', 'answer_writers.person_id').where({ conversation_id: conversationId }).where('until_ms', '>', machineNowMs).whereNot({ person_id: butPersonId }).orderBy('people.name').pluck('people.name');
}

export interface SavedAnswer {
  readonly id: string;
  readonly name: string;
  readonly text: string;
}

export async function listSavedAnswers(db: Db, brandId: string): Promise<readonly SavedAnswer[]> {
  return db('saved_answers').where({ brand_id: brandId }).orderBy('name').limit(500).select('id', 'name', 'text');
}

export async function keepSavedAnswer(db: Db, brandId: string, { id, name, text }: SavedAnswer): Promise<boolean> {
  const changed = await db('saved_answers').where({ brand_id: brandId, id }).update({ name, text });
  if (changed > 0) return true;
  await db('saved_answers').insert({ id, brand_id: brandId, name, text }).onConflict('id').ignore();
  return true;
}

export async function removeSavedAnswer(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('saved_answers').where({ brand_id: brandId, id }).delete()) > 0;
}
