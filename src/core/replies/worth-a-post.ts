import type { Language } from '../words/language.ts';
import { guessLanguage } from '../write/guess-language.ts';
import { packOf } from '../write/language-pack.ts';
import { gestureOf } from './propose-answers.ts';

/**
 * Whether a message makes a post: a question that others may have, or kind words. A complaint is answered, and makes none.
 * @param usual the language that it is taken for when its words do not tell
 */
export function isWorthAPost(said: string, usual: Language): boolean {
  const pack = packOf(guessLanguage(said) ?? usual);
  const gesture = pack ? gestureOf(said, pack.language) : 'says';
  return gesture === 'asks' || gesture === 'glad';
}
