import type { CutToCheck, Finding } from './finding.ts';

/** Findings that differ only in their place or in a number. The first one is shown. */
export interface FindingGroup {
  readonly lead: Finding;
  readonly others: readonly Finding[];
}

/** Names that only say where: of cuts, channels, slides and shots. */
type Names = Pick<CutToCheck, 'channelName' | 'sheet' | 'placement'>;

/**
 * Groups findings that differ only in their place or in a number. Groups that stop a post come first; otherwise the order stays.
 */
export function groupFindings(findings: readonly Finding[], cuts: readonly Names[]): readonly FindingGroup[] {
  const places = [...new Set(cuts.flatMap(({ channelName, sheet, placement }) => [`${sheet.name} ${placement.name}`, channelName, sheet.name]))].filter((name) => name !== '').toSorted((a, b) => b.length - a.length);
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const key = [finding.severity, finding.view, finding.fix?.label ?? '', withoutPlace(finding.sentence, places)].join('|');
    const group = groups.get(key);
    if (group) group.push(finding);
    else groups.set(key, [finding]);
  }
  const all = [...groups.values()].flatMap(([lead, ...others]): FindingGroup[] => (lead ? [{ lead, others }] : []));
  return [...all.filter(({ lead }) => lead.severity === 'stops'), ...all.filter(({ lead }) => lead.severity !== 'stops')];
}

function withoutPlace(sentence: string, places: readonly string[]): string {
  return places.reduce((text, place) => text.replaceAll(place, '…'), sentence).replaceAll(/\d+(?:[.,]\d+)?/g, '0').replaceAll(/\b(character|second|slide|hashtag|mention)s?\b/g, '$1');
}
