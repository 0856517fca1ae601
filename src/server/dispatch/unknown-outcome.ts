import { backoffMs, MAX_ATTEMPTS, spreadOf } from '../../core/job/backoff.ts';
import type { Delivery, Outcome } from '../db/delivery-repository.ts';

/**
 * What an error of our own means for a delivery: another attempt, as long as there are some left. Once the intent to publish is
 * written down nobody can say whether the post is out, so the last sentence does not claim that it is not.
 */
export function unknownOutcome({ id, attempt, kind, publishIntentMs, address }: Pick<Delivery, 'id' | 'attempt' | 'kind' | 'publishIntentMs' | 'address'>, machineNowMs: number): Outcome {
  if (attempt < MAX_ATTEMPTS) {
    return { kind: 'postpone', problem: 'Something went wrong on our side. Confetti tries again.', notBeforeMs: machineNowMs + backoffMs(attempt, spreadOf(id, attempt), null) };
  }
  if (address !== null) {
    return { kind: 'refuse', problem: `It is out, but Confetti could not add all that follows it, after ${attempt} attempts. Retry adds the rest.` };
  }
  if (publishIntentMs !== null) {
    return { kind: 'refuse', problem: `Confetti could not find out whether this post is out, after ${attempt} attempts. Look at the channel. Retry asks the network first, so nothing goes out twice.` };
  }
  return { kind: 'refuse', problem: `Confetti could not make the ${kind === 'video' ? 'video' : 'picture'} for this post, after ${attempt} attempts. Nothing has gone out.` };
}
