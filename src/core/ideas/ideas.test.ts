import { describe, expect, it } from 'vitest';
import { addDays } from '../time/day.ts';
import { ideaEvents, ideaStates, nextIdeaState, usualIdeaSettings, type Candidate } from './idea.ts';
import { chooseIdeas, rankIdeas, type ThemeStanding } from './rank-ideas.ts';
import { proposePlan, type OpenSlot, type PlanCandidate, type PlanWish } from './propose-plan.ts';

const today = '2026-11-28';
const candidate = (key: string, given: Partial<Candidate> = {}): Candidate => ({ key, kind: 'prompt', title: key, text: '', link: '', pictureUrl: '', mediaId: null, day: null, themeId: null, source: '', didWell: 0, details: {}, ...given });
const theme = (id: string, given: Partial<ThemeStanding> = {}): ThemeStanding => ({ id, name: id, slotsAWeek: 2, daysQuiet: 2, effect: 0, ...given });

describe('the life of an idea', () => {
  it('comes back from being set aside and from the archive, and nowhere else', () => {
    for (const state of ideaStates) for (const event of ['snooze', 'archive', 'restore', 'wake'] as const) expect(nextIdeaState(state, event) !== null).toBe(ideaEvents(state).includes(event));
    expect([nextIdeaState('open', 'snooze'), nextIdeaState('snoozed', 'wake'), nextIdeaState('archived', 'restore'), nextIdeaState('archived', 'snooze')]).toEqual(['snoozed', 'open', 'open', null]);
  });
});

describe('ideas that come of themselves', () => {
  it('are led by days that are near enough to make something for them', () => {
    const ranked = rankIdeas([candidate('prompt'), candidate('soon', { kind: 'date', day: addDays(today, 9) }), candidate('far', { kind: 'date', day: addDays(today, 44) }), candidate('past', { kind: 'date', day: addDays(today, -1) })], [], today, 1);
    expect(ranked.map(({ candidate: { key } }) => key)).toEqual(['soon', 'far', 'prompt']);
  });

  it('come for themes that were quiet, and for what did well, and say so', () => {
    const ranked = rankIdeas([candidate('busy', { themeId: 'busy' }), candidate('quiet', { themeId: 'quiet' }), candidate('good', { didWell: 0.5 })], [theme('busy'), theme('quiet', { daysQuiet: 40 })], today, 1);
    expect(ranked.map(({ candidate: { key } }) => key).indexOf('busy')).toBe(2);
    expect(ranked.flatMap(({ why }) => why)).toEqual(expect.arrayContaining(['Nothing about quiet is out for 40 days.', 'A post like it had 50% more engagement than usual.']));
  });

  it('are never more than was set for a week, and of several kinds', () => {
    const many = [...Array.from({ length: 30 }, (_, index) => candidate(`d${index}`, { kind: 'date', day: addDays(today, 5 + (index % 10)) })), ...Array.from({ length: 30 }, (_, index) => candidate(`p${index}`)), ...Array.from({ length: 30 }, (_, index) => candidate(`f${index}`, { kind: 'feed' }))];
    const chosen = chooseIdeas(rankIdeas(many, [], today, 1), usualIdeaSettings, 0);
    expect(chosen).toHaveLength(usualIdeaSettings.perWeek);
    expect(chosen.filter(({ candidate: { kind } }) => kind === 'date').length).toBeLessThanOrEqual(5);
    expect(chooseIdeas(rankIdeas(many, [], today, 1), usualIdeaSettings, 10)).toHaveLength(2);
    expect(chooseIdeas(rankIdeas(many, [], today, 1), { ...usualIdeaSettings, kinds: ['feed'] }, 0).every(({ candidate: { kind } }) => kind === 'feed')).toBe(true);
  });

  it('bring other prompts with another week', () => {
    const prompts = Array.from({ length: 60 }, (_, index) => candidate(`p${index}`));
    const first = (seed: number): string => rankIdeas(prompts, [], today, seed)[0]?.candidate.key ?? '';
    expect(new Set([1, 2, 3, 4, 5].map(first)).size).toBeGreaterThan(2);
    expect(first(3)).toBe(first(3));
  });
});

