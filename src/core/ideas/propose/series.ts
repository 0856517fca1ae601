import type { Article } from './article.ts';
import type { Finding } from './findings.ts';
import { plainVariant, proposeFrom, type Proposal, type ProposeBrief } from './propose.ts';

/** What the sections say, in a line each: it closes the series. */
function summary({ title, sections }: Article): readonly Finding[] {
  const headed = sections.filter(({ heading, sentences }) => heading !== '' && sentences.length > 0);
  if (headed.length < 2 || title === '') return [];
  const points = headed.map(({ heading, sentences: [first] }) => ({ heading: { text: heading, sentence: 0, original: heading }, text: first ? { text: first.text, sentence: first.number, original: first.text } : null }));
  return [{ key: 'series-summary', form: 'list', section: -1, score: 1, title: { text: title, sentence: 0, original: title }, points, around: sections.at(-1)?.sentences.slice(-MAX_AROUND) ?? [] }];
}

/** A part of a series: what it does in it, and its piece. */
export interface SeriesPart {
  readonly does: 'announces' | 'tells' | 'sums-up';
  /** What it is about: a section's heading. */
  readonly of: string;
  readonly proposal: Proposal;
}

const MAX_PARTS = 12;
const MAX_AROUND = 6;

/**
 * An article over several days: the first part announces, each section has one, the last sums up. Sections that say most are kept where there are more than days. Each
 * part has another picture.
 * @param days how many parts are wanted, from 3
 */
export function proposeSeries(article: Article, findings: readonly Finding[], brief: ProposeBrief, days: number, newId: () => string): readonly SeriesPart[] {
  const wanted = Math.max(3, Math.min(MAX_PARTS, days));
  const [taken, used] = [new Set<string>(), new Set<string>()];
  const make = (candidates: readonly Finding[]): Proposal | null => {
    for (const finding of candidates) {
      if (used.has(finding.key)) continue;
      const proposal = proposeFrom(finding, brief, plainVariant, taken, newId);
      if (!proposal) continue;
      used.add(finding.key);
      for (const { slots } of proposal.frames) for (const value of Object.values(slots)) if (value.kind === 'picture') taken.add(value.mediaId);
      return proposal;
    }
    return null;
  };
  const { title, sections } = article;
  const opening: Finding = { key: 'series-opening', form: 'announce', section: 0, score: 1, around: sections[0]?.sentences.slice(0, 6) ?? [], about: { text: title, sentence: 0, original: title }, line: sections[0]?.sentences[0] ? { text: sections[0].sentences[0].text, sentence: sections[0].sentences[0].number, original: sections[0].sentences[0].text } : null };
  const first = title === '' ? make(findings.filter(({ form }) => form === 'announce')) : make([opening, ...findings.filter(({ form }) => form === 'announce')]);
  const bestOf = (section: number): readonly Finding[] => findings.filter((finding) => finding.section === section);
  const headed = sections.map((section, index) => ({ section, index })).filter(({ index }) => bestOf(index).length > 0);
  const strongest = headed.toSorted((a, b) => (bestOf(b.index)[0]?.score ?? 0) - (bestOf(a.index)[0]?.score ?? 0)).slice(0, wanted - 2);
  const told = headed.filter((each) => strongest.includes(each)).flatMap(({ section, index }): readonly SeriesPart[] => {
    const proposal = make(bestOf(index));
    return proposal ? [{ does: 'tells', of: section.heading, proposal }] : [];
  });
  const sums = make([...findings.filter(({ key }) => key === 'list-sections'), ...summary(article), ...findings.filter(({ form }) => form === 'list'), ...findings.filter(({ form }) => form === 'announce')]);
  // Sections that are missing are made up for by what else the article says, before the end.
  const more: SeriesPart[] = [];
  while (1 + told.length + more.length + (sums ? 1 : 0) < wanted) {
    const proposal = make(findings);
    if (!proposal) break;
    more.push({ does: 'tells', of: '', proposal });
  }
  return [...(first ? [{ does: 'announces' as const, of: title, proposal: first }] : []), ...told, ...more, ...(sums ? [{ does: 'sums-up' as const, of: title, proposal: sums }] : [])];
}
