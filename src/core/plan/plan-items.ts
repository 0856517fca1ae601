import type { PieceKind } from '../piece/piece.ts';
import type { DeliveryState } from '../post/delivery-state.ts';
import type { OpenReason } from './forecast.ts';

/** How something of the plan stands. `waiting`, `rotation`: the forecast puts it there; `open`: a slot that nothing goes out in; `proposed`: an open slot with what could go there. */
export type PlanState = DeliveryState | 'draft' | 'placeholder' | 'waiting' | 'rotation' | 'open' | 'proposed';

/** One thing of the plan on one channel, whatever it is, as all views show it. */
export interface PlanItem {
  readonly key: string;
  readonly state: PlanState;
  readonly channelId: string;
  readonly atMs: number;
  /** `YYYY-MM-DD` and `HH:MM` in the brand's zone. */
  readonly day: string;
  readonly time: string;
  readonly name: string;
  readonly pieceId: string | null;
  readonly pieceKind: PieceKind | null;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly postId: string | null;
  readonly deliveryId: string | null;
  readonly entryId: string | null;
  readonly slotKey: string | null;
  readonly revision: number | null;
  readonly hasChanged: boolean;
  readonly isRotation: boolean;
  readonly problem: string | null;
  readonly why: OpenReason | null;
}

interface PlannedOuting {
  readonly id: string;
  readonly postId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly kind: PieceKind;
  readonly channelId: string;
  readonly state: DeliveryState;
  readonly dueMs: number;
  readonly wall: string;
  readonly origin: string;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly hasChanged: boolean;
  readonly problem: string | null;
}

interface PlannedEntry {
  readonly id: string;
  readonly pieceId: string | null;
  readonly name: string;
  readonly kind: PieceKind | null;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly dueMs: number;
  readonly wall: string;
  readonly slotKey: string | null;
  readonly revision: number;
  readonly cuts: readonly { readonly channelId: string }[];
}

interface PlannedFill {
  readonly slotKey: string;
  readonly channelId: string;
  readonly atMs: number;
  readonly wall: string;
  readonly themeId: string | null;
  readonly kind: 'waiting' | 'rotation' | 'open';
  readonly pieceId: string | null;
  readonly pieceName: string | null;
  readonly why: OpenReason | null;
}

const NOTHING = { postId: null, deliveryId: null, entryId: null, slotKey: null, revision: null, hasChanged: false, isRotation: false, problem: null, why: null, pieceKind: null, campaignId: null } as const;
const placeOf = (wall: string): Pick<PlanItem, 'day' | 'time'> => ({ day: wall.slice(0, 10), time: wall.slice(11) });

/** Caches what is made of a record. Views compare items by identity and render only new ones. */
function once<Given extends object, Made>(make: (given: Given) => Made): (given: Given) => Made {
  const known = new WeakMap<Given, Made>();
  return (given) => {
    const before = known.get(given);
    if (before !== undefined) return before;
    const made = make(given);
    known.set(given, made);
    return made;
  };
}

const ofOuting = once((each: PlannedOuting): PlanItem => ({ ...NOTHING, ...placeOf(each.wall), key: each.id, state: each.state, channelId: each.channelId, atMs: each.dueMs, name: each.pieceName, pieceId: each.pieceId, pieceKind: each.kind, themeId: each.themeId, campaignId: each.campaignId, postId: each.postId, deliveryId: each.id, hasChanged: each.hasChanged, isRotation: each.origin === 'rotation', problem: each.problem }));
const ofEntry = once((each: PlannedEntry): readonly PlanItem[] => [...new Set(each.cuts.map(({ channelId }) => channelId))].map((channelId): PlanItem => ({ ...NOTHING, ...placeOf(each.wall), key: `${each.id}.${channelId}`, state: each.pieceId === null ? 'placeholder' : 'draft', channelId, atMs: each.dueMs, name: each.name, pieceId: each.pieceId, pieceKind: each.kind, themeId: each.themeId, campaignId: each.campaignId, entryId: each.id, slotKey: each.slotKey, revision: each.revision })));
const ofFill = once((each: PlannedFill): PlanItem => ({ ...NOTHING, ...placeOf(each.wall), key: `${each.slotKey}.${each.channelId}`, state: each.kind, channelId: each.channelId, atMs: each.atMs, name: each.pieceName ?? '', pieceId: each.pieceId, themeId: each.themeId, slotKey: each.slotKey, isRotation: each.kind === 'rotation', why: each.why }));

