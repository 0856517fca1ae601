import { walkParts } from '../template/parts.ts';
import { asWritten, type SampleWords } from '../template/samples/sample-words.ts';
import type { Slot, Template } from '../template/template.ts';
import type { Frame, SlotValue } from './piece.ts';

/** How much a template is given to carry when it is looked at. */
export type SampleLength = 'short' | 'usual' | 'cruel';
export const sampleLengths: readonly SampleLength[] = ['short', 'usual', 'cruel'];

const SHORT_WORDS = 2;
/** A cruel text is this much longer than a slot is meant for. */
const CRUEL_FACTOR = 1.7;
const USUAL_LENGTH = 40;

/** Ids of pictures to look at a template with; where one kind is missing, the other stands in. */
export interface SamplePictures {
  readonly photos: readonly string[];
  /** Photographs whose subject stands clear of its ground. */
  readonly clear: readonly string[];
  readonly cutOuts: readonly string[];
}

/** A frame to look at a template by: its own samples in the brand's language, cut to a word or two, or drawn out beyond what the slots are meant for. */
export function sampleFrame(template: Template, length: SampleLength, pictures: SamplePictures, words: SampleWords = asWritten): Frame {
  const next = { photos: 0, clear: 0, cutOuts: 0 };
  const parts = template.arrangements.flatMap(({ root }) => [...walkParts(root)]);
  const whole = new Set(parts.flatMap((part) => (part.part === 'picture' && part.whole ? [part.slot] : [])));
  const before = new Set(parts.flatMap((part) => (part.part === 'text' && part.behind !== undefined ? [part.behind] : [])));
  const slots = template.slots.flatMap((slot): [string, SlotValue][] => {
    if (slot.kind === 'picture') {
      const order = whole.has(slot.key) ? (['cutOuts', 'photos'] as const) : before.has(slot.key) ? (['clear', 'photos', 'cutOuts'] as const) : (['photos', 'cutOuts'] as const);
      const kind = order.find((each) => pictures[each].length > 0) ?? 'photos';
      const id = pictures[kind][next[kind]++ % Math.max(1, pictures[kind].length)];
      return id === undefined ? [] : [[slot.key, { kind: 'picture', mediaId: id }]];
    }
    if (slot.kind === 'mark' || (length === 'short' && !slot.required)) return [];
    // The brand's own facts fill it.
    if (slot.kind === 'fact' && slot.sample === undefined) return [];
    const text = selfFilled[slot.kind] ?? sampleText(slot, length, words);
    return text === '' ? [] : [[slot.key, { kind: 'text', text }]];
  });
  return { id: `${template.key}-${length}`, slots: Object.fromEntries(slots) };
}

/** What fills itself stands as on the third of seven slides. */
const selfFilled: Readonly<Partial<Record<Slot['kind'], string>>> = { ordinal: '3', page: '3/7' };

function sampleText(slot: Slot, length: SampleLength, words: SampleWords): string {
  const usual = slot.sample === undefined ? slot.hint : words(slot.sample);
  if (length === 'usual') return usual;
  if (slot.kind === 'list') {
    const items = usual.split('\n');
    return length === 'short' ? items.slice(0, 2).map((item) => firstWords(item, SHORT_WORDS)).join('\n') : [...items, ...items].slice(0, 7).map((item) => stretch(item, item.length * CRUEL_FACTOR)).join('\n');
  }
  return length === 'short' ? firstWords(usual, SHORT_WORDS) : stretch(usual, (slot.softLimit ?? USUAL_LENGTH) * (slot.softLimit !== undefined && slot.softLimit <= 8 ? 1 : CRUEL_FACTOR));
}

function firstWords(text: string, count: number): string {
  return text.split(/\s+/).slice(0, count).join(' ').replace(/[,;:]$/, '');
}

/** A text repeated, word by word, up to a length. */
function stretch(text: string, length: number): string {
  const words = text.split(/\s+/);
  let result = words[0] ?? '';
  for (let index = 1; ; index += 1) {
    const next = `${result} ${words[index % words.length] ?? ''}`;
    if (next.length > length || index > 200) return result;
    result = next;
  }
}
