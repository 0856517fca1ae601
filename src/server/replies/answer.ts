import { nanoid } from 'nanoid';
import { countingOf } from '../../core/wording/compose.ts';
import { countCharacters } from '../../core/words/count-characters.ts';
import type { TalkRule, NetworkSheet } from '../../core/network/network-sheet.ts';
import { getChannel, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { endWriting, insertUtterance, listUtterances, moveConversations, retryAnswer, type Conversation, type Utterance } from '../db/conversation-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { answerJob } from './answer-handler.ts';

const MAX_UTTERANCES = 200;

export interface NewAnswer {
  readonly text: string;
  /** A second press sends nothing more. */
  readonly key: string;
  /** The last thing that the person saw. */
  readonly seen: string | null;
  readonly close: boolean;
  /** They have seen that a colleague answered, and answer as well. */
  readonly again: boolean;
}

/** What can be done on a conversation's network. */
export async function talkOf({ db }: Pick<Services, 'db'>, conversation: Conversation): Promise<{ readonly sheet: NetworkSheet; readonly talk: TalkRule } | null> {
  const channel = await getChannel(db, conversation.channelId);
  const sheet = channel.removedMs === null ? (await listSheetsOf(db, conversation.brandId)).find(({ key }) => key === channel.network) : undefined;
  return sheet?.talk ? { sheet, talk: sheet.talk } : null;
}

/**
 * Writes an answer down and has it sent; answers its id.
 * @throws ProblemError 409 when a colleague has answered meanwhile, or the channel takes no answers; 422 when it is too long
 */
export async function answerConversation(services: Services, brand: Brand, conversation: Conversation, person: { readonly id: string; readonly name: string }, answer: NewAnswer, nowMs: number): Promise<string> {
  const { db, clock } = services;
  const rules = await talkOf(services, conversation);
  if (!rules) throw new ProblemError(409, 'no-answers-here', 'This channel takes no answers from here. Answer there.');
  const counting = countingOf({ counting: rules.talk.counting }, rules.sheet);
  const over = countCharacters(answer.text, counting) - rules.talk.maxAnswer;
  if (over > 0) throw new ProblemError(422, 'too-long', `The answer is ${over} over: ${rules.sheet.name} takes ${rules.talk.maxAnswer}.`);
  const said = await listUtterances(db, conversation.id, MAX_UTTERANCES);
  const known = said.find(({ answerKey }) => answerKey === answer.key);
  if (known) return known.id;
  const unseen = said.slice(said.findIndex(({ id }) => id === answer.seen) + 1).find(({ kind, personId }) => kind === 'out' && personId !== person.id);
  if (unseen && !answer.again) throw new ProblemError(409, 'answered-meanwhile', `${unseen.author} has just answered: “${unseen.text.slice(0, 120)}” Send yours as well?`);
  const target = said.findLast(({ kind, fate }) => kind === 'in' && fate !== 'removed')?.remoteId;
  if (target === undefined || target === null) throw new ProblemError(409, 'nothing-to-answer', 'What could be answered is not there any more.');
  const id = nanoid(12);
  const channel = await getChannel(db, conversation.channelId);
  const isKept = await db.transaction(async (trx) => {
    const kept = await insertUtterance(trx, conversation, { id, conversationId: conversation.id, kind: 'out', personId: person.id, author: person.name, text: answer.text, atMs: nowMs, state: 'waiting', target, answerKey: answer.key }, clock.machineNowMs());
    await endWriting(trx, conversation.id, person.id);
    if (kept) await enqueueJob(trx, answerJob({ id }, brand.id, channel.network), clock.machineNowMs());
    return kept;
  });
  // A second press at the same moment: the first one is the answer.
  if (!isKept) return (await listUtterances(db, conversation.id, MAX_UTTERANCES)).find(({ answerKey }) => answerKey === answer.key)?.id ?? id;
  await moveConversations(db, brand.id, [conversation.id], answer.close ? 'close' : 'read', clock.machineNowMs());
  return id;
}

/** Sends a failed answer once more. @throws ProblemError 409 when it has not failed */
export async function sendAgain(services: Services, conversation: Conversation, answer: Utterance): Promise<void> {
  const { db, clock } = services;
  const channel = await getChannel(db, conversation.channelId);
  if (!(await retryAnswer(db, answer.id))) throw new ProblemError(409, 'not-failed', 'This answer has not failed.');
  await enqueueJob(db, answerJob(answer, conversation.brandId, channel.network), clock.machineNowMs(), { again: true });
}
