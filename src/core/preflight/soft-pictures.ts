import { cutKey, slideAdjustmentOf, slideKey, type Piece } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import type { CutToCheck, Finding } from './finding.ts';
import { slideOfPiece } from './look-findings.ts';

/** A picture that is enlarged in one cut. */
interface Soft {
  readonly cut: string;
  readonly where: string;
  readonly enlargedBy: number;
}

/** Pictures that are enlarged: one finding a picture, with its cuts. Where a person zoomed in, the fix removes the zoom. */
export function softPictures(piece: Piece, template: Template, cuts: readonly CutToCheck[]): readonly Finding[] {
  const zoomed: Finding[] = [];
  const soft = new Map<string, Soft[]>();
  const about = new Map<string, Pick<Finding, 'slide'> & { readonly prefix: string }>();
  for (const { ref, sheet, placement, slides } of cuts) {
    for (const { frame, report } of slides) {
      const { prefix, about: slide } = slideOfPiece(piece, template, frame);
      for (const finding of report.findings) {
        if (finding.kind !== 'low-resolution') continue;
        const [cut, where] = [cutKey(ref), `${sheet.name} ${placement.name}`];
        if ((slideAdjustmentOf(piece, ref, frame.id).crops?.[finding.slot]?.zoom ?? 1) > 1) {
          const target = piece.kind === 'graphic' ? cut : slideKey(ref, frame.id);
          zoomed.push({ severity: 'warns', sentence: `${prefix}The picture is enlarged ${finding.enlargedBy.toFixed(1)} times in ${where} and will look soft.`, cut, ...slide, view: 'look', fix: { label: 'Zoom out', change: { kind: 'zoom-out', cut: target, slot: finding.slot } } });
          continue;
        }
        const key = `${frame.id} ${finding.slot}`;
        about.set(key, { prefix, ...slide });
        soft.set(key, [...(soft.get(key) ?? []), { cut, where, enlargedBy: finding.enlargedBy }]);
      }
    }
  }
  const grouped = [...soft].map(([key, found]): Finding => {
    const [worst, ...others] = found.toSorted((a, b) => b.enlargedBy - a.enlargedBy);
    const { prefix = '', ...slide } = about.get(key) ?? {};
    const more = others.length === 0 ? '' : ` and ${others.length} more cut${others.length === 1 ? '' : 's'}`;
    return { severity: 'warns', sentence: `${prefix}The picture is enlarged ${others.length === 0 ? '' : 'up to '}${(worst?.enlargedBy ?? 1).toFixed(1)} times in ${worst?.where ?? ''}${more} and will look soft.`, cut: worst?.cut ?? null, ...slide, view: 'look', fix: null };
  });
  return [...zoomed, ...grouped];
}
