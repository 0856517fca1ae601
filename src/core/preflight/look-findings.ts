import type { BrandBook } from '../brand/brand-book.ts';
import { avoidedWords, replaceAvoided } from '../brand/voice.ts';
import type { CutFinding, CutReport } from '../compose/report.ts';
import { MARK_SLOT } from '../piece/adjustment.ts';
import { cutKey, slideAdjustmentOf, slideKey, slotText, type Frame, type Piece } from '../piece/piece.ts';
import { slideTemplate } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { plural, type CutToCheck, type Finding } from './finding.ts';

/** Findings about the look of all cuts, reported once for the piece. */
export function sharedLookFindings(piece: Piece, template: Template, book: BrandBook, cuts: readonly CutToCheck[]): readonly Finding[] {
  const common = new Map<string, Finding>();
  for (const { frame, report } of cuts.flatMap((cut) => cut.slides)) {
    for (const finding of report.findings) {
      const said = sharedFinding(slideOfPiece(piece, template, frame), finding);
      if (said) common.set(said.sentence, said);
    }
  }
  return [...common.values(), ...piece.frames.flatMap((frame) => avoidedInSlots(slideOfPiece(piece, template, frame), book))];
}

/** A slide with its own template and the words that findings about it begin with; a graphic needs none. */
interface SlideOfPiece {
  readonly frame: Frame;
  readonly template: Template;
  readonly prefix: string;
  /** Which slide a finding is about; nothing for a graphic. */
  readonly about: Pick<Finding, 'slide'>;
}

export function slideOfPiece(piece: Piece, template: Template, frame: Frame): SlideOfPiece {
  if (piece.kind === 'graphic') return { frame, template, prefix: '', about: {} };
  const number = piece.frames.findIndex((each) => each.id === frame.id) + 1;
  return { frame, template: slideTemplate(template, frame.slide), prefix: number === 0 ? 'All in one: ' : `${piece.kind === 'video' ? 'Shot' : 'Slide'} ${number}: `, about: { slide: frame.id } };
}

function sharedFinding({ frame, template, prefix, about: slide }: SlideOfPiece, finding: CutFinding): Finding | null {
  const about = { cut: null, ...slide };
  if (finding.kind === 'empty-slot') {
    return { ...about, severity: 'stops', sentence: `${prefix}${slotLabel(template, finding.slot)} is empty. ${template.name} cannot go out without it.`, view: 'look', fix: null };
  }
  if (finding.kind === 'missing-fact') {
    const sentence =
      finding.reason === 'empty'
        ? `${prefix}${slotLabel(template, finding.slot)} uses the fact {${finding.fact}}, which has no text yet.`
        : `${prefix}${slotLabel(template, finding.slot)} uses {${finding.fact}}, and the brand has no fact of that name.`;
    return { ...about, severity: 'stops', sentence, view: finding.reason === 'empty' ? 'facts' : 'look', fix: null };
  }
  if (finding.kind === 'lost-mark') {
    return { ...about, severity: 'warns', sentence: `${prefix}The chosen mark is no longer in the brand book; each cut takes the one that shows best.`, view: 'look', fix: emptySlotFix(frame, finding.slot) };
  }
  if (finding.kind === 'missing-glyphs') {
    return { ...about, severity: 'stops', sentence: `${prefix}No typeface here can write ${finding.characters.join(' ')} in ${slotLabel(template, finding.slot)}.`, view: 'look', fix: null };
  }
  return null;
}

function avoidedInSlots({ frame, template, prefix, about }: SlideOfPiece, { voice }: BrandBook): readonly Finding[] {
  return template.slots.flatMap((slot) => {
    const text = slotText(frame, slot.key);
    return avoidedWords(text, voice).map(
      ({ word, prefer }): Finding => ({
        severity: 'warns',
        sentence: `${prefix}${slot.label} says “${word}”, which this brand does not.`,
        cut: null,
        ...about,
        view: 'look',
        fix: prefer === '' ? null : { label: `Say “${prefer}”`, change: { kind: 'write-slot', frame: frame.id, slot: slot.key, text: replaceAvoided(text, word, prefer) } },
      }),
    );
  });
}

/** What is about one cut alone, slide by slide. */
export function lookFindings(piece: Piece, template: Template, cut: CutToCheck): readonly Finding[] {
  return cut.slides.flatMap((slide) => slideFindings(piece, slideOfPiece(piece, template, slide.frame), slide.report, cut));
}

function slideFindings(piece: Piece, { frame, template, prefix, about }: SlideOfPiece, report: CutReport, { ref, placement, sheet }: CutToCheck): readonly Finding[] {
  const where = `${sheet.name} ${placement.name}`;
  const cut = cutKey(ref);
  // What is mended in a carousel is mended on this slide alone.
  const target = piece.kind === 'graphic' ? cut : slideKey(ref, frame.id);
  const adjustment = slideAdjustmentOf(piece, ref, frame.id);
  const found: Finding[] = [];
  const push = (finding: Omit<Finding, 'cut' | 'slide' | 'view'>): void => void found.push({ ...finding, sentence: `${prefix}${finding.sentence}`, cut, ...about, view: 'look' });
  for (const text of report.texts) {
    if (text.kind !== 'overflows') continue;
    push({ severity: 'stops', sentence: `${slotLabel(template, text.slot)} is too long for ${where} by ${plural(text.overBy, 'character')}.`, fix: overflowFix(template, target, text.slot, adjustment.textStep ?? 0) });
  }
  for (const finding of report.findings) {
    switch (finding.kind) {
      case 'empty-slot':
      case 'missing-fact':
      case 'missing-glyphs':
      case 'lost-mark':
      case 'low-resolution':
        break;
      case 'dropped':
        push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} is left out of ${where}: there is no room for it.`, fix: null });
        break;
      case 'low-contrast':
        push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} reaches a contrast of ${finding.ratio.toFixed(1)} in ${where}; ${finding.needed} is needed.`, fix: null });
        break;
      case 'covered-subject':
        push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} lies on the subject of ${slotLabel(template, finding.picture).toLowerCase()} in ${where}. Shorten it, or move the picture.`, fix: optionalPartFix(template, target, finding.slot) });
        break;
      case 'cut-off-mark':
        push({ severity: 'stops', sentence: `The mark is cut off in ${where}: there is no room for all of it.`, fix: { label: 'Leave the mark out here', change: { kind: 'hide-part', cut: target, slot: MARK_SLOT } } });
        break;
      case 'small-mark':
        push({ severity: 'warns', sentence: `The mark is ${Math.round(finding.heightPx)} pixels high in ${where}; the book asks for ${finding.leastHeightPx}.`, fix: null });
        break;
      case 'faint-mark':
        push({ severity: 'warns', sentence: `The chosen mark reaches a contrast of ${finding.ratio.toFixed(1)} in ${where}; ${finding.needed} is needed.`, fix: ownMarkFix(template, frame) });
        break;
      case 'crowded-mark':
        push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} comes into the clear space of the mark in ${where}.`, fix: optionalPartFix(template, target, finding.slot) });
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
function ownMarkFix(template: Template, frame: Frame): Finding['fix'] {
  const slot = template.slots.find((each) => each.kind === 'mark' && frame.slots[each.key] !== undefined);
  return slot ? emptySlotFix(frame, slot.key) : null;
}

function emptySlotFix(frame: Frame, slot: string): NonNullable<Finding['fix']> {
  return { label: 'Let the ground choose', change: { kind: 'empty-slot', frame: frame.id, slot } };
}

function slotLabel(template: Template, slot: string): string {
  return template.slots.find((each) => each.key === slot)?.label ?? slot;
}
