import { daysBetween } from '../time/day.ts';
import type { Candidate, IdeaKind, IdeaSettings } from './idea.ts';

/** A theme with how it stands in the plan. */
export interface ThemeStanding {
  readonly id: string;
  readonly name: string;
  /** Slots a week that the rota gives it. */
  readonly slotsAWeek: number;
  /** Days since anything about it was out, or until it is planned next; null: never. */
  readonly daysQuiet: number | null;
  /** Effect of the theme in the results, as a share; 0 where nothing can be said. */
  readonly effect: number;
}

export interface RankedIdea {
  readonly candidate: Candidate;
  readonly score: number;
  /** Why it fits, in sentences. */
  readonly why: readonly string[];
}

/** How much a kind is worth before anything else is known of it. */
const BASE: Readonly<Record<IdeaKind, number>> = { note: 1, date: 0.9, gap: 0.75, reply: 0.75, feed: 0.8, revival: 0.7, trend: 0.6, prompt: 0.4, saying: 0.35 };
/** Days before a day at which an idea for it comes best: time to make it, and not so early that it is forgotten. */
const BEST_LEAD = { from: 4, to: 16 } as const;
const MAX_LEAD = 45;
const QUIET_DAYS = 10;
/** No kind takes more than the first share of what comes in a week; where too few kinds have something, up to the second. */
const SHARES = [0.2, 0.34] as const;

/** Candidates with their scores, the best first. The seed turns what has no other order, so that each week brings other prompts. */
export function rankIdeas(candidates: readonly Candidate[], themes: readonly ThemeStanding[], today: string, seed: number): readonly RankedIdea[] {
  const byId = new Map(themes.map((theme) => [theme.id, theme]));
  return candidates
    .flatMap((candidate): readonly RankedIdea[] => {
      const nearness = nearnessOf(candidate.day, today);
      if (nearness === null) return [];
      const theme = candidate.themeId === null ? undefined : byId.get(candidate.themeId);
      const neglect = theme ? neglectOf(theme) : 0;
      const well = Math.max(-0.3, Math.min(0.6, candidate.didWell + 0.5 * (theme?.effect ?? 0)));
      const chance = 0.08 * chanceOf(`${candidate.key} ${seed}`);
      return [{ candidate, score: BASE[candidate.kind] * (1 + nearness + neglect + well) + chance, why: [...(theme && neglect > 0.15 ? [quietWords(theme)] : []), ...(candidate.didWell > 0.05 ? [`A post like it had ${percent(candidate.didWell)} more engagement than usual.`] : []), ...(theme && theme.effect > 0.08 ? [`Posts about ${theme.name} had ${percent(theme.effect)} more.`] : [])] }];
    })
    .toSorted((a, b) => b.score - a.score || (a.candidate.key < b.candidate.key ? -1 : 1));
}

/** What comes this week: the best, of several kinds and themes, and no more than a person set. */
export function chooseIdeas(ranked: readonly RankedIdea[], { perWeek, kinds }: Pick<IdeaSettings, 'perWeek' | 'kinds'>, cameAlready: number): readonly RankedIdea[] {
  const room = Math.max(0, perWeek - cameAlready);
  const perKind = new Map<IdeaKind, number>();
  const chosen = new Set<RankedIdea>();
  for (const share of SHARES) {
    const most = Math.max(1, Math.ceil(perWeek * share));
    for (const each of ranked) {
      if (chosen.size >= room) break;
      const { kind } = each.candidate;
      if (chosen.has(each) || !kinds.includes(kind) || (perKind.get(kind) ?? 0) >= most) continue;
      perKind.set(kind, (perKind.get(kind) ?? 0) + 1);
      chosen.add(each);
    }
  }
  return [...chosen];
}

/** What the nearness of a day is worth; null when it has passed or is too far away. The card counts the days itself: kept words would grow old. */
function nearnessOf(day: string | null, today: string): number | null {
  if (day === null) return 0;
  const lead = daysBetween(today, day);
  if (lead < 0 || lead > MAX_LEAD) return null;
  const worth = lead < BEST_LEAD.from ? 0.4 : lead <= BEST_LEAD.to ? 1 : 1 - (lead - BEST_LEAD.to) / (MAX_LEAD - BEST_LEAD.to);
  return worth;
}

function neglectOf({ daysQuiet, slotsAWeek }: ThemeStanding): number {
  const expected = slotsAWeek > 0 ? 7 / slotsAWeek : QUIET_DAYS;
  return daysQuiet === null ? 0.5 : Math.max(0, Math.min(0.5, (daysQuiet - expected) / 28));
}

function quietWords({ name, daysQuiet }: ThemeStanding): string {
  return daysQuiet === null ? `Nothing about ${name} has been out yet.` : `Nothing about ${name} is out for ${daysQuiet} days.`;
}

const percent = (share: number): string => `${Math.round(share * 100)}%`;

/** A number from 0 to 1 that is the same for the same text (FNV-1a). */
export function chanceOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at += 1) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return ((hash >>> 0) % 10_000) / 10_000;
}
