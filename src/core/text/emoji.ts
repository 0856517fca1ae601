import { graphemesOf } from '../words/graphemes.ts';
/** The typeface key of glyphs that are drawn in colour; their ids count the emoji that a typesetter holds. */
export const EMOJI_FONT = 'emoji';

/** How an emoji sits on a line, in em: a square a little larger than the capitals, slightly below the baseline. */
export const EMOJI_METRICS = { sizeEm: 1.1, advanceEm: 1.18, descentEm: 0.2 } as const;

/** One user-perceived character that is shown as a picture: by nature, by a variation selector, a flag or a keycap. */
const EMOJI = /^(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}(?:\u{fe0f}|\p{Emoji_Modifier}|\u{200d})|\p{Regional_Indicator}{2}|[0-9#*]\u{fe0f}?\u{20e3})/u;

/** An emoji of a text: its UTF-16 offsets and the code of its picture. */
export interface EmojiAt {
  readonly start: number;
  readonly end: number;
  readonly code: string;
}

/** Every emoji of a text, in order. */
export function findEmoji(text: string): readonly EmojiAt[] {
  const found: EmojiAt[] = [];
  // Most texts have none, and segmenting costs more than looking.
  if (!/\p{Extended_Pictographic}|\p{Regional_Indicator}|\u{20e3}/u.test(text)) return found;
  for (const { segment, index } of graphemesOf(text)) {
    if (EMOJI.test(segment)) found.push({ start: index, end: index + segment.length, code: emojiCode(segment) });
  }
  return found;
}

/** The code of an emoji's picture: its code points in hex, joined by hyphens, without variation selectors. */
export function emojiCode(emoji: string): string {
  return [...emoji]
    .map((character) => (character.codePointAt(0) ?? 0).toString(16))
    .filter((code) => code !== 'fe0f')
    .join('-');
}
