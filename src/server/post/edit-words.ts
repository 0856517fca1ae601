import type { WordField } from '../../core/network/network-sheet.ts';
import { fieldProblem } from '../../core/wording/check-fields.ts';
import { countField } from '../../core/wording/compose.ts';
import type { FieldKey, Words } from '../../core/words/fields.ts';
import { getChannel, type Brand } from '../db/brand-repository.ts';
import { rewordDelivery, type Delivery } from '../db/delivery-repository.ts';
import { findPost } from '../db/post-repository.ts';
import { readPin } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { askAgain } from './review.ts';

/** A field of a scheduled post that can be edited, with what it says. */
export interface PostField {
  readonly key: FieldKey;
  readonly label: string;
  readonly text: string;
  readonly max: number | null;
}

/** Fields that hold sentences or an address; what is chosen from a list is changed in the piece. */
const EDITABLE: ReadonlySet<FieldKey> = new Set(['title', 'caption', 'firstComment', 'altText', 'link']);

async function rulesOf({ db }: Pick<Services, 'db'>, delivery: Delivery) {
  const channel = await getChannel(db, delivery.channelId);
  const { sheets } = await readPin(db, delivery.pin);
  const sheet = sheets.find(({ key }) => key === channel.network);
  const rules: readonly WordField[] = (sheet?.words.fields ?? []).filter(({ key, placements }) => EDITABLE.has(key) && (placements === undefined || placements.includes(delivery.placement)));
  return { channel, sheet, rules };
}

/** What of a scheduled post can be edited, as it goes out. */
export async function fieldsOfPost(services: Pick<Services, 'db'>, delivery: Delivery): Promise<readonly PostField[]> {
  const { rules } = await rulesOf(services, delivery);
  return rules.map(({ key, label, max }) => ({ key, label, max, text: delivery.words[key] ?? '' }));
}

/**
 * Gives a scheduled post words of its own, on one channel; its piece and its other channels stay as they are.
 * @throws ProblemError 422 for what the network would refuse, 409 when it is on its way or goes out as a thread
 */
export async function editWordsOfPost(services: Services, brand: Brand, delivery: Delivery, words: Readonly<Partial<Record<FieldKey, string>>>): Promise<void> {
  const { channel, sheet, rules } = await rulesOf(services, delivery);
  if (delivery.words.thread) throw new ProblemError(409, 'thread', 'This post goes out as a thread. Change the words in the piece, then refresh the post.');
  for (const [key, text] of Object.entries(words)) {
    const rule = rules.find((each) => each.key === key);
    if (!rule || !sheet) throw new ProblemError(422, 'unknown-field', `${channel.name} has no such field there.`);
    if (rule.required && text.trim() === '') throw new ProblemError(422, 'missing', `${rule.label} is empty, and ${sheet.name} asks for it.`);
    const { over, max } = countField(text, rule, sheet);
    if (over > 0) throw new ProblemError(422, 'too-long', `${rule.label} is ${over} over: ${sheet.name} takes ${max ?? 0}.`);
    const problem = fieldProblem(rule, text, channel.offers);
    if (problem !== null) throw new ProblemError(422, 'not-valid', problem);
  }
  const given = Object.fromEntries(Object.entries(words).filter(([, text]) => text.trim() !== ''));
  const kept = Object.fromEntries(Object.entries(delivery.words).filter(([key]) => !(key in words)));
  const machineNowMs = services.clock.machineNowMs();
  const done = await services.db.transaction(async (trx) => {
    if (!(await rewordDelivery(trx, delivery.id, { ...kept, ...given } as Words, machineNowMs))) return false;
    const post = await findPost(trx, brand.id, delivery.postId);
    if (post) await askAgain(trx, brand, post, machineNowMs);
    return true;
  });
  if (!done) throw new ProblemError(409, 'not-possible-now', `This post is already on its way, has gone out or was cancelled. ${brand.name} keeps it as it is.`);
}
