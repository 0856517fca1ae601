import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { compose } from '../../src/core/compose/compose.ts';
import type { Engines } from '../../src/core/compose/set-cut.ts';
import type { Placement } from '../../src/core/network/network-sheet.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { cutFrame } from '../../src/core/compose/cut-frame.ts';
import type { CutReport } from '../../src/core/compose/report.ts';
import { fontWeight, setText } from '../../src/core/compose/set-text.ts';
import { fontKeysFor } from '../../src/core/text/font-shelf.ts';
import { walkParts, type TextPart } from '../../src/core/template/parts.ts';
import type { Template } from '../../src/core/template/template.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import type { CorpusContent } from './contents.ts';
import { fillTemplate } from './fill.ts';
import { avoidableOneWordLine, partedNumber } from './line-rules.ts';
import { measureCut, type Violation } from './measure.ts';
import { showsSubject, type CorpusPictures } from './pictures.ts';

export interface CorpusCase {
  readonly template: Template;
  readonly content: CorpusContent;
  readonly placement: Placement;
  readonly book: BrandBook;
}

/** Composes, paints and measures one cut of the corpus. */
export async function runCut({ template, content, placement, book }: CorpusCase, engines: Engines, { pictures, sources }: CorpusPictures): Promise<readonly Violation[]> {
  const { scene, report } = compose({ template, frame: fillTemplate(template, content), book, placement, pictures, ghosts: false, adjustment: linkedCut }, engines);
  const painted = await paintScene(scene, engines.typesetter, sources);
  const violations = [...measureCut({ scene, report, painted, placement, book, language: content.language, typesetter: engines.typesetter, labelSlots: labelSlotsOf(template) })];
  violations.push(...badHeadlines({ template, content, placement, book }, report, engines));
  // Duotones have no colours to look for. What does not fit may push a picture out, and long words may lie on a subject: both are named.
  const photo = scene.nodes.find((node) => node.kind === 'picture');
  const isMeasurable = photo?.kind === 'picture' && !photo.tone && content.picture === 'photo' && !report.texts.some((text) => text.kind === 'overflows') && !report.findings.some((finding) => finding.kind === 'covered-subject');
  if (isMeasurable && !showsSubject(painted.rgba)) violations.push({ kind: 'subject', what: 'the subject cannot be seen' });
  return violations;
}

/** Headlines in lines that could be better, and numbers parted from their units in any text. */
function badHeadlines({ template, content, placement, book }: CorpusCase, report: CutReport, { typesetter }: Engines): readonly Violation[] {
  const arrangement = template.arrangements.find(({ key }) => key === report.arrangement);
  const parts = arrangement ? [...walkParts(arrangement.root)].filter((part): part is TextPart => part.part === 'text' && !part.fill) : [];
  return report.placed.flatMap(({ slot, lineTexts, roomPx, sizePx }): Violation[] => {
    const parted = partedNumber(lineTexts);
    const found: Violation[] = parted === null ? [] : [{ kind: 'parted-number', what: `${slot}: ${parted}` }];
    const part = parts.find((each) => each.slot === slot);
    const isTyped = Object.values(content).some((text) => typeof text === 'string' && text.includes('\n'));
    if (!part || isTyped || (part.role !== 'display' && part.role !== 'heading')) return found;
    const { bound, role } = { bound: { text: lineTexts.join(' '), ghost: false }, role: book.type[part.role] };
    const { minPx } = setText(part, bound, { book, frame: cutFrame(placement), textStep: 0, hyphenated: new Set() }, typesetter);
    // A smaller size gives wider lines, down to what the part takes and what is still a headline.
    const roomEm = roomPx / Math.max(minPx, sizePx * WORTH_GIVING_UP);
    const lone = avoidableOneWordLine(lineTexts, roomEm, (text) => (typesetter.shape(text, fontKeysFor(text, role.font, fontWeight(book, role.font)), role.trackingEm).offsetsEm.at(-1) ?? 0) - role.trackingEm);
    if (lone !== null) found.push({ kind: 'one-word-line', what: `${slot}: ${lone}` });
    return found;
  });
}

/** Share of its size that a headline should rather give up than have a line of one short word. */
const WORTH_GIVING_UP = 0.85;

/** Slots that some arrangement sets as a label. */
function labelSlotsOf(template: Template): ReadonlySet<string> {
  const slots = template.arrangements.flatMap((arrangement) => [...walkParts(arrangement.root)].flatMap((part) => (part.part === 'text' && part.role === 'label' ? [part.slot] : [])));
  return new Set(slots);
}
