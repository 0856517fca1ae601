/**
 * Life of a conversation.
 * - `unread`: somebody wrote, and nobody has looked yet.
 * - `open`: somebody has looked; it is not done.
 * - `closed`: nothing is to be done. What somebody writes later makes it unread again.
 * - `apart`: held back by the brand's list of words. Nothing is deleted by itself, and nothing is counted.
 */
export const conversationStates = ['unread', 'open', 'closed', 'apart'] as const;
export type ConversationState = (typeof conversationStates)[number];

export type ConversationEvent = 'hear' | 'read' | 'close' | 'reopen' | 'set-apart' | 'bring-back';

const table: Readonly<Record<ConversationState, Readonly<Partial<Record<ConversationEvent, ConversationState>>>>> = {
  unread: { hear: 'unread', read: 'open', close: 'closed', 'set-apart': 'apart' },
  open: { hear: 'unread', read: 'open', close: 'closed', 'set-apart': 'apart' },
  closed: { hear: 'unread', read: 'closed', reopen: 'open', 'set-apart': 'apart' },
  apart: { hear: 'apart', read: 'apart', 'bring-back': 'open', close: 'closed' },
};

/** The state after an event; null where the state does not allow it. */
export function stateAfter(state: ConversationState, event: ConversationEvent): ConversationState | null {
  return table[state][event] ?? null;
}

/** Life of an answer: it is written down before it is sent, and sent once. */
export const answerStates = ['waiting', 'sent', 'failed'] as const;
export type AnswerState = (typeof answerStates)[number];
