import { useQuery } from '@tanstack/react-query';
import { asWritten, loadSampleWords, type SampleWords } from '../../core/template/samples/sample-words.ts';
import type { Language } from '../../core/words/language.ts';

/** Samples of templates in a brand's language; null until they are there. Without a language, and where they do not come, they stay English. */
export function useSampleWords(language: Language | undefined): SampleWords | null {
  const known = language ?? 'en';
  const words = useQuery({ queryKey: ['sample-words', known], queryFn: () => loadSampleWords(known), enabled: known !== 'en', staleTime: Infinity });
  return known === 'en' || words.isError ? asWritten : (words.data ?? null);
}
