import { array, boolean, number, object, string } from 'yup';
import type { Checked } from '../document/schema.ts';
import { isDay, weekdayOf } from '../time/day.ts';
import { TIME_PATTERN } from '../time/series-clock.ts';

/** Tones that themes and campaigns are told apart by, beside their letter; the interface's tokens give each its colours. */
export const tones = ['blue', 'red', 'olive', 'violet', 'umber', 'teal', 'pink', 'slate'] as const;
export type Tone = (typeof tones)[number];

const id = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id').required();
const day = () => string().test('day', 'Choose a day that there is', (text) => text === undefined || text === null || isDay(text));
const name = () => string().trim().min(1, 'Give it a name').max(60, 'A name has at most 60 characters').required();
const tone = () => string<Tone>().oneOf([...tones]).required();

/** What a slot or a piece is about. A theme may keep to some channels; null: it goes everywhere. */
const themeSchema = object({
  id: id(),
  name: name(),
  letter: string().matches(/^[\p{L}\p{N}]$/u, 'One letter or digit').required(),
  tone: tone(),
  channelIds: array(id()).max(500).nullable().defined(),
  /** What may be said about it one day. */
  note: string().max(5_000),
}).noUnknown();

/** A place in the week where something goes out, at a wall time, on some channels. */
const ruleSchema = object({
  id: id(),
  /** Which week of the cycle, from 0. */
  week: number().integer().min(0).max(7).required(),
  /** 1 for Monday to 7 for Sunday. */
  weekday: number().integer().min(1).max(7).required(),
  time: string().matches(TIME_PATTERN, 'Give a time like 09:30').required(),
  /** Null: anything may go out there. */
  themeId: string().max(40).nullable().defined(),
  channelIds: array(id()).min(1, 'Choose at least one channel').max(500).required(),
  /** First and last day of its season; null: it has no such end. */
  from: day().nullable().defined(),
  until: day().nullable().defined(),
}).noUnknown();

/** Days with a name: a pause in which the rota rests, or a day of one's own that the plan shows. */
const spanSchema = object({ id: id(), name: name(), from: day().required(), until: day().required(), /** It comes again each year. */ yearly: boolean() }).noUnknown().test('order', 'The last day comes before the first', (span) => !span || span.from <= span.until);

/**
 * How a brand plans: its themes, its weekly rhythm with cycles, seasons and pauses, the days it keeps in mind, and what the queue keeps
 * apart.
 */
export const planSchema = object({
  version: number<1>().oneOf([1]).required(),
  themes: array(themeSchema).max(60).required(),
  rota: object({
    /** Weeks until the rhythm begins anew. */
    weeks: number().integer().min(1).max(8).required(),
    /** A Monday: the first day of a first week. */
    anchor: day().required().test('monday', 'A cycle begins on a Monday', (text) => text === undefined || !isDay(text) || weekdayOf(text) === 1),
    rules: array(ruleSchema).max(1_000).required(),
    pauses: array(spanSchema).max(200).required(),
  }).noUnknown().required(),
  /** What the queue keeps apart on a channel. */
  apart: object({
    themeTwice: boolean().required(),
    /** A template, a picture: not again within so many posts; 0: no matter. */
    template: number().integer().min(0).max(50).required(),
    picture: number().integer().min(0).max(200).required(),
  }).noUnknown().required(),
  /** Countries whose public holidays are shown: `GB`, or `GB-ENG` for a part. */
  countries: array(string().matches(/^[A-Z]{2}(?:-[A-Z0-9]{1,4})?$/).required()).max(12).required(),
  days: array(spanSchema).max(2_000).required(),
}).noUnknown();

export type Plan = Checked<typeof planSchema>;
export type Theme = Plan['themes'][number];
export type RotaRule = Plan['rota']['rules'][number];
export type NamedSpan = Plan['days'][number];

/** Two rules would take one minute of one channel. */
export class SlotClashError extends RangeError {
  override readonly name = 'SlotClashError';
  readonly code = 'slot-clash';
  constructor(
    readonly rule: RotaRule,
    readonly channelId: string,
  ) {
    super(`Two slots at ${rule.time} on one day for one channel. Move one of them, or remove the channel from it.`);
  }
}

/**
 * A plan from JSON.
 * @throws yup ValidationError naming the place of the first fault
 * @throws SlotClashError when two slots of one channel share a minute
 */
export function readPlan(json: unknown): Plan {
  const plan = planSchema.validateSync(json, { strict: true }) as Plan;
  const taken = new Map<string, RotaRule[]>();
  for (const rule of plan.rota.rules) {
    for (const channelId of rule.channelIds) {
      const key = `${rule.week % plan.rota.weeks} ${rule.weekday} ${rule.time} ${channelId}`;
      const others = taken.get(key) ?? [];
      if (others.some((other) => doSeasonsMeet(other, rule))) throw new SlotClashError(rule, channelId);
      taken.set(key, [...others, rule]);
    }
  }
  return plan;
}

const doSeasonsMeet = (a: RotaRule, b: RotaRule): boolean => (a.from ?? '') <= (b.until ?? '9999') && (b.from ?? '') <= (a.until ?? '9999');

/** What a brand has until it plans anything. */
export const emptyPlan: Plan = { version: 1, themes: [], rota: { weeks: 1, anchor: '2024-01-01', rules: [], pauses: [] }, apart: { themeTwice: true, template: 0, picture: 3 }, countries: [], days: [] };

/** The channels that a theme allows, of some. */
export function channelsOfTheme(theme: Pick<Theme, 'channelIds'> | undefined, channelIds: readonly string[]): readonly string[] {
  const allowed = theme?.channelIds;
  return allowed ? channelIds.filter((each) => allowed.includes(each)) : channelIds;
}
