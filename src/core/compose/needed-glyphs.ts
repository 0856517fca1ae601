import type { BrandBook } from '../brand/brand-book.ts';
import type { Frame } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import { findEmoji } from '../text/emoji.ts';
import { hasLongWord } from '../text/hyphenation.ts';
import type { Language } from '../words/language.ts';
import { weekdayNames } from '../words/weekday-names.ts';
import { fontKeysFor } from '../text/font-shelf.ts';
import { fontWeight } from './set-text.ts';

/** What has to be loaded before texts can be set. */
export interface NeededGlyphs {
  readonly fontKeys: readonly string[];
  /** Codes of emoji pictures. */
  readonly emoji: readonly string[];
  /** The language whose hyphenation may be asked for; null where no word is long. */
  readonly hyphenation: Language | null;
}

/** A frame and the template that shows it. */
export interface FrameInTemplate {
  readonly template: Template;
  readonly frame: Frame;
}

/** Typefaces, emoji and hyphenation that frames need in a brand's type; hints count, as empty slots show them. */
export function neededGlyphs(book: BrandBook, contents: readonly FrameInTemplate[]): NeededGlyphs {
  // Opening hours stand beside the names of their days.
  const texts = new Set([...book.facts.map((fact) => fact.text), ...(book.facts.some(({ key }) => key.startsWith('hours-')) ? weekdayNames(book.language) : [])]);
  for (const { template, frame } of contents) {
    for (const value of Object.values(frame.slots)) if (value.kind === 'text') texts.add(value.text);
    for (const slot of template.slots) texts.add(slot.hint);
  }
  const all = [...texts].join('\n');
  const fontKeys = Object.values(book.type).flatMap((role) => fontKeysFor(all, role.font, fontWeight(book, role.font)));
  return { fontKeys: [...new Set(fontKeys)], emoji: [...new Set(findEmoji(all).map((each) => each.code))], hyphenation: book.language !== undefined && hasLongWord(all) ? book.language : null };
}
