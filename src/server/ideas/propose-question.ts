import { nanoid } from 'nanoid';
import { articleOf, type Article } from '../../core/ideas/propose/article.ts';
import { findIn } from '../../core/ideas/propose/findings.ts';
import { proposeAll, proposeFrom, type Proposal, type ProposeBrief, type Variant } from '../../core/ideas/propose/propose.ts';
import { proposeSeries, type SeriesPart } from '../../core/ideas/propose/series.ts';
import type { Language } from '../../core/words/language.ts';
import { guessLanguage } from '../../core/write/guess-language.ts';
import { packOf } from '../../core/write/language-pack.ts';

/** What is asked of the proposer, as values that go to a thread. */
export interface ProposeQuestion {
  readonly text: string;
  /** Of the brand; what the text is written in is found by itself. */
  readonly brandLanguage: Language;
  readonly brief: Omit<ProposeBrief, 'article' | 'pack' | 'desk'> & { readonly desk: Omit<ProposeBrief['desk'], 'language'> };
  readonly wish: { readonly kind: 'all'; readonly count: number } | { readonly kind: 'one'; readonly key: string; readonly variant: Variant; readonly taken: readonly string[] } | { readonly kind: 'series'; readonly days: number };
}

export interface ProposeAnswer {
  readonly title: string;
  /** What the desk could not do; empty where all is well. */
  readonly note: string;
  readonly proposals: readonly Proposal[];
  readonly parts: readonly SeriesPart[];
}

/** A text of so few words says too little for its language to be told. */
const MIN_WORDS = 25;

/** Proposes, in a thread. */
export function answerProposals({ text, brandLanguage, brief, wish }: ProposeQuestion): ProposeAnswer {
  const guessed = guessLanguage(text);
  const words = text.split(/\s+/u).length;
  const language = guessed ?? brandLanguage;
  // Long enough to tell, and none of those that are known: it is quoted.
  const pack = guessed === null && words >= MIN_WORDS ? null : packOf(language);
  const article: Article = articleOf(text, language);
  const whole: ProposeBrief = { ...brief, article, pack, desk: { ...brief.desk, language: pack ? language : 'it' } };
  const findings = findIn(article, pack, brief.topic);
  const newId = (): string => nanoid(8);
  const note = pack ? '' : 'The desk does not know the language of this text. It quotes sentences as they stand.';
  if (wish.kind === 'series') return { title: article.title, note, proposals: [], parts: proposeSeries(article, findings, whole, wish.days, newId) };
  if (wish.kind === 'all') {
    const proposals = proposeAll(findings, whole, wish.count, newId);
    return { title: article.title, note: proposals.length === 0 ? 'Nothing in this text makes a piece: its sentences are too short, or too long to stand on a picture.' : note, proposals, parts: [] };
  }
  const finding = findings.find(({ key }) => key === wish.key);
  const proposal = finding ? proposeFrom(finding, whole, wish.variant, new Set(wish.taken), newId) : null;
  return { title: article.title, note, proposals: proposal ? [proposal] : [], parts: [] };
}
