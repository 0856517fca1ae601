import type { ConversationState } from '../../../core/replies/conversation-state.ts';
import { readAddress, writeAddress } from '../../ui/address-query.ts';
import type { ConversationKind } from '../../../contract/reply-contracts.ts';

/** Which conversations are shown. It stands in the address. */
export interface RepliesQuery {
  /** `to-do`: unread and open; missing: that. */
  readonly state?: string | undefined;
  readonly channels?: string | undefined;
  readonly kind?: string | undefined;
  readonly assigned?: string | undefined;
  readonly label?: string | undefined;
  readonly words?: string | undefined;
  readonly older?: string | undefined;
  /** The conversation that stands open. */
  readonly c?: string | undefined;
}

const keys = ['state', 'channels', 'kind', 'assigned', 'label', 'words', 'older', 'c'] as const satisfies readonly (keyof RepliesQuery)[];

export const stateChoices = [
  ['to-do', 'To do'],
  ['unread', 'Unread'],
  ['open', 'Open'],
  ['closed', 'Closed'],
  ['apart', 'Apart'],
] as const satisfies readonly (readonly [ConversationState | 'to-do', string])[];

export const kindNames: Readonly<Record<ConversationKind, string>> = { comment: 'Comment', mention: 'Mention', message: 'Message' };

export const readRepliesQuery = (search: string): RepliesQuery => readAddress(keys, search);

export const writeRepliesQuery = (query: RepliesQuery): string => writeAddress(keys, query);

/** What the server takes; what it does not know is left out. */
export function filtersOf(query: RepliesQuery) {
  const state = stateChoices.find(([key]) => key === query.state)?.[0] ?? 'to-do';
  const kind = (Object.keys(kindNames) as ConversationKind[]).find((each) => each === query.kind);
  const older = Number(query.older);
  return { state, ...(kind ? { kind } : {}), ...(query.channels ? { channels: query.channels } : {}), ...(query.assigned ? { assigned: query.assigned } : {}), ...(query.label ? { label: query.label } : {}), ...(query.words ? { words: query.words } : {}), ...(Number.isInteger(older) && older > 0 ? { olderHours: older } : {}) };
}
