import { describe, expect, it } from 'vitest';
import { answerTimes } from './answer-times.ts';
import { conversationStates, stateAfter, type ConversationEvent } from './conversation-state.ts';
import { holdsBack } from './held-words.ts';

describe('stateAfter', () => {
  const events: readonly ConversationEvent[] = ['hear', 'read', 'close', 'reopen', 'set-apart', 'bring-back'];
  it.each(conversationStates.flatMap((state) => events.map((event) => [state, event, stateAfter(state, event)] as const)))('%s, %s: %s', (state, event, after) => {
    const wanted: Readonly<Record<string, string>> = {
      'unread hear': 'unread', 'unread read': 'open', 'unread close': 'closed', 'unread set-apart': 'apart',
      'open hear': 'unread', 'open read': 'open', 'open close': 'closed', 'open set-apart': 'apart',
      'closed hear': 'unread', 'closed read': 'closed', 'closed reopen': 'open', 'closed set-apart': 'apart',
      'apart hear': 'apart', 'apart read': 'apart', 'apart bring-back': 'open', 'apart close': 'closed',
    };
    expect(after).toBe(wanted[`${state} ${event}`] ?? null);
  });
});

describe('holdsBack', () => {
  it.each([
    ['Want 5,000 NEW followers by Friday?', true],
    ['You have been chosen! Claim your   prize…', true],
    ['A new follower of yours', false],
    ['renew followership', false],
    ['', false],
  ])('“%s”: %s', (text, held) => expect(holdsBack(text, ['new followers', 'claim your prize', ' '])).toBe(held));
});

describe('answerTimes', () => {
  it('gives the median and the 90th percentile by weekday of the brand’s zone', () => {
    // 23:30 in London on Sunday is Monday in Auckland.
    const sunday = Date.parse('2026-03-01T23:30:00Z');
    const answered = [10, 20, 30, 40, 50].map((minutes) => ({ channelId: 'c', firstMs: sunday, afterMs: minutes * 60_000 }));
    expect(answerTimes(answered, 'weekday', 'Pacific/Auckland')).toEqual([{ key: '1', medianMs: 1_800_000, ninetiethMs: 46 * 60_000, count: 5 }]);
    expect(answerTimes(answered, 'weekday', 'Europe/London')[0]?.key).toBe('7');
    expect(answerTimes([], 'channel', 'UTC')).toEqual([]);
  });
});
