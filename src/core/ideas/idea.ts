/** Where an idea comes from. */
export const ideaKinds = ['note', 'date', 'feed', 'trend', 'prompt', 'saying', 'revival', 'gap', 'reply'] as const;
export type IdeaKind = (typeof ideaKinds)[number];

export const kindNames: Readonly<Record<IdeaKind, string>> = { note: 'Note', date: 'Day', feed: 'Feed', trend: 'Trend', prompt: 'Prompt', saying: 'Saying', revival: 'Revival', gap: 'Gap', reply: 'Reply' };

/**
 * - `open`: on the shelf.
 * - `snoozed`: set aside until a day; it comes back by itself.
 * - `archived`: off the shelf; nothing brings it back but a person.
 */
export const ideaStates = ['open', 'snoozed', 'archived'] as const;
export type IdeaState = (typeof ideaStates)[number];
export type IdeaEvent = 'snooze' | 'archive' | 'restore' | 'wake';

const table: Readonly<Record<IdeaState, Readonly<Partial<Record<IdeaEvent, IdeaState>>>>> = {
  open: { snooze: 'snoozed', archive: 'archived' },
  snoozed: { snooze: 'snoozed', archive: 'archived', restore: 'open', wake: 'open' },
  archived: { restore: 'open' },
};

/** The state after an event; null where it cannot happen in this state. */
export function nextIdeaState(from: IdeaState, event: IdeaEvent): IdeaState | null {
  return table[from][event] ?? null;
}

/** What can be done with an idea in a state. */
export function ideaEvents(from: IdeaState): readonly IdeaEvent[] {
  return Object.keys(table[from]) as IdeaEvent[];
}

/** Something that could be said, before anybody has decided to. */
export interface Candidate {
  /** An idea that comes of itself comes once: its key says from what. */
  readonly key: string;
  readonly kind: IdeaKind;
  readonly title: string;
  readonly text: string;
  readonly link: string;
  readonly pictureUrl: string;
  readonly mediaId: string | null;
  /** The day that it is for; null when every day will do. */
  readonly day: string | null;
  readonly themeId: string | null;
  /** “Public holiday, GB”, the name of a feed. */
  readonly source: string;
  /** How much better than usual a post like it did, as a share; 0 where nobody knows. */
  readonly didWell: number;
  readonly details: Readonly<Record<string, unknown>>;
}

/** Settings of what comes of itself. */
export interface IdeaSettings {
  /** At most so many a week. */
  readonly perWeek: number;
  readonly kinds: readonly IdeaKind[];
  /** A post comes back as a revival when it is so old. */
  readonly revivalDays: number;
}

/** Kinds that come of themselves: what a person writes down is not among them. */
export const selfComing = ideaKinds.filter((kind) => kind !== 'note');
export const usualIdeaSettings: IdeaSettings = { perWeek: 12, kinds: selfComing, revivalDays: 42 };
