import { graphemesOf } from '../words/graphemes.ts';
import { echoLine, type Bound } from './bind.ts';
import { echoSlot, expandRows, rowSlot, slotOfRow, valueSlot } from './expand.ts';
import type { Overflow } from './layout.ts';
import { NO_LIST, runFit, shapeTexts, type SetTexts, type Setting } from './set-cut.ts';

/** The slot that is asked to become shorter, and by how many characters. */
export interface OverBy {
  readonly slot: string;
  readonly characters: number;
}

/** What has to become shorter for a cut to fit: the slot that makes the room alone, or the one that takes the most. */
export function measureOverflow(setting: Setting, texts: SetTexts, overflow: Overflow): OverBy | null {
  const slots = overflow.reason === 'word-too-wide' ? overflow.parts.map((part) => slotOfRow(part.slot)) : slotsByRoom(texts);
  for (const slot of slots) {
    const characters = charactersTooMany(slot, setting, texts);
    if (characters !== null) return { slot, characters };
  }
  // No single slot can make the room: the one that takes most has to give way first.
  const [first] = slots;
  return first === undefined ? null : { slot: first, characters: charactersOf(first, setting.bound).length };
}

/** The slots that hold text, those that take the most room at their smallest size first. */
function slotsByRoom(texts: SetTexts): readonly string[] {
  const rooms = new Map<string, number>();
  for (const [part, text] of texts) {
    if (text.ghost) continue;
    const slot = slotOfRow(part.slot);
    rooms.set(slot, (rooms.get(slot) ?? 0) + (text.shaped.offsetsEm.at(-1) ?? 0) * text.minPx ** 2);
  }
  return [...rooms].sort(([, a], [, b]) => b - a).map(([slot]) => slot);
}

/** The user-perceived characters of a slot's text; a list's items one after the other. */
function charactersOf(slot: string, bound: Bound): readonly string[] {
  return textNames(slot, bound).flatMap((each) => [...graphemesOf(bound.texts[each]?.text ?? '')].map(({ segment }) => segment));
}

/** Where the texts of a slot are bound: a list's rows, with their second columns. */
function textNames(slot: string, bound: Bound): readonly string[] {
  const list = bound.lists[slot];
  return list === undefined ? [slot] : Array.from({ length: list.count }, (_, index) => [rowSlot(slot, index), ...(list.columns ? [valueSlot(slot, index)] : [])]).flat();
}

/** How many characters a slot has to lose until everything fits; null when even without it something does not. */
function charactersTooMany(slot: string, setting: Setting, texts: SetTexts): number | null {
  const total = charactersOf(slot, setting.bound).length;
  const fitsWith = (kept: number): boolean => {
    const { root, bound } = keepCharacters(slot, kept, setting);
    const shortened: Setting = { ...setting, root, bound };
    return !runFit(shortened, kept === total ? texts : shapeTexts(shortened)).overflow;
  };
  if (!fitsWith(0)) return null;
  let [low, high] = [0, total];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fitsWith(middle)) low = middle;
    else high = middle;
  }
  return total - low;
}

/** The cut with only the first characters of one slot; rows of a list that lose all of theirs go. */
function keepCharacters(slot: string, kept: number, { bound, arrangement }: Setting): Pick<Setting, 'root' | 'bound'> {
  const texts = { ...bound.texts };
  const list = bound.lists[slot];
  let left = kept;
  let rows = 0;
  for (const name of textNames(slot, bound)) {
    const own = [...graphemesOf(bound.texts[name]?.text ?? '')].map(({ segment }) => segment);
    const text = own.slice(0, left).join('').trim();
    left = Math.max(0, left - own.length);
    if (text === '') {
      delete texts[name];
      delete texts[echoSlot(name)];
    }
    else {
      texts[name] = { text, ghost: false };
      if (list === undefined) texts[echoSlot(name)] = { text: echoLine(text), ghost: false };
      if (!name.endsWith('.value')) rows += 1;
    }
  }
  const lists = list === undefined ? bound.lists : { ...bound.lists, [slot]: { ...list, count: rows } };
  return { bound: { ...bound, texts, lists }, root: expandRows(arrangement.root, (each) => lists[each] ?? NO_LIST) };
}