/** Everything of some days of the plan in one list, in the order of time; what has no theme of its own takes that of its slot. */
export function itemsOf({ outings, entries, fills }: { readonly outings: readonly PlannedOuting[]; readonly entries: readonly PlannedEntry[]; readonly fills: readonly PlannedFill[] }): readonly PlanItem[] {
  return [...outings.map(ofOuting), ...entries.flatMap(ofEntry), ...fills.map(ofFill)].toSorted((a, b) => a.atMs - b.atMs || (a.key < b.key ? -1 : 1));
}

/** A post, an entry or a slot with all channels that it goes to: what a calendar shows once. */
export interface PlanGroup {
  readonly key: string;
  readonly first: PlanItem;
  readonly items: readonly PlanItem[];
  /** How many channels it goes to. */
  readonly channels: number;
}

/** Gathers what goes out together: the deliveries of a post at one moment, the channels of an entry, one piece in one slot. */
export function groupItems(items: readonly PlanItem[]): readonly PlanGroup[] {
  const groups = new Map<string, PlanItem[]>();
  for (const item of items) {
    const key = item.postId !== null ? `${item.postId} ${item.atMs}` : item.entryId !== null ? item.entryId : `${item.slotKey ?? ''} ${item.pieceId ?? ''} ${item.state}`;
    const known = groups.get(key);
    if (known) known.push(item);
    else groups.set(key, [item]);
  }
  return [...groups].map(([key, list]) => ({ key, first: worst(list), items: list, channels: new Set(list.map(({ channelId }) => channelId)).size }));
}

/** What wants attention stands for its group. */
function worst(items: readonly PlanItem[]): PlanItem {
  const [first, ...others] = items as readonly [PlanItem, ...PlanItem[]];
  return others.find(({ state }) => state === 'failed') ?? first;
}

/** Several places of one channel that a post goes to at one moment stand in its lane once; what wants attention stands for them. */
export function oncePerLane(items: readonly PlanItem[]): readonly PlanItem[] {
  const lanes = new Map<string, PlanItem>();
  for (const item of items) {
    const key = item.postId === null ? item.key : `${item.postId} ${item.channelId} ${item.atMs}`;
    const known = lanes.get(key);
    if (!known || (item.state === 'failed' && known.state !== 'failed')) lanes.set(key, item);
  }
  return [...lanes.values()];
}

/** Items by channel and day, each cell in the order of time. */
export function cellsOf(items: readonly PlanItem[]): ReadonlyMap<string, readonly PlanItem[]> {
  const cells = new Map<string, PlanItem[]>();
  for (const item of items) {
    const key = cellKey(item.channelId, item.day);
    const known = cells.get(key);
    if (known) known.push(item);
    else cells.set(key, [item]);
  }
  return cells;
}

export function cellKey(channelId: string, day: string): string {
  return `${channelId} ${day}`;
}

const reasons: Readonly<Record<OpenReason, string>> = {
  'nothing-waits': 'Nothing waits for this slot.',
  gap: 'Another post on this channel is too close.',
  'day-full': 'The channel’s network takes no more posts that day.',
  'theme-twice': 'What waits has the theme of the post before.',
  'template-again': 'What waits has a template that was out just before.',
  'picture-again': 'What waits shows a picture that was out just before.',
  ended: 'The rotation has ended by then.',
  'ran-out': 'The rotation has run as often as it may.',
  'out-of-season': 'The rotation is out of season then.',
  rests: 'The evergreen piece was out too shortly before.',
  'pairs-rest': 'Every pair of wording and picture has run too shortly before.',
};

/** Why a slot is open, in a sentence. */
export function reasonInWords(why: OpenReason): string {
  return reasons[why];
}
