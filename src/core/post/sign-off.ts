/** How many people approve a post before it goes out. */
export const signOffs = [0, 1, 2] as const;
export type SignOff = (typeof signOffs)[number];

/** Somebody's judgement of a post, as long as the post is what they looked at. */
export interface Verdict {
  /** Null for somebody from outside. */
  readonly personId: string | null;
  readonly name: string;
  readonly verdict: 'approve' | 'changes';
  readonly isValid: boolean;
  readonly atMs: number;
}

/** How a post stands with those who approve it. */
export interface Standing {
  /** Names of those whose approval counts, in the order in which they gave it. */
  readonly approvedBy: readonly string[];
  readonly isApproved: boolean;
  /** Who asked last for changes, if nobody has approved since. */
  readonly sentBackBy: string | null;
}

/**
 * How a post stands. Everybody counts once, with their last word; who made the post counts only beside somebody else.
 * @param makerId who made the post
 */
export function standingOf(verdicts: readonly Verdict[], needed: number, makerId: string): Standing {
  const last = new Map<string, Verdict>();
  for (const each of verdicts.filter(({ isValid }) => isValid).toSorted((a, b) => a.atMs - b.atMs)) {
    const who = each.personId ?? `outside ${each.name}`;
    last.delete(who);
    last.set(who, each);
  }
  const standing = [...last.values()];
  const approvals = standing.filter(({ verdict }) => verdict === 'approve');
  const sentBack = standing.findLast(({ verdict }) => verdict === 'changes');
  const hasOther = approvals.some(({ personId }) => personId !== makerId);
  return { approvedBy: approvals.map(({ name }) => name), isApproved: sentBack === undefined && approvals.length >= needed && (needed === 0 || hasOther), sentBackBy: sentBack?.name ?? null };
}

/** Whether a person's word is still waited for. */
export function isAwaited(verdicts: readonly Verdict[], needed: number, makerId: string, personId: string): boolean {
  const { isApproved, sentBackBy } = standingOf(verdicts, needed, makerId);
  if (isApproved || sentBackBy !== null) return false;
  const hasSpoken = verdicts.some((each) => each.isValid && each.personId === personId);
  return !hasSpoken && (personId !== makerId || needed > 1);
}
