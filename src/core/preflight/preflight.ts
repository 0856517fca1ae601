import type { CutReport } from '../compose/report.ts';
import type { NetworkSheet, Placement } from '../network/network-sheet.ts';
import { cutKey, type CutRef, type Piece } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import { checkWording, wordingCell, type WordingFinding } from '../words/wording.ts';

/** What would go wrong or look wrong at sending, in a sentence, with its place. `stops` keeps a post from being scheduled. */
export interface Finding {
  readonly severity: 'stops' | 'warns';
  readonly sentence: string;
  /** The cut it is about; null when it is about the piece. */
  readonly cut: string | null;
  readonly sheet: 'look' | 'words';
}

/** A cut with all that is known about it. */
export interface CutToCheck {
  readonly ref: CutRef;
  readonly channelName: string;
  readonly sheet: NetworkSheet;
  readonly placement: Placement;
  readonly report: CutReport;
}

/** All findings of a piece for some of its cuts: the look of each cut, then the words of each channel. */
export function preflight(piece: Piece, template: Template, cuts: readonly CutToCheck[]): readonly Finding[] {
  const findings = [...emptySlots(template, cuts), ...cuts.flatMap((cut) => lookFindings(template, cut))];
  const channels = new Map(cuts.map((cut) => [cut.ref.channelId, cut]));
  for (const cut of channels.values()) findings.push(...wordFindings(piece, cut));
  return findings;
}

/** A slot is empty in all cuts alike, so it is said once. */
function emptySlots(template: Template, cuts: readonly CutToCheck[]): readonly Finding[] {
  const empty = new Set(cuts.flatMap((cut) => cut.report.findings.flatMap((finding) => (finding.kind === 'empty-slot' ? [finding.slot] : []))));
  return [...empty].map((slot) => ({
    severity: 'stops',
    sentence: `${slotLabel(template, slot)} is empty. ${template.name} cannot go out without it.`,
    cut: null,
    sheet: 'look',
  }));
}

function lookFindings(template: Template, { ref, placement, sheet, report }: CutToCheck): readonly Finding[] {
  const where = `${sheet.name} ${placement.name}`;
  const cut = cutKey(ref);
  const found: Finding[] = [];
  for (const text of report.texts) {
    if (text.kind !== 'overflows') continue;
    found.push({ severity: 'stops', sentence: `${slotLabel(template, text.slot)} is too long for ${where} by ${plural(text.overBy, 'character')}.`, cut, sheet: 'look' });
  }
  for (const finding of report.findings) {
    switch (finding.kind) {
      case 'empty-slot':
        break;
      case 'missing-glyphs':
        found.push({ severity: 'stops', sentence: `No typeface here can write ${finding.characters.join(' ')} in ${slotLabel(template, finding.slot)}.`, cut, sheet: 'look' });
        break;
      case 'low-contrast':
        found.push({ severity: 'warns', sentence: `${slotLabel(template, finding.slot)} reaches a contrast of ${finding.ratio.toFixed(1)} in ${where}; ${finding.needed} is needed.`, cut, sheet: 'look' });
        break;
      case 'low-resolution':
        found.push({ severity: 'warns', sentence: `The picture is enlarged ${finding.enlargedBy.toFixed(1)} times in ${where} and will look soft.`, cut, sheet: 'look' });
        break;
    }
  }
  return found;
}

function wordFindings(piece: Piece, { ref, channelName, sheet }: CutToCheck): readonly Finding[] {
  const found: Finding[] = checkWording(piece, ref.channelId, sheet).map((finding) => ({
    severity: finding.severity,
    sentence: wordingSentence(finding, channelName, sheet),
    cut: null,
    sheet: 'words',
  }));
  if (wordingCell(piece, ref.channelId, 'altText').text.trim() === '') {
    found.push({ severity: 'warns', sentence: `${channelName} has no alt text: people who cannot see the picture get nothing.`, cut: null, sheet: 'words' });
  }
  return found;
}

function wordingSentence(finding: WordingFinding, channelName: string, sheet: NetworkSheet): string {
  switch (finding.kind) {
    case 'too-long': {
      const label = sheet.words.fields.find((field) => field.key === finding.field)?.label ?? finding.field;
      return `${label} for ${channelName} is ${plural(finding.over, 'character')} over the ${finding.max} that ${sheet.name} takes.`;
    }
    case 'too-many-hashtags':
      return finding.severity === 'stops'
        ? `${finding.count} hashtags for ${channelName}: ${sheet.name} takes ${finding.limit}.`
        : `${finding.count} hashtags for ${channelName}: over ${finding.limit} looks like noise on ${sheet.name}.`;
    case 'too-many-mentions':
      return `${finding.count} mentions for ${channelName}: ${sheet.name} takes ${finding.limit}.`;
    case 'dead-link':
      return `The link in the words for ${channelName} cannot be clicked on ${sheet.name}.`;
  }
}

function slotLabel(template: Template, slot: string): string {
  return template.slots.find((each) => each.key === slot)?.label ?? slot;
}

function plural(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? '' : 's'}`;
}
