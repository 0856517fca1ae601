import { dequal as equal } from 'dequal/lite';

/** A place within a document: keys of objects, and the identities of what stands in lists (`#id`) or its index. */
export type Path = readonly (string | number)[];

/** A place that two people have changed differently since a state that both began from. */
export interface Conflict {
  readonly path: Path;
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

export type Side = 'mine' | 'theirs';

export interface Merged<Document> {
  readonly document: Document;
  /** In the order in which they lie in the document. */
  readonly conflicts: readonly Conflict[];
}

/**
 * Brings two documents together that began from the same one (three-way merge). What only one side has changed is taken from that
 * side. Lists whose entries have identities (`id`, `key`, a channel with a placement, or plain texts) are merged entry by entry, so
 * that an entry added on one side and words changed on the other both stay; an entry that one side removed and the other changed
 * stays. Objects of different `kind` are never mixed.
 * @param decide which side a conflict takes; the conflict is reported all the same
 * @see https://en.wikipedia.org/wiki/Merge_(version_control)#Three-way_merge
 */
export function mergeDocuments<Document>(base: Document, mine: Document, theirs: Document, decide: (conflict: Conflict) => Side = () => 'theirs'): Merged<Document> {
  const conflicts: Conflict[] = [];
  const document = mergeValue(base, mine, theirs, [], (conflict) => {
    conflicts.push(conflict);
    return decide(conflict) === 'mine' ? conflict.mine : conflict.theirs;
  });
  return { document: document as Document, conflicts };
}

type Settle = (conflict: Conflict) => unknown;
type Entries = Readonly<Record<string, unknown>>;

function mergeValue(base: unknown, mine: unknown, theirs: unknown, path: Path, settle: Settle): unknown {
  if (mine === theirs || theirs === base) return mine;
  if (mine === base) return theirs;
  if (equal(mine, theirs) || equal(theirs, base)) return mine;
  if (equal(mine, base)) return theirs;
  if (isEntries(mine) && isEntries(theirs) && mine['kind'] === theirs['kind']) {
    // Where both have begun something new, they began from nothing.
    return mergeEntries(isEntries(base) && base['kind'] === mine['kind'] ? base : {}, mine, theirs, path, settle);
  }
  if (Array.isArray(mine) && Array.isArray(theirs)) {
    const before: readonly unknown[] = Array.isArray(base) ? base : [];
    if ([before, mine, theirs].every(hasIdentities)) return mergeLists(before, mine, theirs, path, settle);
    if (before.length === mine.length && before.length === theirs.length) return mine.map((value, index) => mergeValue(before[index], value, theirs[index], [...path, index], settle));
  }
  return settle({ path, base, mine, theirs });
}

function mergeEntries(base: Entries, mine: Entries, theirs: Entries, path: Path, settle: Settle): Entries {
  const merged: Record<string, unknown> = {};
  // The order of keys is that of theirs, with what is new in mine behind it.
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = mergeValue(base[key], mine[key], theirs[key], [...path, key], settle);
    if (value !== undefined) merged[key] = value;
  }
  return merged;
}

function isEntries(value: unknown): value is Entries {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** What an entry of a list is known by; null where nothing says. */
export function identityOf(entry: unknown): string | null {
  if (typeof entry === 'string') return entry;
  if (!isEntries(entry)) return null;
  const { id, key, channelId, placement } = entry;
  if (typeof id === 'string') return id;
  if (typeof key === 'string') return key;
  return typeof channelId === 'string' && typeof placement === 'string' ? `${channelId}.${placement}` : null;
}

function hasIdentities(list: readonly unknown[]): boolean {
  const identities = list.map(identityOf);
  return !identities.includes(null) && new Set(identities).size === identities.length;
}

function mergeLists(base: readonly unknown[], mine: readonly unknown[], theirs: readonly unknown[], path: Path, settle: Settle): readonly unknown[] {
  const [before, own, other] = [base, mine, theirs].map((list) => new Map(list.map((entry) => [identityOf(entry) ?? '', entry]))) as [Map<string, unknown>, Map<string, unknown>, Map<string, unknown>];
  const kept = (identity: string): boolean => {
    if (own.has(identity) && other.has(identity)) return true;
    if (!before.has(identity)) return true;
    // Removed on one side: it goes, unless the other side has changed it.
    return !equal(own.get(identity) ?? other.get(identity), before.get(identity));
  };
  const merged = (identity: string): unknown => {
    if (own.has(identity) && other.has(identity)) return mergeValue(before.get(identity), own.get(identity), other.get(identity), [...path, `#${identity}`], settle);
    return own.has(identity) ? own.get(identity) : other.get(identity);
  };
  return mergeOrder([...before.keys()], [...own.keys()], [...other.keys()]).filter(kept).map(merged);
}

/** One order of all identities: of the side that has moved something, with what the other side added behind what it stands behind there. */
function mergeOrder(base: readonly string[], mine: readonly string[], theirs: readonly string[]): readonly string[] {
  const common = (list: readonly string[], other: readonly string[]): readonly string[] => list.filter((each) => other.includes(each));
  const hasMoved = !equal(common(mine, base), common(base, mine));
  const [first, second] = hasMoved ? [mine, theirs] : [theirs, mine];
  const order = [...first];
  for (const [index, identity] of second.entries()) {
    if (order.includes(identity)) continue;
    const previous = second[index - 1];
    order.splice(previous === undefined ? 0 : order.indexOf(previous) + 1, 0, identity);
  }
  return order;
}
