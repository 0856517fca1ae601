import { graphemesOf } from '../words/graphemes.ts';
import type { BrandBook, BrandMark, Fact } from '../brand/brand-book.ts';
import { fillFacts } from '../brand/facts.ts';
import type { Picture } from '../crop/crop-window.ts';
import { slotText, type Frame } from '../piece/piece.ts';
import { tidyText } from '../text/tidy.ts';
import { walkParts, type MarkPart } from '../template/parts.ts';
import type { Slot, Template } from '../template/template.ts';
import type { Language } from '../words/language.ts';
import { weekdayNames } from '../words/weekday-names.ts';
import { echoSlot, numeralSlot, rowSlot, valueSlot, type ListShape } from './expand.ts';
import type { CutFinding } from './report.ts';

/** A text ready to be set. A ghost is the slot's hint, shown faintly in an empty slot of a preview. */
export interface BoundText {
  readonly text: string;
  readonly ghost: boolean;
}

export interface Bound {
  readonly texts: Readonly<Record<string, BoundText>>;
  readonly pictures: Readonly<Record<string, Picture>>;
  /** Slots whose picture is shown as it was taken, whatever the brand does to its photographs. */
  readonly untreated: readonly string[];
  /** Keys of the marks that a person has chosen. */
  readonly marks: Readonly<Record<string, string>>;
  /** Every list slot's items. */
  readonly lists: Readonly<Record<string, ListShape>>;
  readonly findings: readonly CutFinding[];
}

export interface BindOptions {
  /** Whether empty text slots show their hint. */
  readonly ghosts: boolean;
  /** Slots that this cut leaves out. */
  readonly hidden: readonly string[];
  readonly facts: readonly Fact[];
  /** The language of the brand, in which weekdays are named. */
  readonly language: Language | undefined;
}

/**
 * Puts the content of a frame into the slots of a template.
 * Fill-ins become the texts of the brand's facts; one that has none is a finding.
 */
export function bind(template: Template, frame: Frame, pictures: ReadonlyMap<string, Picture>, options: BindOptions): Bound {
  const texts: Record<string, BoundText> = {};
  const bound: Record<string, Picture> = {};
  const untreated: string[] = [];
  const marks: Record<string, string> = {};
  const echoed = echoedSlots(template);
  const findings: CutFinding[] = [];
  const lists: Record<string, ListShape> = {};
  for (const slot of template.slots) {
    if (options.hidden.includes(slot.key)) continue;
    let filled: boolean;
    const written = fillFacts(writtenText(slot, frame, options), options.facts);
    for (const fact of written.missing) findings.push({ kind: 'missing-fact', slot: slot.key, fact: fact.key, reason: fact.reason });
    if (slot.kind === 'list') {
      const items = listItems(written.text);
      const shown = items.length > 0 || !options.ghosts ? items : [slot.hint, slot.hint, slot.hint];
      filled = items.length > 0;
      const split = shown.map((item) => (slot.columns ? splitColumns(item) : { label: item, value: '' }));
      split.forEach(({ label, value }, index) => {
        texts[rowSlot(slot.key, index)] = { text: tidyText(label), ghost: !filled };
        texts[numeralSlot(slot.key, index)] = { text: String(index + 1), ghost: !filled };
        if (value !== '') texts[valueSlot(slot.key, index)] = { text: tidyText(value), ghost: !filled };
      });
      const mark = slot.markedBy === undefined ? '' : slotText(frame, slot.markedBy).trim().toLowerCase();
      const marked = mark === '' ? -1 : split.findIndex(({ label }) => label.toLowerCase() === mark);
      lists[slot.key] = { count: shown.length, columns: slot.columns === true, marked: marked < 0 ? null : marked };
    } else if (slot.kind === 'mark') {
      const value = frame.slots[slot.key];
      if (value?.kind === 'mark') marks[slot.key] = value.mark;
      filled = true;
    } else if (slot.kind !== 'picture') {
      const text = tidyText(written.text.trim());
      filled = text !== '';
      const shown = filled ? { text, ghost: false } : options.ghosts ? { text: slot.hint, ghost: true } : null;
      if (shown) {
        texts[slot.key] = shown;
        if (echoed.has(slot.key)) texts[echoSlot(slot.key)] = { ...shown, text: echoLine(shown.text) };
      }
    } else {
      const value = frame.slots[slot.key];
      const picture = value?.kind === 'picture' ? pictures.get(value.mediaId) : undefined;
      filled = picture !== undefined;
      if (picture) bound[slot.key] = picture;
      if (value?.kind === 'picture' && value.untreated) untreated.push(slot.key);
    }
    if (!filled && slot.required) findings.push({ kind: 'empty-slot', slot: slot.key });
  }
  return { texts, pictures: bound, untreated, marks, lists, findings };
}

/** Slots that a template repeats as a pattern; their lines are only made where they are shown. */
function echoedSlots({ arrangements }: Template): ReadonlySet<string> {
  return new Set(arrangements.flatMap(({ root }) => [...walkParts(root)].flatMap((part) => (part.part === 'echo' ? [part.slot] : []))));
}

/** The mark that a person has chosen for a part; null where the ground chooses, as where the chosen one is no longer in the book. */
export function chosenMark(book: Pick<BrandBook, 'marks'>, { marks }: Pick<Bound, 'marks'>, { slot }: MarkPart): BrandMark | null {
  return book.marks.find((mark) => slot !== undefined && mark.key === marks[slot]) ?? null;
}

/** What is written in a slot; left empty, a fact slot is its fact and a list of weekdays the opening hours. */
function writtenText(slot: Slot, frame: Frame, { facts, language }: Pick<BindOptions, 'facts' | 'language'>): string {
  const own = slotText(frame, slot.key);
  if (own.trim() !== '' || slot.fact === undefined) return own;
  const textOf = (key: string): string => facts.find((fact) => fact.key === key)?.text.trim() ?? '';
  if (slot.kind === 'fact') return textOf(slot.fact);
  if (slot.kind !== 'list' || slot.fact !== WEEKDAYS_FACT) return own;
  const names = weekdayNames(language);
  return weekdays.flatMap((key, index) => (textOf(`hours-${key}`) === '' ? [] : [`${names[index] ?? ''}: ${textOf(`hours-${key}`)}`])).join('\n');
}

/** The name of the facts `hours-mon` to `hours-sun` taken together. */
export const WEEKDAYS_FACT = 'weekdays';
const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

/** A short word stands several times on a line, or its pattern would be a thin column. */
const ECHO_LINE_LENGTH = 9;

/** The text of one line of an echo. */
export function echoLine(text: string): string {
  const times = Math.max(1, Math.floor(ECHO_LINE_LENGTH / Math.max(1, [...graphemesOf(text)].length + 1)));
  return Array.from({ length: times }, () => text).join(' ');
}

/** A label and a value, parted by the first colon that has a space behind it. */
function splitColumns(item: string): { readonly label: string; readonly value: string } {
  const at = item.search(/:\s/u);
  return at < 0 ? { label: item, value: '' } : { label: item.slice(0, at).trim(), value: item.slice(at + 1).trim() };
}

/** The items of a list: its lines, without the marks that people put before them. */
function listItems(text: string): readonly string[] {
  return text
    .split('\n')
    .map((line) => line.replace(/^\s*(?:[-*•–]|\d{1,2}[.)])\s+/u, '').trim())
    .filter((line) => line !== '');
}
