import { describe, expect, it } from 'vitest';
import { nextDue, type PaintDue, type PaintEvent } from './paint-due.ts';

const after = (due: PaintDue, ...events: readonly PaintEvent[]): PaintDue => events.reduce(nextDue, due);

describe('what is due to be painted', () => {
  it('is the cuts in view, then the others while the video stands, then nothing', () => {
    expect(after('nothing', 'change')).toBe('seen');
    expect(after('seen', 'begin', 'painted-at-rest')).toBe('unseen');
    expect(after('unseen', 'begin', 'rest-painted')).toBe('nothing');
  });

  it('is not the others while it plays', () => {
    expect(after('seen', 'begin', 'painted-on-the-way')).toBe('nothing');
  });

  it.each(['painted-on-the-way', 'painted-at-rest', 'rest-painted', 'rest-put-off'] as const)('is all of it again after a change in the middle of painting, with “%s” at its end', (end) => {
    expect(after('seen', 'begin', 'change', end)).toBe('seen');
    expect(after('unseen', 'begin', 'change', end)).toBe('seen');
  });

  it('stays what could not be painted', () => {
    expect(after('unseen', 'begin', 'rest-put-off')).toBe('unseen');
  });
});
