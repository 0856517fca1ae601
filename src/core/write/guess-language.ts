import { packOf, type DeskLanguage } from './language-pack.ts';
import { tokensOf } from './tokens.ts';

const candidates: readonly DeskLanguage[] = ['en', 'de', 'fr', 'es', 'pt'];
/** So much has to be there before it says which language it is: two words that say nothing, or one sign that others do not have. */
const MIN_FOUND = 2;
const SIGN_WORTH = 2;
const MAX_TEXT = 4_000;

/** What is written in one of the languages alone: signs, short forms, and the words with which people greet and thank. */
const signs: Readonly<Record<DeskLanguage, RegExp>> = {
  en: /(?<!\p{L})(?:thanks|thank you|hello|hi|please|love it|[a-z]+n[’']t|it[’']s|we[’']re|you[’']re)(?!\p{L})/iu,
  de: /ß|(?<!\p{L})(?:danke|bitte|hallo|moin|servus|schöne[rsn]?|wunderbar|kostet|geöffnet|köstlich)(?!\p{L})/iu,
  fr: /œ|(?<!\p{L})(?:merci|bonjour|bonsoir|salut|bravo à|très|s[’']il vous plaît|[cjndlq]u?[’']\p{Ll})/iu,
  es: /[¿¡ñ]|(?<!\p{L})(?:gracias|hola|por favor|buenos días|buenas|precioso|cuesta)(?!\p{L})/iu,
  pt: /[ãõ]|(?<!\p{L})(?:obrigad[oa]|olá|bom dia|boa tarde|lind[oa]|custa|hoje|você)(?!\p{L})/iu,
};

/** The language that a text is written in, by its small words and signs; null where they do not say it. */
export function guessLanguage(text: string): DeskLanguage | null {
  const looked = text.slice(0, MAX_TEXT);
  const words = tokensOf(looked).map((token) => token.text.toLowerCase());
  const found = candidates.map((language) => ({ language, count: words.filter((word) => packOf(language)?.stopwords.has(word)).length + (signs[language].test(looked) ? SIGN_WORTH : 0) })).toSorted((a, b) => b.count - a.count);
  const [first, second] = found;
  return first && first.count >= MIN_FOUND && first.count > (second?.count ?? 0) ? first.language : null;
}
