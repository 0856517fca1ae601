import { pick, share } from './chance.ts';
import { habits } from './habits.ts';
import { commentPhrases, complaintPhrases, firstNames, lastNames, mentionPhrases, messagePhrases, spamPhrases, thanksPhrases, type Phrase } from './phrases.ts';
import { ageAt, finalCounts, type Met } from './reaction.ts';

/** Something that a person wrote to an account or about it. */
export interface Heard {
  readonly id: string;
  readonly kind: 'comment' | 'mention' | 'message';
  /** What belongs together: a comment with its answers, the messages with one person. */
  readonly thread: string;
  readonly postId: string | null;
  /** What it answers. */
  readonly parentId: string | null;
  readonly author: Author;
  readonly text: string;
  readonly atMs: number;
}

export interface Author {
  readonly handle: string;
  readonly name: string;
  readonly followers: number;
}

/** What an account has answered. */
export interface Answered {
  readonly id: string;
  readonly target: string;
  readonly text: string;
  readonly atMs: number;
}

/** An account whose life people take part in; without it nobody mentions or writes to it. */
export interface Spoken {
  readonly network: string;
  readonly handle: string;
  readonly sinceMs: number | null;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** More comments than these are counted, and not shown one by one. */
const MAX_SHOWN_COMMENTS = 200;
const SPAM_SHARE = 0.04;
const COMPLAINT_SHARE = 0.05;
const THANKS_SHARE = 0.55;
const MESSAGES_A_DAY = 0.22;
const MENTIONS_A_DAY = 0.1;

export function authorOf(key: string): Author {
  const [first, last] = [pick(firstNames, `${key} first`), pick(lastNames, `${key} last`)];
  return { handle: `@${first}.${last}`.toLowerCase(), name: `${first} ${last}`, followers: Math.round(Math.exp(3 + share(`${key} followers`) * 4.5)) };
}

function phraseOfComment(key: string): Phrase {
  const dice = share(`${key} sort`);
  if (dice < SPAM_SHARE) return pick(spamPhrases, key);
  return pick(dice < SPAM_SHARE + COMPLAINT_SHARE ? complaintPhrases : commentPhrases, key);
}

/** The comments on a post that have come by a moment, the first first. Their moments never change. */
export function commentsOn(met: Met, nowMs: number, epochMs: number): readonly Heard[] {
  const habit = habits[met.network];
  if (!habit?.talk.comments) return [];
  const final = finalCounts({ ...met, traits: { ...met.traits, answeredEarly: false } }, epochMs)['comments'] ?? 0;
  const heard: Heard[] = [];
  for (let index = 1; index <= Math.min(MAX_SHOWN_COMMENTS, Math.floor(final)); index += 1) {
    const atMs = Math.round(met.publishedMs + ageAt(index / final, habit.rushHours) * HOUR_MS);
    if (atMs > nowMs) break;
    const id = `c${met.postId}-${index}`;
    heard.push({ id, kind: 'comment', thread: id, postId: met.postId, parentId: null, author: authorOf(id), text: phraseOfComment(id).text, atMs });
  }
  return heard;
}

/** Messages and mentions of an account between two moments, `(fromMs, untilMs]`. */
export function letters(account: Spoken, fromMs: number, untilMs: number): readonly Heard[] {
  const { network, handle, sinceMs } = account;
  const talk = habits[network]?.talk;
  if (sinceMs === null || !talk) return [];
  const heard: Heard[] = [];
  for (let day = Math.floor(Math.max(fromMs, sinceMs) / DAY_MS); day * DAY_MS <= untilMs; day += 1) {
    for (const [kind, often] of [['message', talk.messages ? MESSAGES_A_DAY : 0], ['mention', talk.mentions ? MENTIONS_A_DAY : 0]] as const) {
      const key = `${network} ${handle} ${kind} ${day}`;
      if (share(key) >= often) continue;
      const atMs = Math.round(day * DAY_MS + (7 + share(`${key} hour`) * 15) * HOUR_MS);
      if (atMs <= Math.max(fromMs, sinceMs) || atMs > untilMs) continue;
      const id = `${kind === 'message' ? 'l' : 'n'}${Math.floor(share(`${key} id`) * 2 ** 32).toString(36)}${day}`;
      heard.push({ id, kind, thread: id, postId: null, parentId: null, author: authorOf(id), text: pick(kind === 'message' ? messagePhrases : mentionPhrases, id).text.replaceAll('{handle}', handle), atMs });
    }
  }
  return heard;
}

/** What people write back when they are answered: thanks, mostly for an answered question. */
export function thanksFor(heard: readonly Heard[], answers: readonly Answered[], nowMs: number): readonly Heard[] {
  const byId = new Map(heard.map((each) => [each.id, each]));
  const questions = new Set([...commentPhrases, ...complaintPhrases, ...messagePhrases].flatMap(({ text, question }) => (question ? [text] : [])));
  const thanked = new Set<string>();
  return answers.flatMap((answer) => {
    const asked = byId.get(answer.target);
    if (!asked || thanked.has(asked.id) || !questions.has(asked.text) || share(`${asked.id} thanks`) >= THANKS_SHARE) return [];
    thanked.add(asked.id);
    const atMs = Math.round(answer.atMs + (0.3 + share(`${asked.id} wait`) * 5) * HOUR_MS);
    return atMs > nowMs ? [] : [{ ...asked, id: `${asked.id}-t`, parentId: answer.id, text: pick(thanksPhrases, `${asked.id} thanks`).text, atMs }];
  });
}
