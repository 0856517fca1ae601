import type { Fact } from '../../brand/brand-book.ts';
import { fillFacts } from '../../brand/facts.ts';
import type { CollectionEntry, Season } from './entry.ts';
import { prompts } from './prompts.ts';
import { sayings } from './sayings.ts';

/** An entry that a brand can use now, with its facts filled in. */
export interface FilledEntry extends CollectionEntry {
  readonly kind: 'prompt' | 'saying';
  readonly filled: string;
}

/** Prompts and sayings that fit a season and whose facts the brand has. */
export function entriesFor(facts: readonly Fact[], season: Season): readonly FilledEntry[] {
  const fill = (kind: FilledEntry['kind']) => (entry: CollectionEntry): readonly FilledEntry[] => {
    if (entry.season !== undefined && entry.season !== season) return [];
    const { text, missing } = fillFacts(entry.text, facts);
    return missing.length > 0 ? [] : [{ ...entry, kind, filled: text }];
  };
  return [...prompts.flatMap(fill('prompt')), ...sayings.flatMap(fill('saying'))];
}
