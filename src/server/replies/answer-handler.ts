import { MAX_ATTEMPTS, backoffMs } from '../../core/job/backoff.ts';
import { connectorFor as usualConnectorFor, type ConnectorFor } from '../connectors/registry.ts';
import { ConnectorError } from '../connectors/connector.ts';
import type { TalkLine } from '../connectors/results-reader.ts';
import { withFreshAccess } from '../connect/open-channel.ts';
import { listSheetsOf, type Channel } from '../db/brand-repository.ts';
import { endAnswer, findConversation, findUtterance, noteIntent, type Conversation, type Utterance } from '../db/conversation-repository.ts';
import type { Job, NewJob } from '../db/job-repository.ts';
import type { JobHandler, JobOutcome } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';

const KIND = 'answer';

/** The work that sends an answer. */
export function answerJob(answer: Pick<Utterance, 'id'>, brandId: string, network: string): NewJob {
  return { key: `${KIND}:${answer.id}`, kind: KIND, lane: 'answer', group: `answer:${network}`, payload: { answerId: answer.id, brandId }, maxAttempts: MAX_ATTEMPTS };
}

/** Sends answers, each once: it is written down that it will be sent, and after an uncertain end the network is asked first. */
export function answerHandler(services: Services, connectorFor: ConnectorFor = usualConnectorFor): JobHandler {
  const { db, clock } = services;
  const find = async (job: Job): Promise<{ readonly answer: Utterance; readonly conversation: Conversation } | null> => {
    const answer = await findUtterance(db, String(job.payload['answerId']));
    const conversation = answer && (await findConversation(db, String(job.payload['brandId']), answer.conversationId));
    return answer?.state === 'waiting' && conversation ? { answer, conversation } : null;
  };
  return {
    async run(job, { signal }): Promise<JobOutcome> {
      const found = await find(job);
      if (!found) return { kind: 'done' };
      const { answer, conversation } = found;
      try {
        const remoteId = await send(services, conversation, answer, connectorFor, signal);
        await endAnswer(db, conversation, answer, { kind: 'sent', remoteId, atMs: await clock.nowMs() }, clock.machineNowMs());
        return { kind: 'done' };
      } catch (error) {
        if (!(error instanceof ConnectorError)) throw error;
        if (error.code !== 'refused' && error.code !== 'ended' && job.attempt < MAX_ATTEMPTS) return { kind: 'retry', problem: error.message, afterMs: backoffMs(job.attempt, 0.5, error.retryAfterMs) };
        await endAnswer(db, conversation, answer, { kind: 'failed', problem: error.message }, clock.machineNowMs());
        return { kind: 'failed', problem: error.message };
      }
    },
    async giveUp(job, problem) {
      const found = await find(job);
      if (found) await endAnswer(db, found.conversation, found.answer, { kind: 'failed', problem: `${problem} Look at the channel whether the answer is there before you retry it.` }, clock.machineNowMs());
    },
  };
}

async function send(services: Services, conversation: Conversation, answer: Utterance, connectorFor: ConnectorFor, signal: AbortSignal): Promise<string> {
  const lineOf = async (channel: Channel): Promise<TalkLine> => {
    const sheet = (await listSheetsOf(services.db, conversation.brandId)).find(({ key }) => key === channel.network);
    const line = sheet && connectorFor(channel, sheet).talk;
    if (!line) throw new ConnectorError('refused', `${channel.name} takes no answers from here. Answer there.`);
    return line;
  };
  const act = async (channel: Channel): Promise<string> => {
    const line = await lineOf(channel);
    const key = answer.answerKey ?? answer.id;
    const known = answer.intentMs === null ? null : await line.findAnswer(key, signal);
    if (known) return known.remoteId;
    await noteIntent(services.db, answer.id, services.clock.machineNowMs());
    return (await line.answer(answer.target ?? '', answer.text, key, signal)).remoteId;
  };
  return withFreshAccess(services, conversation.channelId, act);
}
