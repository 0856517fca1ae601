import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { compose, type Engines } from '../../src/core/compose/compose.ts';
import type { Placement } from '../../src/core/network/network-sheet.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import { walkParts } from '../../src/core/template/parts.ts';
import type { Template } from '../../src/core/template/template.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import type { CorpusContent } from './contents.ts';
import { fillTemplate } from './fill.ts';
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
  // Duotones have no colours to look for, and what does not fit may push a picture out: that is named.
  const photo = scene.nodes.find((node) => node.kind === 'picture');
  const isMeasurable = photo?.kind === 'picture' && !photo.tone && content.picture === 'photo' && !report.texts.some((text) => text.kind === 'overflows');
  if (isMeasurable && !showsSubject(painted.rgba)) violations.push({ kind: 'subject', what: 'the subject cannot be seen' });
  return violations;
}

/** Slots that some arrangement sets as a label. */
function labelSlotsOf(template: Template): ReadonlySet<string> {
  const slots = template.arrangements.flatMap((arrangement) => [...walkParts(arrangement.root)].flatMap((part) => (part.part === 'text' && part.role === 'label' ? [part.slot] : [])));
  return new Set(slots);
}
