import { graphemesOf } from './graphemes.ts';

/** Room for a space and the ellipsis. */
const ELLIPSIS = 2;

/**
 * A text as a sign for the whole: all of it where it is short, else its beginning with an ellipsis. It ends behind a word, or within
 * one where no space comes in time; no character is parted.
 * @param most user-perceived characters, the ellipsis among them
 */
export function cutShort(text: string, most: number): string {
  if (text.length <= most) return text;
  let [count, end, wordEnd] = [0, 0, 0];
  for (const { segment, index } of graphemesOf(text)) {
    count += 1;
    if (count > most) return wordEnd > end / 2 ? `${text.slice(0, wordEnd)} …` : `${text.slice(0, end)}…`;
    if (/^\s+$/u.test(segment) && count <= most - ELLIPSIS + 1) wordEnd = text.slice(0, index).trimEnd().length;
    if (count <= most - ELLIPSIS) end = index + segment.length;
  }
  return text;
}
