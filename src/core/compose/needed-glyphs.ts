import type { BrandBook } from '../brand/brand-book.ts';
import type { Frame } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import { findEmoji } from '../text/emoji.ts';
import { fontKeysFor } from '../text/font-shelf.ts';
import { fontWeight } from './set-text.ts';

/** What has to be loaded before texts can be set. */
export interface NeededGlyphs {
  readonly fontKeys: readonly string[];
  /** Codes of emoji pictures. */
  readonly emoji: readonly string[];
}

/** Typefaces and emoji that a frame of a template needs in a brand's type; hints count, as empty slots show them. */
export function neededGlyphs(book: BrandBook, template: Template, frame: Frame): NeededGlyphs {
  const texts = [
    ...Object.values(frame.slots).flatMap((value) => (value.kind === 'text' ? [value.text] : [])),
    ...template.slots.map((slot) => slot.hint),
    ...book.facts.map((fact) => fact.text),
  ];
  const all = texts.join('\n');
  const fontKeys = Object.values(book.type).flatMap((role) => fontKeysFor(all, role.font, fontWeight(book, role.font)));
  return { fontKeys: [...new Set(fontKeys)], emoji: [...new Set(findEmoji(all).map((each) => each.code))] };
}
