import type { CutReport } from './report.ts';

/** One fault of a cut, and how bad it is. */
export interface Trouble {
  readonly weight: number;
  readonly sentence: string;
}

type Finding = CutReport['findings'][number];

/** How bad each finding is for a template. Empty slots, facts and soft pictures are faults of the content and weigh nothing. */
const weights: Readonly<Record<Finding['kind'], number>> = {
  'cut-off-mark': 90,
  'low-contrast': 70,
  'missing-glyphs': 60,
  'crowded-mark': 50,
  'faint-mark': 50,
  'lost-mark': 40,
  'small-mark': 40,
  'covered-subject': 30,
  dropped: 25,
  'missing-fact': 0,
  'empty-slot': 0,
  'low-resolution': 0,
};
const OVERFLOW_WEIGHT = 100;

/** The faults of a template in one cut, worst first. */
export function troublesOf({ texts, findings }: Pick<CutReport, 'texts' | 'findings'>, labelOf: (slot: string) => string): readonly Trouble[] {
  const over = texts.flatMap((text) => (text.kind === 'overflows' ? [{ weight: OVERFLOW_WEIGHT + text.overBy, sentence: `${labelOf(text.slot)} is too long by ${text.overBy}` }] : []));
  const found = findings.flatMap((finding) => (weights[finding.kind] > 0 ? [{ weight: weights[finding.kind], sentence: sentenceOf(finding, labelOf) }] : []));
  return [...over, ...found].sort((a, b) => b.weight - a.weight);
}

function sentenceOf(finding: Finding, labelOf: (slot: string) => string): string {
  switch (finding.kind) {
    case 'cut-off-mark':
      return 'The mark runs over the edge';
    case 'small-mark':
      return 'The mark is too small';
    case 'faint-mark':
      return 'The mark can hardly be seen';
    case 'lost-mark':
      return 'The chosen mark is gone';
    case 'crowded-mark':
      return `${labelOf(finding.slot)} comes too near to the mark`;
    case 'dropped':
      return `${labelOf(finding.slot)} is left out`;
    case 'missing-glyphs':
      return `${labelOf(finding.slot)} has signs that the typeface lacks`;
    case 'low-contrast':
      return `${labelOf(finding.slot)} is hard to read: ${finding.ratio.toFixed(1)} of ${finding.needed}`;
    case 'covered-subject':
      return `${labelOf(finding.slot)} lies on the subject of ${labelOf(finding.picture)}`;
    case 'empty-slot':
    case 'missing-fact':
    case 'low-resolution':
      return labelOf(finding.slot);
  }
}
