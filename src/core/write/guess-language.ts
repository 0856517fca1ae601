import { packOf, type DeskLanguage } from './language-pack.ts';
import { tokensOf } from './tokens.ts';

const candidates: readonly DeskLanguage[] = ['en', 'de', 'fr', 'es', 'pt'];
/** So many words that say nothing have to be there before they say which language it is. */
const MIN_FOUND = 2;
const MAX_TEXT = 4_000;

/** The language that a text is written in, by its small words; null where they do not say it. */
export function guessLanguage(text: string): DeskLanguage | null {
  const words = tokensOf(text.slice(0, MAX_TEXT)).map((token) => token.text.toLowerCase());
  const found = candidates.map((language) => ({ language, count: words.filter((word) => packOf(language)?.stopwords.has(word)).length })).toSorted((a, b) => b.count - a.count);
  const [first, second] = found;
  return first && first.count >= MIN_FOUND && first.count > (second?.count ?? 0) ? first.language : null;
}
