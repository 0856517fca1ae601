import { missingHeld } from '../../write/held.ts';
import type { LanguagePack } from '../../write/language-pack.ts';
import { shorten } from '../../write/shorten.ts';
import { tokensOf } from '../../write/tokens.ts';
import type { Taken } from './findings.ts';

/** A headline carries no full stop; a question or an exclamation stays one. */
const bare = (text: string): string => text.replace(/(?<=[^.])\.$/u, '').trim();

/**
 * A sentence as a headline of at most so many characters: as it stands, or shortened by dropping what costs least. Null where it does not get that short without losing a
 * number, a date, a name, a link or a denial. In a language that the desk does not know a sentence stands whole or not at all.
 */
export function headlineFrom(taken: Taken, pack: LanguagePack | null, maxCharacters: number): Taken | null {
  const whole = bare(taken.text);
  if ([...whole].length <= maxCharacters) return { ...taken, text: whole };
  if (!pack) return null;
  const { text, fits } = shorten(taken.text, pack, (each) => [...bare(each)].length <= maxCharacters);
  if (fits && tokensOf(text).length >= 3) return { ...taken, text: bare(text) };
  const clause = firstClause(taken.text, pack, maxCharacters);
  return clause === null ? null : { ...taken, text: clause };
}

/** The clause before a semicolon, colon, dash or comma, where it is whole and nothing that is held stands behind it. */
function firstClause(sentence: string, pack: LanguagePack, maxCharacters: number): string | null {
  for (const match of sentence.matchAll(/[;:]\s|\s[–—]\s|,\s/gu)) {
    const clause = sentence.slice(0, match.index).trim();
    if ([...clause].length > maxCharacters) return null;
    if (tokensOf(clause).length >= 4 && pack.hasVerb(clause) && missingHeld(sentence, clause, pack).length === 0) return clause;
  }
  return null;
}
