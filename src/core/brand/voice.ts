import type { Voice } from './brand-book.ts';

/** A word in a text that the brand avoids, as it is written there, and what it would rather say. */
export interface AvoidedWord {
  readonly word: string;
  readonly prefer: string;
}

/** Words of a text that the voice avoids, each once. Whole words only, whatever their case. */
export function avoidedWords(text: string, voice: Pick<Voice, 'words'>): readonly AvoidedWord[] {
  const found = new Map<string, AvoidedWord>();
  for (const { avoid, prefer } of voice.words) {
    for (const [word] of text.matchAll(wordPattern(avoid))) found.set(word.toLowerCase(), { word, prefer });
  }
  return [...found.values()];
}

/** A text with every form of an avoided word replaced; a capital at the start stays one. */
export function replaceAvoided(text: string, avoid: string, prefer: string): string {
  return text.replace(wordPattern(avoid), (word) => (startsCapital(word) ? prefer.charAt(0).toUpperCase() + prefer.slice(1) : prefer));
}

function startsCapital(word: string): boolean {
  const [first = ''] = word;
  return first !== first.toLowerCase();
}

/** Every text is searched for the same few words: their patterns are made once. */
const patterns = new Map<string, RegExp>();
const MAX_PATTERNS = 500;

function wordPattern(word: string): RegExp {
  const known = patterns.get(word);
  if (known) return known;
  if (patterns.size >= MAX_PATTERNS) patterns.clear();
  const literal = word.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])${literal}(?![\\p{L}\\p{N}])`, 'giu');
  patterns.set(word, pattern);
  return pattern;
}
