import { describe, expect, it } from 'vitest';
import { giveSlot } from './give-slot.ts';
import { emptyPlan, readPlan, type Plan } from './plan.ts';

const rule = (id: string, weekday: number, themeId: string, channelIds = ['c1']) => ({ id, week: 0, weekday, time: '09:30', themeId, channelIds, from: null, until: null });
const theme = (id: string, channelIds: string[] | null = null) => ({ id, name: id, letter: 'A', tone: 'blue' as const, channelIds });
const plan = (rules: Plan['rota']['rules'], themes = [theme('kites'), theme('skies')]): Plan => readPlan({ ...emptyPlan, themes, rota: { ...emptyPlan.rota, rules } });

describe('a slot that goes to another theme', () => {
  it('is the last of the week, and nothing else changes', () => {
    const before = plan([rule('a', 1, 'kites'), rule('b', 4, 'kites'), rule('c', 5, 'skies')]);
    const given = giveSlot(before, 'kites', 'skies');
    expect(given?.rule.id).toBe('b');
    expect(given?.plan.rota.rules.map(({ id, themeId }) => [id, themeId])).toEqual([['a', 'kites'], ['b', 'skies'], ['c', 'skies']]);
    expect(given?.plan.themes).toBe(before.themes);
  });

  it('keeps to the channels that the other theme may go to', () => {
    const rules = [rule('a', 1, 'kites', ['c1']), rule('b', 4, 'kites', ['c2']), rule('c', 5, 'kites', ['c1', 'c2'])];
    expect(giveSlot(plan(rules, [theme('kites'), theme('skies', ['c1'])]), 'kites', 'skies')?.rule.id).toBe('a');
  });

  it('is never the last one of a theme', () => {
    expect(giveSlot(plan([rule('a', 1, 'kites')]), 'kites', 'skies')).toBeNull();
  });
});
