import type { Fact } from '../brand/brand-book.ts';
import { fillFacts } from '../brand/facts.ts';
import type { Picture } from '../crop/crop-window.ts';
import { slotText, type Frame } from '../piece/piece.ts';
import { tidyText } from '../text/tidy.ts';
import type { Template } from '../template/template.ts';
import { numeralSlot, rowSlot } from './expand.ts';
import type { CutFinding } from './report.ts';

/** A text ready to be set. A ghost is the slot's hint, shown faintly in an empty slot of a preview. */
export interface BoundText {
  readonly text: string;
  readonly ghost: boolean;
}

export interface Bound {
  readonly texts: Readonly<Record<string, BoundText>>;
  readonly pictures: Readonly<Record<string, Picture>>;
  /** Items of every list slot. */
  readonly itemCounts: Readonly<Record<string, number>>;
  readonly findings: readonly CutFinding[];
}

export interface BindOptions {
  /** Whether empty text slots show their hint. */
  readonly ghosts: boolean;
  /** Slots that this cut leaves out. */
  readonly hidden: readonly string[];
  readonly facts: readonly Fact[];
}

/**
 * Puts the content of a frame into the slots of a template.
 * Fill-ins become the texts of the brand's facts; one that has none is a finding.
 */
export function bind(template: Template, frame: Frame, pictures: ReadonlyMap<string, Picture>, options: BindOptions): Bound {
  const texts: Record<string, BoundText> = {};
  const bound: Record<string, Picture> = {};
  const findings: CutFinding[] = [];
  const counts: Record<string, number> = {};
  for (const slot of template.slots) {
    if (options.hidden.includes(slot.key)) continue;
    let filled: boolean;
    const written = fillFacts(slotText(frame, slot.key), options.facts);
    for (const fact of written.missing) findings.push({ kind: 'missing-fact', slot: slot.key, fact: fact.key, reason: fact.reason });
    if (slot.kind === 'list') {
      const items = listItems(written.text);
      const shown = items.length > 0 || !options.ghosts ? items : [slot.hint, slot.hint, slot.hint];
      filled = items.length > 0;
      shown.forEach((text, index) => {
        texts[rowSlot(slot.key, index)] = { text: tidyText(text), ghost: !filled };
        texts[numeralSlot(slot.key, index)] = { text: String(index + 1), ghost: !filled };
      });
      counts[slot.key] = shown.length;
    } else if (slot.kind === 'text') {
      const text = tidyText(written.text.trim());
      filled = text !== '';
      if (filled) texts[slot.key] = { text, ghost: false };
      else if (options.ghosts) texts[slot.key] = { text: slot.hint, ghost: true };
    } else {
      const value = frame.slots[slot.key];
      const picture = value?.kind === 'picture' ? pictures.get(value.mediaId) : undefined;
      filled = picture !== undefined;
      if (picture) bound[slot.key] = picture;
    }
    if (!filled && slot.required) findings.push({ kind: 'empty-slot', slot: slot.key });
  }
  return { texts, pictures: bound, itemCounts: counts, findings };
}

/** The items of a list: its lines, without the marks that people put before them. */
function listItems(text: string): readonly string[] {
  return text
    .split('\n')
    .map((line) => line.replace(/^\s*(?:[-*•–]|\d{1,2}[.)])\s+/u, '').trim())
    .filter((line) => line !== '');
}
