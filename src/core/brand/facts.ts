import type { Fact } from './brand-book.ts';

/** Why a fill-in cannot be printed: no fact has its key, or the fact has no text yet. */
export interface MissingFact {
  readonly key: string;
  readonly reason: 'unknown' | 'empty';
}

export interface FilledText {
  readonly text: string;
  readonly missing: readonly MissingFact[];
}

/** A fill-in as people write it. Braces around anything else are just braces. */
const FILL_IN = /\{([a-z][a-z0-9-]*)\}/g;

/**
 * Puts the texts of facts in the place of their fill-ins. A fill-in without a text vanishes and is named in the result:
 * a brace is never printed.
 */
export function fillFacts(text: string, facts: readonly Fact[]): FilledText {
  const missing: MissingFact[] = [];
  const filled = text.replace(FILL_IN, (_, key: string) => {
    const fact = facts.find((each) => each.key === key);
    if (fact && fact.text.trim() !== '') return fact.text.trim();
    missing.push({ key, reason: fact ? 'empty' : 'unknown' });
    return '';
  });
  return { text: missing.length > 0 ? filled.replace(/[ \t]{2,}/g, ' ').trim() : filled, missing };
}

/** How a fact is written in a text. */
export function fillInOf(fact: Pick<Fact, 'key'>): string {
  return `{${fact.key}}`;
}
