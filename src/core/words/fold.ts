import { graphemesOf } from './graphemes.ts';

/**
 * What a network shows of a caption before a reader asks for more.
 * @param after user-perceived characters that are shown; null shows all
 */
export function foldCaption(text: string, after: number | null): { readonly shown: string; readonly folded: boolean } {
  if (after === null) return { shown: text, folded: false };
  let count = 0;
  for (const { index } of graphemesOf(text)) {
    if (count === after) return { shown: text.slice(0, index), folded: true };
    count += 1;
  }
  return { shown: text, folded: false };
}
