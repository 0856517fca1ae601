import { channelsOfTheme, type Plan, type RotaRule } from './plan.ts';

/** A slot of the rota that goes to another theme. */
export interface GivenSlot {
  readonly rule: RotaRule;
  readonly plan: Plan;
}

/**
 * Gives one slot of a theme to another: the last of the cycle whose channels the other theme may go to. A theme keeps its last slot; null where none can be
 * given.
 */
export function giveSlot(plan: Plan, fromThemeId: string, toThemeId: string): GivenSlot | null {
  const taker = plan.themes.find(({ id }) => id === toThemeId);
  const own = plan.rota.rules.filter(({ themeId }) => themeId === fromThemeId);
  if (!taker || own.length < 2) return null;
  const order = ({ week, weekday, time }: RotaRule): string => `${week} ${weekday} ${time}`;
  const rule = own.filter(({ channelIds }) => channelsOfTheme(taker, channelIds).length === channelIds.length).toSorted((a, b) => (order(a) < order(b) ? 1 : -1))[0];
  if (!rule) return null;
  return { rule, plan: { ...plan, rota: { ...plan.rota, rules: plan.rota.rules.map((each) => (each === rule ? { ...each, themeId: toThemeId } : each)) } } };
}
