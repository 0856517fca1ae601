import { daysBetween } from '../time/day.ts';

/** A slot that nothing goes out in yet, with the channels on which it is open. */
export interface OpenSlot {
  readonly key: string;
  readonly day: string;
  readonly time: string;
  readonly atMs: number;
  readonly themeId: string | null;
  readonly channelIds: readonly string[];
}

/** What could go there: a piece that is not planned yet, a post that may come again, or an idea of the shelf. */
export interface PlanCandidate {
  readonly id: string;
  readonly kind: 'piece' | 'revival' | 'idea';
  readonly name: string;
  readonly themeId: string | null;
  /** The day that it is for; null when every day will do. */
  readonly day: string | null;
  /** Null: wherever its theme may go. */
  readonly channelIds: readonly string[] | null;
  readonly template: string | null;
  readonly mediaIds: readonly string[];
  /** How good it is by itself, in [0, 1]. */
  readonly worth: number;
  readonly why: readonly string[];
}

export interface PlanWish {
  readonly slots: readonly OpenSlot[];
  readonly candidates: readonly PlanCandidate[];
  readonly themes: readonly { readonly id: string; readonly name: string; readonly share: number; readonly effect: number }[];
  /** What stands around already. */
  readonly fixed: readonly { readonly atMs: number; readonly themeId: string | null; readonly template: string | null; readonly mediaIds: readonly string[] }[];
  /** A picture, a template does not come again within so many posts. */
  readonly apart: { readonly template: number; readonly picture: number };
}

/** One slot with what is proposed for it, why, and what would be next best. */
export interface Placing {
  readonly slotKey: string;
  readonly candidateId: string;
  readonly channelIds: readonly string[];
  readonly score: number;
  readonly why: readonly string[];
  /** The next best that are not placed elsewhere. */
  readonly next: readonly string[];
}

const MAX_NEXT = 4;
/** A thing for a day goes out at most so many days before it, and never after. */
const DAY_WINDOW = 6;
const WRONG_THEME = 0;

/**
 * A plan for open slots: each gets what suits its theme, its day and the wanted mix best; what is for a day comes to a slot shortly before it. The best pairs are settled
 * first, so that a slot keeps what only it can show. The same input gives the same plan.
 */
export function proposePlan({ slots, candidates, themes, fixed, apart }: PlanWish): readonly Placing[] {
  const themeOf = new Map(themes.map((theme) => [theme.id, theme]));
  const pairs = slots.flatMap((slot) =>
    candidates.flatMap((candidate) => {
      const channelIds = candidate.channelIds === null ? slot.channelIds : slot.channelIds.filter((id) => candidate.channelIds?.includes(id));
      if (channelIds.length === 0) return [];
      const score = scoreOf(slot, candidate, themeOf) * (0.7 + 0.3 * (channelIds.length / slot.channelIds.length));
      return score <= 0 ? [] : [{ slot, candidate, channelIds, score }];
    }),
  );
  pairs.sort((a, b) => b.score - a.score || a.slot.atMs - b.slot.atMs || (a.candidate.id < b.candidate.id ? -1 : 1));
  const placed = new Map<string, (typeof pairs)[number]>();
  const used = new Set<string>();
  const given = new Map<string, number>();
  const openOnes = slots.filter(({ themeId }) => themeId === null).length;
  for (const pair of pairs) {
    const { slot, candidate } = pair;
    if (placed.has(slot.key) || used.has(candidate.id)) continue;
    // Slots of no theme are shared out by the wanted mix.
    const theme = candidate.themeId === null ? undefined : themeOf.get(candidate.themeId);
    if (slot.themeId === null && theme && (given.get(theme.id) ?? 0) >= Math.max(1, Math.ceil(openOnes * Math.max(theme.share, 0.15)))) continue;
    const around = [...fixed, ...[...placed.values()].map((each) => ({ atMs: each.slot.atMs, themeId: each.candidate.themeId, template: each.candidate.template, mediaIds: each.candidate.mediaIds }))];
    if (repeats(slot.atMs, candidate, around, apart)) continue;
    placed.set(slot.key, pair);
    used.add(candidate.id);
    if (slot.themeId === null && theme) given.set(theme.id, (given.get(theme.id) ?? 0) + 1);
  }
  return slots.flatMap((slot): readonly Placing[] => {
    const pair = placed.get(slot.key);
    if (!pair) return [];
    const next = pairs.filter((each) => each.slot === slot && each.candidate !== pair.candidate && !used.has(each.candidate.id)).slice(0, MAX_NEXT).map(({ candidate }) => candidate.id);
    return [{ slotKey: slot.key, candidateId: pair.candidate.id, channelIds: pair.channelIds, score: pair.score, why: whyOf(slot, pair.candidate, themeOf), next }];
  });
}

