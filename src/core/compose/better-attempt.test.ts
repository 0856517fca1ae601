import { describe, expect, it } from 'vitest';
import { cappedSizes, coversSubject, crowdsSubject, isBetterAside, isBetterMoved, isFreer, markAmiss, type Tried } from './better-attempt.ts';

const covering = [{ kind: 'covered-subject', slot: 'headline', picture: 'photo' }] as const;
const tried = ({ findings = [], dropped = [], overflows = false, hiddenShare = 0, sizePx = 100 }: { readonly findings?: readonly object[]; readonly dropped?: readonly string[]; readonly overflows?: boolean; readonly hiddenShare?: number; readonly sizePx?: number }): Tried =>
  ({ fitted: { overflow: overflows ? { part: null, overPx: 9 } : null, laidOut: { part: { part: 'rule' }, children: [] } }, emitted: { findings, blocks: [{ hiddenShare }], pictures: [], placed: [{ slot: 'headline', sizePx }] }, dropped, setting: { bound: { pictures: {} } } }) as unknown as Tried;

describe('isFreer', () => {
  const usual = tried({ findings: covering });

  it('wants the subject free', () => {
    expect(coversSubject(usual)).toBe(true);
    expect(isFreer(tried({}), usual)).toBe(true);
    expect(isFreer(tried({ findings: covering }), usual)).toBe(false);
  });

  it('wants far more of a subject to be seen that words only crowd', () => {
    const crowding = tried({ hiddenShare: 0.5 });
    expect([0.05, 0.2, 0.5].map((hiddenShare) => crowdsSubject(tried({ hiddenShare }), 'words'))).toEqual([false, false, true]);
    expect([0.05, 0.2, 0.5].map((hiddenShare) => crowdsSubject(tried({ hiddenShare }), 'veil'))).toEqual([false, true, true]);
    expect(isFreer(tried({ hiddenShare: 0.2 }), crowding)).toBe(true);
    expect(isFreer(tried({ hiddenShare: 0.45 }), crowding)).toBe(false);
    expect(isFreer(tried({ hiddenShare: 0.2, dropped: ['line'] }), crowding)).toBe(false);
  });

  it('gives up no part for it, nor lets a text run over', () => {
    expect(isFreer(tried({ dropped: ['line'] }), usual)).toBe(false);
    expect(isFreer(tried({ dropped: ['line'] }), tried({ findings: covering, dropped: ['line'] }))).toBe(true);
    expect(isFreer(tried({ overflows: true }), usual)).toBe(false);
    expect(isFreer(tried({ overflows: true }), tried({ findings: covering, overflows: true }))).toBe(true);
  });
});

describe('isBetterMoved', () => {
  const small = tried({ findings: [{ kind: 'small-mark', heightPx: 20, leastHeightPx: 24 }] });

  it('wants a mark as large as its brand asks for, with words that stay large', () => {
    expect([small, tried({})].map(markAmiss)).toEqual([2, 0]);
    expect(isBetterMoved(tried({}), small, false)).toBe(true);
    expect(isBetterMoved(small, small, false)).toBe(false);
    expect(isBetterMoved(tried({ sizePx: 70 }), small, false)).toBe(false);
    expect(isBetterMoved(tried({ dropped: ['line'] }), small, false)).toBe(false);
    expect(isBetterMoved(tried({ findings: covering }), small, false)).toBe(false);
  });
});

describe('isBetterAside', () => {
  const usual = tried({ hiddenShare: 0.5 });
  const seen = (seenOnPhoto: number) => ({ picture: 'photo', seenShare: 1, seenOnPhoto });

  it('wants more of the subject, and lets words get small only for far more of it, and once', () => {
    expect(isBetterAside(tried({}), usual, seen(0.95), false)).toBe(false);
    expect(isBetterAside(tried({ sizePx: 78 }), usual, seen(0.8), false)).toBe(true);
    expect(isBetterAside(tried({ sizePx: 65 }), usual, seen(0.8), false)).toBe(false);
    expect(isBetterAside(tried({ sizePx: 65 }), usual, seen(0.5), false)).toBe(true);
    expect(isBetterAside(tried({ sizePx: 65 }), usual, seen(0.5), true)).toBe(false);
    expect(isBetterAside(tried({ sizePx: 55 }), usual, seen(0.1), false)).toBe(false);
  });

  it('gives up no part for it, and makes nothing amiss', () => {
    expect(isBetterAside(tried({ dropped: ['line'] }), usual, seen(0.2), false)).toBe(false);
    expect(isBetterAside(tried({ findings: [{ kind: 'small-mark', heightPx: 20, leastHeightPx: 24 }] }), usual, seen(0.2), false)).toBe(false);
  });
});

describe('cappedSizes', () => {
  it('takes what is large down, and leaves what is small', () => {
    expect(cappedSizes(new Map([['headline', 100], ['line', 40], ['label', 90]]), 0.72)).toEqual(new Map([['headline', 72], ['line', 40], ['label', 72]]));
  });
});
