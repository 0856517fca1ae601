import { describe, expect, it } from 'vitest';
import { noticesOf, usualReminders, type RemindedPost } from './reminders.ts';

const nowMs = Date.parse('2026-11-27T12:00Z');
const post = (minutes: number, states: RemindedPost['states'], problem: string | null = null): RemindedPost => ({ postId: 'p', pieceId: 'k', pieceName: 'Box Kite', dueMs: nowMs + minutes * 60_000, states, problem });
const all = { beforeMin: 30, whenOut: true, whenFailed: true, byMail: false };
const told = (given: RemindedPost, settings = all): readonly string[] => noticesOf([given], settings, 'Europe/London', nowMs).map(({ sentence }) => sentence);

describe('reminders', () => {
  it.each<[string, RemindedPost, readonly string[]]>([
    ['soon', post(20, ['scheduled']), ['“Box Kite” goes out Fri 27 Nov 2026, 12:20 London.']],
    ['later', post(31, ['scheduled']), []],
    ['out', post(-5, ['sent', 'sent', 'cancelled']), ['“Box Kite” is out, on 2 channels.']],
    ['half out, the rest on its way', post(-5, ['sent', 'sending']), []],
    ['failed', post(-5, ['failed', 'sent'], 'Refused: no board.'), ['“Box Kite” failed: Refused: no board.']],
    ['old news', post(-90, ['failed']), []],
    ['held', post(20, ['held']), []],
    ['to be placed by hand', post(-5, ['by hand', 'sent']), ['“Box Kite” waits for you to place it by hand.']],
    ['in review', post(20, ['in review']), []],
  ])('of a post that is %s', (_, given, expected) => expect(told(given)).toEqual(expected));

  it('tell what a person asked for alone', () => {
    expect([told(post(20, ['scheduled']), usualReminders as typeof all), told(post(-5, ['sent']), usualReminders as typeof all), told(post(-5, ['failed']), { ...all, whenFailed: false })]).toEqual([[], [], []]);
  });

  it('of a post that was moved come again for its new moment', () => {
    const subjects = [10, 20].map((minutes) => noticesOf([post(minutes, ['scheduled'])], all, 'Europe/London', nowMs)[0]?.subject);
    expect(new Set(subjects).size).toBe(2);
  });
});
