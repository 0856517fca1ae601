import { converter } from 'culori';
import type { BrandBook } from '../brand-book.ts';

const toRgb = converter('rgb');

/**
 * The brand's colours as a GIMP palette: a header, then red, green, blue and a name a line.
 * @see https://developer.gimp.org/core/standards/gpl/
 */
export function bookToPalette(book: BrandBook, name: string): string {
  const lines = book.colours.map((colour) => {
    const rgb = toRgb(colour.hex);
    const channel = (value: number | undefined): string => String(Math.round((value ?? 0) * 255)).padStart(3, ' ');
    return `${channel(rgb?.r)} ${channel(rgb?.g)} ${channel(rgb?.b)}\t${colour.name.replace(/\s+/g, ' ')}`;
  });
  return `GIMP Palette\nName: ${name.replace(/\s+/g, ' ')}\nColumns: ${Math.min(8, lines.length)}\n#\n${lines.join('\n')}\n`;
}

/** Colours of a GIMP palette; null when the text is none. */
export function readPalette(text: string): readonly { readonly name: string; readonly hex: string }[] | null {
  if (!text.startsWith('GIMP Palette')) return null;
  return text.split('\n').flatMap((line) => {
    const match = /^(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s(.*))?$/.exec(line.trim());
    const channels = match?.slice(1, 4).map(Number) ?? [];
    if (channels.length !== 3 || channels.some((value) => value > 255)) return [];
    const hex = `#${channels.map((value) => value.toString(16).padStart(2, '0')).join('')}`;
    return [{ name: match?.[4]?.trim() || hex, hex }];
  });
}
