import { setTimeout } from 'node:timers/promises';
import type { Brand } from '../db/brand-repository.ts';
import { claimRequest, forgetRequest, keepRequestAnswer } from '../db/request-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

/** A request that comes while the same one is being done waits this long for its answer. */
const WAIT_MS = 20_000;
const STEP_MS = 150;

/**
 * Does something once for the key of a request: sent again after a lost answer, or pressed twice, it answers what it answered before. What fails may be sent again.
 * @throws ProblemError 409 `request-busy` when the first one takes too long
 */
export async function once<Answer extends object>({ db, clock }: Pick<Services, 'db' | 'clock'>, brand: Pick<Brand, 'id'>, key: string, work: () => Promise<Answer>): Promise<Answer> {
  for (let waitedMs = 0; waitedMs <= WAIT_MS; waitedMs += STEP_MS) {
    const state = await claimRequest<Answer>(db, brand.id, key, clock.machineNowMs());
    if (state.kind === 'answered') return state.answer;
    if (state.kind === 'claimed') {
      try {
        const answer = await work();
        await keepRequestAnswer(db, brand.id, key, answer);
        return answer;
      } catch (error) {
        await forgetRequest(db, brand.id, key);
        throw error;
      }
    }
    await setTimeout(STEP_MS);
  }
  throw new ProblemError(409, 'request-busy', 'This is being done already. Look again in a moment.');
}
