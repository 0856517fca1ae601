import { channelsOfTheme, type Plan } from './plan.ts';
import type { Slot } from './rota-slots.ts';
import { RotationHistory, type Pair, type Rotation, type RotationRest, type Run } from './rotation.ts';

/** A piece that waits for a slot of one channel. */
export interface Waiting {
  readonly id: string;
  readonly pieceId: string;
  readonly channelId: string;
  readonly themeId: string | null;
  readonly template: string;
  readonly mediaIds: readonly string[];
}

/** What stands in the plan already: a post, or what a person has put into a slot. */
export interface Fixed {
  readonly channelId: string;
  readonly atMs: number;
  /** In the brand's zone. */
  readonly day: string;
  readonly slotKey: string | null;
  readonly themeId: string | null;
  readonly template: string | null;
  readonly mediaIds: readonly string[];
}

/** A channel with the pace of its network. */
export interface LaneRules {
  readonly id: string;
  readonly dailyMax: number;
  readonly leastGapMin: number;
}

export interface ForecastInput {
  readonly plan: Pick<Plan, 'themes' | 'apart'>;
  /** The earliest first. */
  readonly slots: readonly Slot[];
  readonly channels: readonly LaneRules[];
  /** In the order in which each channel's pieces wait. */
  readonly waiting: readonly Waiting[];
  readonly rotations: readonly Rotation[];
  readonly runs: readonly Run[];
  readonly fixed: readonly Fixed[];
}

/** Why nothing goes out in a slot: nothing waits for it, or a rule forbids what waits. */
export type OpenReason = 'nothing-waits' | 'gap' | 'day-full' | 'theme-twice' | 'template-again' | 'picture-again' | RotationRest;

export type Filling =
  | { readonly kind: 'waiting'; readonly entryId: string; readonly pieceId: string }
  | { readonly kind: 'rotation'; readonly pieceId: string; readonly pair: Pair }
  | { readonly kind: 'open'; readonly why: OpenReason };

/** What a slot holds on one channel. A slot that a post has taken already is not listed. */
export interface SlotFill {
  readonly slot: Slot;
  readonly channelId: string;
  readonly filling: Filling;
}

/** How long a channel lasts. */
export interface LaneForecast {
  readonly channelId: string;
  /** The first slot that nothing goes out in; null: none is empty within the horizon. */
  readonly dryAtMs: number | null;
  readonly slots: number;
  readonly open: number;
  /** Entries that found no slot within the horizon, in their order. */
  readonly left: readonly string[];
}

export interface Forecast {
  /** In the order of time. */
  readonly fills: readonly SlotFill[];
  readonly lanes: ReadonlyMap<string, LaneForecast>;
}

/** So many entries of a queue are looked at for one slot when rules forbid the first ones. */
const MAX_LOOK = 200;
const MINUTE_MS = 60_000;

interface Outing {
  readonly atMs: number;
  readonly themeId: string | null;
  readonly template: string | null;
  readonly mediaIds: readonly string[];
}

/** One channel's state while time goes by. */
class Lane {
  readonly taken: ReadonlySet<string>;
  readonly #fixed: readonly Fixed[];
  readonly #queue: readonly Waiting[];
  readonly #isPlaced: boolean[];
  /** Places in the queue by theme; '' holds all of them. */
  readonly #byTheme = new Map<string, { readonly places: readonly number[]; head: number }>();
  readonly #perDay = new Map<string, number>();
  readonly #histories = new Map<string, RotationHistory>();
  #nextFixed = 0;
  #past: Outing[] = [];
  dryAtMs: number | null = null;
  slots = 0;
  open = 0;

