import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAwaited, standingOf, type Verdict } from './sign-off.ts';

let clock = 0;
const say = (personId: string | null, verdict: Verdict['verdict'], more: Partial<Verdict> = {}): Verdict => ({ personId, name: personId ?? 'Guest', verdict, isValid: true, atMs: (clock += 1), ...more });

describe('standingOf', () => {
  it.each([
    ['nobody needed', [], 0, true],
    ['nobody yet', [], 1, false],
    ['one other', [say('tove', 'approve')], 1, true],
    ['the maker alone', [say('wren', 'approve')], 1, false],
    ['the maker and one other, two needed', [say('wren', 'approve'), say('tove', 'approve')], 2, true],
    ['one of two', [say('tove', 'approve')], 2, false],
    ['the same person twice', [say('tove', 'approve'), say('tove', 'approve')], 2, false],
    ['somebody from outside', [say(null, 'approve')], 1, true],
    ['sent back after an approval', [say('tove', 'approve'), say('ottoline', 'changes')], 1, false],
    ['sent back, then approved by the same person', [say('tove', 'changes'), say('tove', 'approve')], 1, true],
    ['an approval of what it was before', [say('tove', 'approve', { isValid: false })], 1, false],
  ] as const)('%s', (_, verdicts, needed, isApproved) => {
    expect(standingOf(verdicts, needed, 'wren').isApproved).toBe(isApproved);
  });

  it('names who sent it back, and those who approved in their order', () => {
    expect(standingOf([say('tove', 'approve'), say('ottoline', 'changes')], 2, 'wren')).toEqual({ approvedBy: ['tove'], isApproved: false, sentBackBy: 'ottoline' });
  });

  it('never lets the maker alone approve, whatever they say and however often', () => {
    const verdict = fc.record({ verdict: fc.constantFrom('approve' as const, 'changes' as const), isValid: fc.boolean() });
    fc.assert(fc.property(fc.array(verdict, { maxLength: 8 }), fc.integer({ min: 1, max: 2 }), (given, needed) => !standingOf(given.map((each) => say('wren', each.verdict, each)), needed, 'wren').isApproved));
  });
});

describe('isAwaited', () => {
  it('waits for others, and for the maker only where two are needed', () => {
    expect(isAwaited([], 1, 'wren', 'tove')).toBe(true);
    expect(isAwaited([], 1, 'wren', 'wren')).toBe(false);
    expect(isAwaited([], 2, 'wren', 'wren')).toBe(true);
  });

  it('waits for nobody once it is approved or sent back, and for nobody twice', () => {
    expect(isAwaited([say('tove', 'approve')], 1, 'wren', 'ottoline')).toBe(false);
    expect(isAwaited([say('tove', 'changes')], 2, 'wren', 'ottoline')).toBe(false);
    expect(isAwaited([say('tove', 'approve')], 2, 'wren', 'tove')).toBe(false);
  });
});
