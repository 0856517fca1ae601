/** A post whose moment passed while everything was held. */
export interface Missed {
  readonly id: string;
  readonly dueMs: number;
  readonly channelIds: readonly string[];
}

/** How missed posts are timed anew. */
export const releaseRules = ['now', 'slot', 'keep-order', 'drop'] as const;
export type ReleaseRule = (typeof releaseRules)[number];

/** When a missed post goes out by a rule; null: it is cancelled. */
export interface Retimed {
  readonly id: string;
  readonly atMs: number | null;
}

/** Posts that keep their order follow each other by at least this. */
const LEAST_APART_MS = 30 * 60_000;

/**
 * New moments of what was missed, in the order in which it was planned.
 * @param slots open slots of the posts, the earliest first: a slot is given away once
 */
export function retimeMissed(missed: readonly Missed[], rule: ReleaseRule, nowMs: number, slots: readonly { readonly key: string; readonly atMs: number; readonly channelIds: readonly string[] }[]): readonly Retimed[] {
  const inOrder = missed.toSorted((a, b) => a.dueMs - b.dueMs || (a.id < b.id ? -1 : 1));
  const taken = new Set<string>();
  let lastMs = -Infinity;
  return inOrder.map(({ id, dueMs, channelIds }, index): Retimed => {
    switch (rule) {
      case 'now':
        return { id, atMs: nowMs };
      case 'drop':
        return { id, atMs: null };
      case 'slot': {
        const slot = slots.find((each) => each.atMs > nowMs && !taken.has(each.key) && channelIds.some((channelId) => each.channelIds.includes(channelId)));
        if (slot) taken.add(slot.key);
        return { id, atMs: slot?.atMs ?? null };
      }
      case 'keep-order': {
        const gapMs = index === 0 ? 0 : Math.max(LEAST_APART_MS, Math.min(dueMs - (inOrder[index - 1]?.dueMs ?? dueMs), 24 * 3_600_000));
        lastMs = index === 0 ? nowMs : lastMs + gapMs;
        return { id, atMs: lastMs };
      }
    }
  });
}