  constructor(
    readonly rules: LaneRules,
    waiting: readonly Waiting[],
    fixed: readonly Fixed[],
    readonly rotations: readonly Rotation[],
    runs: readonly Run[],
    readonly apart: Plan['apart'],
  ) {
    this.#fixed = fixed.toSorted((a, b) => a.atMs - b.atMs);
    this.taken = new Set(fixed.flatMap(({ slotKey }) => slotKey ?? []));
    this.#queue = waiting;
    this.#isPlaced = waiting.map(() => false);
    const places = new Map<string, number[]>([['', waiting.map((_, index) => index)]]);
    waiting.forEach(({ themeId }, index) => {
      if (themeId === null) return;
      const known = places.get(themeId);
      if (known) known.push(index);
      else places.set(themeId, [index]);
    });
    for (const [theme, list] of places) this.#byTheme.set(theme, { places: list, head: 0 });
    for (const { day } of fixed) this.#count(day);
    for (const run of runs) this.#historyOf(run.pieceId).note(run);
  }

  get left(): readonly string[] {
    return this.#queue.flatMap(({ id }, index) => (this.#isPlaced[index] ? [] : [id]));
  }

  /** What goes out in a slot; the lane notes it. */
  fill(slot: Slot): Filling {
    this.#goOnTo(slot.atMs);
    this.slots += 1;
    const filling = this.#choose(slot);
    if (filling.kind === 'open') {
      this.open += 1;
      this.dryAtMs ??= slot.atMs;
    } else this.#count(slot.day);
    return filling;
  }

  #count(day: string): void {
    this.#perDay.set(day, (this.#perDay.get(day) ?? 0) + 1);
  }

  /** What stands in the plan before a moment has gone out by then. */
  #goOnTo(atMs: number): void {
    for (let next = this.#fixed[this.#nextFixed]; next && next.atMs <= atMs; next = this.#fixed[this.#nextFixed]) {
      this.#past.push(next);
      this.#nextFixed += 1;
    }
    if (this.#past.length > 1_000) this.#past = this.#past.slice(-500);
  }

  #isTooClose(atMs: number): boolean {
    const leastMs = this.rules.leastGapMin * MINUTE_MS;
    const [before, after] = [this.#past.at(-1), this.#fixed[this.#nextFixed]];
    return (before !== undefined && atMs - before.atMs < leastMs) || (after !== undefined && after.atMs - atMs < leastMs);
  }

  #choose(slot: Slot): Filling {
    if (this.#isTooClose(slot.atMs)) return { kind: 'open', why: 'gap' };
    if ((this.#perDay.get(slot.day) ?? 0) >= this.rules.dailyMax) return { kind: 'open', why: 'day-full' };
    const queued = this.#takeWaiting(slot);
    if (queued?.kind === 'waiting') return queued;
    const turned = this.#takeRotation(slot);
    return turned.kind === 'rotation' ? turned : { kind: 'open', why: queued?.why ?? turned.why };
  }

  #takeWaiting(slot: Slot): Extract<Filling, { kind: 'waiting' | 'open' }> | null {
    const list = this.#byTheme.get(slot.themeId ?? '');
    if (!list) return null;
    let why: OpenReason | null = null;
    let looked = 0;
    for (let at = list.head; at < list.places.length && looked < MAX_LOOK; at += 1) {
      const index = list.places[at] as number;
      if (this.#isPlaced[index]) {
        if (at === list.head) list.head += 1;
        continue;
      }
      const entry = this.#queue[index] as Waiting;
      looked += 1;
      const forbidden = this.#forbids(entry, slot);
      if (forbidden) {
        why ??= forbidden;
        continue;
      }
      this.#isPlaced[index] = true;
      this.#past.push({ atMs: slot.atMs, themeId: entry.themeId, template: entry.template, mediaIds: entry.mediaIds });
      return { kind: 'waiting', entryId: entry.id, pieceId: entry.pieceId };
    }
    return why ? { kind: 'open', why } : null;
  }

  #takeRotation(slot: Slot): Extract<Filling, { kind: 'rotation' | 'open' }> {
    let why: OpenReason = 'nothing-waits';
    const candidates = this.rotations.filter(({ themeId }) => slot.themeId === null || themeId === slot.themeId).toSorted((a, b) => this.#historyOf(a.pieceId).lastDay - this.#historyOf(b.pieceId).lastDay);
    for (const rotation of candidates) {
      const turn = this.#historyOf(rotation.pieceId).turn(rotation, slot.day);
      if (turn.kind === 'rests') {
        why = turn.why;
        continue;
      }
      const outing = { themeId: rotation.themeId, template: rotation.template, mediaIds: [turn.pair.picture] };
      const forbidden = this.#forbids(outing, slot);
      if (forbidden) {
        why = forbidden;
        continue;
      }
      this.#historyOf(rotation.pieceId).note({ ...turn.pair, day: slot.day });
      this.#past.push({ atMs: slot.atMs, ...outing });
      return { kind: 'rotation', pieceId: rotation.pieceId, pair: turn.pair };
    }
    return { kind: 'open', why };
  }

  #historyOf(pieceId: string): RotationHistory {
    const known = this.#histories.get(pieceId);
    if (known) return known;
    const made = new RotationHistory();
    this.#histories.set(pieceId, made);
    return made;
  }

  /** The rule that an outing would break after what has gone out. A slot's own theme may follow itself: that is what the rota says. */
  #forbids({ themeId, template, mediaIds }: Omit<Outing, 'atMs'>, slot: Slot): OpenReason | null {
    const { themeTwice, template: templates, picture } = this.apart;
    if (themeTwice && slot.themeId === null && themeId !== null && this.#past.at(-1)?.themeId === themeId) return 'theme-twice';
    const back = (count: number): readonly Outing[] => (count === 0 ? [] : this.#past.slice(-count));
    if (template !== null && back(templates).some((each) => each.template === template)) return 'template-again';
    if (mediaIds.length > 0 && back(picture).some((each) => each.mediaIds.some((mediaId) => mediaIds.includes(mediaId)))) return 'picture-again';
    return null;
  }
}

