import type { listChannels } from '../../../contract/channel-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';

export type ShownChannel = AnswerOf<typeof listChannels>['channels'][number];

/** Confetti asks for a new access this long before the old one ends. */
const WARN_BEFORE_MS = 14 * 86_400_000;

export function endsSoon({ accessEndsMs }: Pick<ShownChannel, 'accessEndsMs'>, nowMs: number): boolean {
  return accessEndsMs !== null && accessEndsMs - nowMs < WARN_BEFORE_MS;
}
