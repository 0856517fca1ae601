import type { BrandBook } from '../brand/brand-book.ts';
import { avoidedWords, replaceAvoided } from '../brand/voice.ts';
import type { CutFinding } from '../compose/report.ts';
import { adjustmentOf, cutKey, slotText, type Piece } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import { plural, type CutToCheck, type Finding } from './finding.ts';

/** What the looks of all cuts have in common: said once, about the piece. */
export function sharedLookFindings(piece: Piece, template: Template, book: BrandBook, cuts: readonly CutToCheck[]): readonly Finding[] {
  const common = new Map<string, Finding>();
  for (const { report } of cuts) {
    for (const finding of report.findings) {
      const said = sharedFinding(template, finding);
      if (said) common.set(said.sentence, said);
    }
  }
  return [...common.values(), ...avoidedInSlots(piece, template, book)];
}

function sharedFinding(template: Template, finding: CutFinding): Finding | null {
  if (finding.kind === 'empty-slot') {
    return { severity: 'stops', sentence: `${slotLabel(template, finding.slot)} is empty. ${template.name} cannot go out without it.`, cut: null, sheet: 'look', fix: null };
  }
  if (finding.kind === 'missing-fact') {
    const sentence =
      finding.reason === 'empty'
        ? `${slotLabel(template, finding.slot)} uses the fact {${finding.fact}}, which has no text yet.`
        : `${slotLabel(template, finding.slot)} uses {${finding.fact}}, and the brand has no fact of that name.`;
    return { severity: 'stops', sentence, cut: null, sheet: finding.reason === 'empty' ? 'facts' : 'look', fix: null };
  }
  if (finding.kind === 'lost-mark') {
    return { severity: 'warns', sentence: 'The chosen mark is no longer in the brand book; each cut takes the one that shows best.', cut: null, sheet: 'look', fix: emptySlotFix(finding.slot) };
  }
  if (finding.kind === 'missing-glyphs') {
    return { severity: 'stops', sentence: `No typeface here can write ${finding.characters.join(' ')} in ${slotLabel(template, finding.slot)}.`, cut: null, sheet: 'look', fix: null };
  }
  return null;
}

function avoidedInSlots(piece: Piece, template: Template, { voice }: BrandBook): readonly Finding[] {
  return template.slots.flatMap((slot) => {
    const text = slotText(piece.frames[0], slot.key);
    return avoidedWords(text, voice).map(
      ({ word, prefer }): Finding => ({
        severity: 'warns',
        sentence: `${slot.label} says “${word}”, which this brand does not.`,
        cut: null,
        sheet: 'look',
        fix: prefer === '' ? null : { label: `Say “${prefer}”`, change: { kind: 'write-slot', slot: slot.key, text: replaceAvoided(text, word, prefer) } },
      }),
    );
  });
}

/** What is about one cut alone. */
export function lookFindings(piece: Piece, template: Template, { ref, placement, sheet, report }: CutToCheck): readonly Finding[] {
  const where = `${sheet.name} ${placement.name}`;
  const cut = cutKey(ref);
  const adjustment = adjustmentOf(piece, ref);
  const found: Finding[] = [];
  for (const text of report.texts) {
    if (text.kind !== 'overflows') continue;
    found.push({ severity: 'stops', sentence: `${slotLabel(template, text.slot)} is too long for ${where} by ${plural(text.overBy, 'character')}.`, cut, sheet: 'look', fix: overflowFix(template, cut, text.slot, adjustment.textStep ?? 0) });
  }
  for (const finding of report.findings) {
    switch (finding.kind) {
      case 'empty-slot':
      case 'missing-fact':
      case 'missing-glyphs':
      case 'lost-mark':
        break;
      case 'dropped':
        found.push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} is left out of ${where}: there is no room for it.`, cut, sheet: 'look', fix: null });
        break;
      case 'low-contrast':
        found.push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} reaches a contrast of ${finding.ratio.toFixed(1)} in ${where}; ${finding.needed} is needed.`, cut, sheet: 'look', fix: null });
        break;
      case 'low-resolution': {
        const zoom = adjustment.crops?.[finding.slot]?.zoom ?? 1;
        found.push({
          severity: 'warns',
          sentence: `The picture is enlarged ${finding.enlargedBy.toFixed(1)} times in ${where} and will look soft.`,
          cut,
          sheet: 'look',
          fix: zoom > 1 ? { label: 'Zoom out', change: { kind: 'zoom-out', cut, slot: finding.slot } } : null,
        });
        break;
      }
      case 'small-mark':
        found.push({ severity: 'warns', sentence: `The mark is ${Math.round(finding.heightPx)} pixels high in ${where}; the book asks for ${finding.leastHeightPx}.`, cut, sheet: 'look', fix: null });
        break;
      case 'faint-mark':
        found.push({ severity: 'warns', sentence: `The chosen mark reaches a contrast of ${finding.ratio.toFixed(1)} in ${where}; ${finding.needed} is needed.`, cut, sheet: 'look', fix: ownMarkFix(template, piece) });
        break;
      case 'crowded-mark':
        found.push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} comes into the clear space of the mark in ${where}.`, cut, sheet: 'look', fix: optionalPartFix(template, cut, finding.slot) });
        break;
    }
  }
  return found;
}

/** A text set larger by hand goes back to its usual size first; then one that the template can do without may be left out. */
function overflowFix(template: Template, cut: string, slot: string, textStep: number): Finding['fix'] {
  return textStep > 0 ? { label: 'Usual text size here', change: { kind: 'usual-size', cut } } : optionalPartFix(template, cut, slot);
}

function optionalPartFix(template: Template, cut: string, slot: string): Finding['fix'] {
  const declared = template.slots.find((each) => each.key === slot);
  return declared && !declared.required ? { label: `Leave ${declared.label.toLowerCase()} out here`, change: { kind: 'hide-part', cut, slot } } : null;
}

/** Lets the ground choose the mark again. */
function ownMarkFix(template: Template, piece: Piece): Finding['fix'] {
  const slot = template.slots.find((each) => each.kind === 'mark' && piece.frames[0].slots[each.key] !== undefined);
  return slot ? emptySlotFix(slot.key) : null;
}

function emptySlotFix(slot: string): NonNullable<Finding['fix']> {
  return { label: 'Let the ground choose', change: { kind: 'empty-slot', slot } };
}

function slotLabel(template: Template, slot: string): string {
  return template.slots.find((each) => each.key === slot)?.label ?? slot;
}