const slot = (day: number, given: Partial<OpenSlot> = {}): OpenSlot => ({ key: `s@${addDays(today, day)}`, day: addDays(today, day), time: '09:00', atMs: Date.parse(addDays(today, day)), themeId: null, channelIds: ['c1', 'c2'], ...given });
const could = (id: string, given: Partial<PlanCandidate> = {}): PlanCandidate => ({ id, kind: 'piece', name: id, themeId: null, day: null, channelIds: null, template: null, mediaIds: [], worth: 0.5, why: [], ...given });
const wish = (given: Partial<PlanWish>): PlanWish => ({ slots: [], candidates: [], themes: [{ id: 'kites', name: 'Kites', share: 0.5, effect: 0 }, { id: 'skies', name: 'Skies', share: 0.5, effect: 0.3 }], fixed: [], apart: { template: 0, picture: 2 }, ...given });
const placed = (given: Partial<PlanWish>): Readonly<Record<string, string>> => Object.fromEntries(proposePlan(wish(given)).map(({ slotKey, candidateId }) => [slotKey.slice(2), candidateId]));

describe('a proposed plan', () => {
  it('puts what is for a day into the slot before it, and nothing of it after', () => {
    expect(placed({ slots: [slot(2), slot(6), slot(9)], candidates: [could('fair', { day: addDays(today, 7), kind: 'idea', worth: 0.2 }), could('any', { worth: 1 })] })).toEqual({ [addDays(today, 6)]: 'fair', [addDays(today, 2)]: 'any' });
    expect(placed({ slots: [slot(9)], candidates: [could('fair', { day: addDays(today, 7) })] })).toEqual({});
  });

  it('keeps to the theme of a slot', () => {
    expect(placed({ slots: [slot(1, { themeId: 'kites' }), slot(2, { themeId: 'skies' })], candidates: [could('a', { themeId: 'skies' }), could('b', { themeId: 'kites' })] })).toEqual({ [addDays(today, 1)]: 'b', [addDays(today, 2)]: 'a' });
    expect(placed({ slots: [slot(1, { themeId: 'kites' })], candidates: [could('a', { themeId: 'skies' })] })).toEqual({});
  });

  it('shows no picture again within the posts that the plan keeps apart', () => {
    const made = placed({ slots: [slot(1), slot(2), slot(3), slot(4)], candidates: [could('a', { mediaIds: ['m'], worth: 1 }), could('b', { mediaIds: ['m'], worth: 0.9 }), could('c'), could('d')] });
    const days = Object.entries(made).filter(([, id]) => id === 'a' || id === 'b').map(([day]) => day);
    expect(days.length === 1 || Math.abs(Date.parse(days[0] ?? '') - Date.parse(days[1] ?? '')) > 2 * 86_400_000).toBe(true);
  });

  it('uses nothing twice, says why, and names what is next best', () => {
    const made = proposePlan(wish({ slots: [slot(1, { themeId: 'skies' }), slot(2)], candidates: [could('a', { themeId: 'skies' }), could('b', { worth: 0.3 }), could('c', { worth: 0.2 }), could('d', { channelIds: ['c9'] })] }));
    expect(new Set(made.map(({ candidateId }) => candidateId)).size).toBe(made.length);
    expect(made[0]?.why).toEqual(['The slot is for Skies.', 'Posts about Skies had 30% more engagement.']);
    expect(made[1]?.next).toEqual(['c']);
  });

  it('is the same for the same input, and quick for a month of many channels', () => {
    const slots = Array.from({ length: 160 }, (_, index) => slot(index % 28, { key: `s${index}`, atMs: Date.parse(today) + index * 3_600_000 }));
    const candidates = Array.from({ length: 400 }, (_, index) => could(`p${index}`, { themeId: index % 3 === 0 ? 'kites' : null, worth: (index % 7) / 7, mediaIds: [`m${index % 90}`] }));
    const first = proposePlan(wish({ slots, candidates }));
    expect(proposePlan(wish({ slots, candidates }))).toEqual(first);
    expect(first.length).toBeGreaterThan(100);
  }, 30_000);
});
