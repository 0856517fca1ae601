import type { Language } from '../../words/language.ts';

/** A sample of a shipped template as a brand's language has it; a text that no template ships stays as it is. */
export type SampleWords = (sample: string) => string;

/** Samples as the templates have them, in English. */
export const asWritten: SampleWords = (sample) => sample;

const fileOf: Readonly<Record<Exclude<Language, 'en'>, () => Promise<{ readonly default: Readonly<Record<string, string>> }>>> = {
  de: () => import('./de.json', { with: { type: 'json' } }),
  fr: () => import('./fr.json', { with: { type: 'json' } }),
  es: () => import('./es.json', { with: { type: 'json' } }),
  it: () => import('./it.json', { with: { type: 'json' } }),
  nl: () => import('./nl.json', { with: { type: 'json' } }),
  pt: () => import('./pt.json', { with: { type: 'json' } }),
  pl: () => import('./pl.json', { with: { type: 'json' } }),
};

/** Prices as each language writes them: the samples have pounds. */
const prices: Readonly<Record<Exclude<Language, 'en'>, string>> = { de: '$1 €', fr: '$1 €', es: '$1 €', it: '$1 €', nl: '€ $1', pt: '$1 €', pl: '$1 zł' };

/** Loads the samples of one language; each is a file of its own, for pages that show templates. */
export async function loadSampleWords(language: Language): Promise<SampleWords> {
  if (language === 'en') return asWritten;
  const { default: texts } = await fileOf[language]();
  return (sample) => texts[sample] ?? sample.replace(/^£(\d+)$/u, prices[language]);
}
