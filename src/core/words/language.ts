/** Languages whose small words and hyphenation are known; keys are BCP 47. */
export type Language = 'en' | 'de' | 'fr' | 'es' | 'it' | 'nl' | 'pt' | 'pl';

/** Each language by its own name. */
export const languageNames: Readonly<Record<Language, string>> = {
  en: 'English',
  de: 'Deutsch',
  fr: 'Français',
  es: 'Español',
  it: 'Italiano',
  nl: 'Nederlands',
  pt: 'Português',
  pl: 'Polski',
};

export const languages = Object.keys(languageNames) as readonly Language[];

/** The known language of a BCP 47 tag (`de-AT` is German); undefined when there is none. */
export function languageOf(tag: string): Language | undefined {
  const [primary] = tag.toLowerCase().split(/[-_]/u);
  return languages.find((each) => each === primary);
}