/**
 * What goes out when: each slot takes the first piece of its channel's queue that its theme allows and no rule forbids, else an
 * evergreen piece whose turn it is. The same input gives the same answer, in whatever order it arrives, but for the order of the queues.
 */
export function forecast({ plan, slots, channels, waiting, rotations, runs, fixed }: ForecastInput): Forecast {
  const themes = new Map(plan.themes.map((theme) => [theme.id, theme]));
  const [queues, posts, ran] = [byChannel(waiting), byChannel(fixed), byChannel(runs)];
  const lanes = new Map(
    channels.map((rules) => {
      const allows = (themeId: string | null): boolean => themeId === null || channelsOfTheme(themes.get(themeId), [rules.id]).length > 0;
      const queue = (queues.get(rules.id) ?? []).filter(({ themeId }) => allows(themeId));
      const turning = rotations.filter(({ channelIds, themeId }) => channelIds.includes(rules.id) && allows(themeId));
      return [rules.id, new Lane(rules, queue, posts.get(rules.id) ?? [], turning, ran.get(rules.id) ?? [], plan.apart)] as const;
    }),
  );
  const fills: SlotFill[] = [];
  for (const slot of slots) {
    for (const channelId of channelsOfTheme(slot.themeId === null ? undefined : themes.get(slot.themeId), slot.channelIds)) {
      const lane = lanes.get(channelId);
      if (!lane || lane.taken.has(slot.key)) continue;
      fills.push({ slot, channelId, filling: lane.fill(slot) });
    }
  }
  return { fills, lanes: new Map([...lanes].map(([channelId, lane]) => [channelId, { channelId, dryAtMs: lane.dryAtMs, slots: lane.slots, open: lane.open, left: lane.left }])) };
}

function byChannel<Item extends { readonly channelId: string }>(items: readonly Item[]): ReadonlyMap<string, readonly Item[]> {
  const lists = new Map<string, Item[]>();
  for (const item of items) {
    const list = lists.get(item.channelId);
    if (list) list.push(item);
    else lists.set(item.channelId, [item]);
  }
  return lists;
}

/** Whole days from now until a lane runs dry; null when it lasts beyond the horizon, or has no slots at all. */
export function runwayDays({ dryAtMs }: Pick<LaneForecast, 'dryAtMs'>, nowMs: number): number | null {
  return dryAtMs === null ? null : Math.max(0, Math.floor((dryAtMs - nowMs) / 86_400_000));
}
