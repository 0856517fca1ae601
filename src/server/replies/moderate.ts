import { connectorFor } from '../connectors/registry.ts';
import { ConnectorError } from '../connectors/connector.ts';
import { openChannel } from '../connect/open-channel.ts';
import { setFate, type Conversation, type Utterance } from '../db/conversation-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { talkOf } from './answer.ts';

const WITHIN_MS = 15_000;

/**
 * Hides or removes at its network what somebody wrote, or shows it again.
 * @throws ProblemError 409 where the network's rules do not allow it, 503 when it does not answer
 */
export async function moderate(services: Services, conversation: Conversation, utterance: Utterance, fate: Utterance['fate']): Promise<void> {
  const rules = await talkOf(services, conversation);
  const may = utterance.kind === 'in' && conversation.kind === 'comment' && rules !== null && (fate === 'removed' ? rules.talk.remove : rules.talk.hide);
  if (!may || !rules || utterance.remoteId === null) throw new ProblemError(409, 'not-here', `${rules?.sheet.name ?? 'This channel'} lets no program ${fate === 'removed' ? 'remove' : 'hide'} this.`);
  if (utterance.fate === 'removed') throw new ProblemError(409, 'removed', 'This is removed already.');
  try {
    const channel = await openChannel(services, conversation.channelId);
    const line = connectorFor(channel, rules.sheet).talk;
    const signal = AbortSignal.timeout(WITHIN_MS);
    if (fate === 'removed') await line?.remove(utterance.remoteId, signal);
    else await line?.hide(utterance.remoteId, fate === 'hidden', signal);
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    throw new ProblemError(error.code === 'refused' || error.code === 'ended' ? 409 : 503, 'network-refused', `${error.message} Nothing was changed.`);
  }
  await setFate(services.db, conversation, utterance.id, fate, services.clock.machineNowMs());
}
