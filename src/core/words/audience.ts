/** Who may see a post, where a network can limit that. Empty lists and null limit nothing. */
export interface Audience {
  /** ISO 3166-1 alpha-2, capital letters. */
  readonly countries: readonly string[];
  /** Years that a person must have lived. */
  readonly fromAge: number | null;
  /** BCP 47 primary languages. */
  readonly languages: readonly string[];
}

export const everyone: Audience = { countries: [], fromAge: null, languages: [] };

/** An audience as it is kept and copied: `countries: GB, IE; age: 18+; languages: en`. Everyone is an empty text. */
export function writeAudience({ countries, fromAge, languages }: Audience): string {
  return [
    countries.length > 0 ? `countries: ${countries.join(', ')}` : '',
    fromAge === null ? '' : `age: ${fromAge}+`,
    languages.length > 0 ? `languages: ${languages.join(', ')}` : '',
  ].filter((part) => part !== '').join('; ');
}

/** An audience out of its text; null where a part of it cannot be read. */
export function readAudience(text: string): Audience | null {
  let audience = everyone;
  for (const part of text.split(';').map((each) => each.trim()).filter((each) => each !== '')) {
    const colon = part.indexOf(':');
    const [name, value] = [part.slice(0, colon).trim().toLowerCase(), part.slice(colon + 1).trim()];
    const list = value.split(/[\s,]+/u).filter((each) => each !== '');
    if (name === 'countries' && list.every((each) => /^[a-z]{2}$/iu.test(each))) audience = { ...audience, countries: list.map((each) => each.toUpperCase()) };
    else if (name === 'age' && /^\d{1,2}\+?$/.test(value)) audience = { ...audience, fromAge: Number.parseInt(value, 10) };
    else if (name === 'languages' && list.every((each) => /^[a-z]{2,3}$/iu.test(each))) audience = { ...audience, languages: list.map((each) => each.toLowerCase()) };
    else return null;
  }
  return audience;
}