type Themes = ReadonlyMap<string, PlanWish['themes'][number]>;

function scoreOf(slot: OpenSlot, candidate: PlanCandidate, themes: Themes): number {
  const theme = themeFactor(slot, candidate);
  if (theme === WRONG_THEME) return 0;
  const day = dayFactor(slot, candidate);
  if (day === 0) return 0;
  const effect = candidate.themeId === null ? 0 : (themes.get(candidate.themeId)?.effect ?? 0);
  const kind = candidate.kind === 'piece' ? 1 : candidate.kind === 'revival' ? 0.75 : 0.7;
  return kind * (0.4 + 0.6 * candidate.worth) * theme * day * (1 + Math.max(-0.3, Math.min(0.4, effect)));
}

function themeFactor(slot: OpenSlot, { themeId, day }: PlanCandidate): number {
  if (slot.themeId === null) return 1;
  if (slot.themeId === themeId) return 1.4;
  // What is for a day may stand in a slot of another theme; what has no theme fits anywhere a little.
  return themeId === null ? (day === null ? 0.55 : 1) : WRONG_THEME;
}

function dayFactor(slot: OpenSlot, { day }: PlanCandidate): number {
  if (day === null) return 1;
  const lead = daysBetween(slot.day, day);
  return lead < 0 || lead > DAY_WINDOW ? 0 : 1.8 - 0.12 * lead;
}

function repeats(atMs: number, { template, mediaIds }: PlanCandidate, around: readonly { readonly atMs: number; readonly template: string | null; readonly mediaIds: readonly string[] }[], apart: PlanWish['apart']): boolean {
  const near = around.toSorted((a, b) => Math.abs(a.atMs - atMs) - Math.abs(b.atMs - atMs));
  return (template !== null && near.slice(0, apart.template).some((each) => each.template === template)) || (mediaIds.length > 0 && near.slice(0, apart.picture).some((each) => each.mediaIds.some((id) => mediaIds.includes(id))));
}

function whyOf(slot: OpenSlot, candidate: PlanCandidate, themes: Themes): readonly string[] {
  const theme = candidate.themeId === null ? undefined : themes.get(candidate.themeId);
  const lead = candidate.day === null ? null : daysBetween(slot.day, candidate.day);
  return [
    ...(lead === null ? [] : [lead === 0 ? 'It is for this day.' : `It is for a day ${lead} ${lead === 1 ? 'day' : 'days'} later.`]),
    ...(theme && slot.themeId === theme.id ? [`The slot is for ${theme.name}.`] : []),
    ...(theme && slot.themeId === null ? [`${theme.name} has ${Math.round(theme.share * 100)}% of the rota; this slot takes anything.`] : []),
    ...(theme && theme.effect > 0.08 ? [`Posts about ${theme.name} had ${Math.round(theme.effect * 100)}% more engagement.`] : []),
    ...candidate.why,
    ...(theme || lead !== null || candidate.why.length > 0 ? [] : ['It has no theme and no day: it may stand anywhere.']),
  ];
}
