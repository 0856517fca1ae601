import transliterate from '@sindresorhus/transliterate';
import { clampChroma, converter, formatHex } from 'culori';
import { colourWord } from '../../colour/colour-word.ts';
import { contrastRatio, MIN_LARGE_CONTRAST, MIN_TEXT_CONTRAST, relativeLuminance } from '../../colour/contrast.ts';
import { nearestPassing } from '../../colour/nearest-passing.ts';
import { outerColours, withMainColour } from '../mark-parts.ts';
import type { BrandBook, BrandMark, TypeRole } from '../brand-book.ts';
import type { Language } from '../../words/language.ts';
import { plainBook } from '../plain-book.ts';

/** What a person has picked to begin a brand with. */
export interface BookPicks {
  readonly colours: readonly { readonly name: string; readonly hex: string }[];
  /** Keys of typefaces for what is seen first and for what is read; null keeps the plain one. */
  readonly displayFont: string | null;
  readonly textFont: string | null;
  readonly marks: readonly BrandMark[];
  readonly site: string;
  readonly handle: string;
  readonly guidance: string;
  readonly language: Language | null;
}

const toOklch = converter('oklch');
const PAPER = '#FAFAF7';
const NIGHT = '#1F2328';
/** A ground for dark text is at least this light, one for light text at most this dark. */
const LIGHT_FROM = 0.6;
const DARK_TO = 0.12;

type Colour = BrandBook['colours'][number];

/**
 * A whole brand book from a handful of picks: colours get roles in a light, a dark and a bold scheme so that ink can be read
 * on ground and surface, and accents are seen. What the picks lack is taken from the plain book.
 */
export function draftBook(picks: BookPicks): BrandBook {
  const palette = new Palette(picks.colours);
  const lightGround = palette.pick((hex) => relativeLuminance(hex) >= LIGHT_FROM, (hex) => relativeLuminance(hex) - chroma(hex) * 2) ?? palette.add('Paper', PAPER);
  const darkGround = palette.pick((hex) => relativeLuminance(hex) <= DARK_TO, (hex) => -relativeLuminance(hex) + chroma(hex) * 0.2) ?? palette.add('Night', NIGHT);
  const loud = palette.pick((hex) => chroma(hex) > 0.06, (hex) => chroma(hex)) ?? palette.add('Spark', '#C2452D');
  const second = palette.pick((hex) => chroma(hex) > 0.05 && hex !== loud.hex && hex !== darkGround.hex, (hex) => chroma(hex)) ?? loud;
  const lightSurface = palette.pick((hex) => relativeLuminance(hex) >= 0.45 && hex !== lightGround.hex, (hex) => relativeLuminance(hex)) ?? palette.add('Shade', shade(lightGround.hex, -0.07));
  const darkSurface = palette.add(`${darkGround.name}, lifted`, shade(darkGround.hex, 0.08));
  const inkOn = (...grounds: readonly string[]): Colour => {
    const candidates = [darkGround, lightGround];
    const fits = candidates.find((colour) => grounds.every((ground) => contrastRatio(colour.hex, ground) >= MIN_TEXT_CONTRAST));
    if (fits) return fits;
    const best = candidates.reduce((before, each) => (weakest(each.hex, grounds) > weakest(before.hex, grounds) ? each : before));
    const passing = nearestPassing(best.hex, [...grounds], MIN_TEXT_CONTRAST);
    return passing === null ? best : palette.add(`${best.name}, tuned`, passing);
  };
  const accentOn = (wanted: Colour, ...grounds: readonly string[]): Colour => {
    // Calls stand on the accent in ink or ground: one of them can be read there.
    const isReadable = (hex: string): boolean => [inkOn(...grounds).hex, ...grounds].some((text) => contrastRatio(text, hex) >= MIN_TEXT_CONTRAST);
    const seen = nearestPassing(wanted.hex, [...grounds], MIN_LARGE_CONTRAST);
    const hex = seen !== null && !isReadable(seen) ? (nearestPassing(wanted.hex, [...grounds], MIN_TEXT_CONTRAST) ?? seen) : seen;
    return hex === null ? inkOn(...grounds) : palette.add(hex === wanted.hex ? wanted.name : `${wanted.name}, tuned`, hex);
  };
  const boldGround = loud;
  const boldInk = inkOn(boldGround.hex);
  const boldSurface = [lightGround, darkGround].find((colour) => contrastRatio(boldInk.hex, colour.hex) >= MIN_TEXT_CONTRAST) ?? lightGround;
  const scheme = (key: string, name: string, ground: Colour, surface: Colour, ink: Colour, accent: Colour) => ({ key, name, ground: ground.key, surface: surface.key, ink: ink.key, accent: accent.key });
  const schemes = [
    scheme('light', 'Light', lightGround, lightSurface, inkOn(lightGround.hex, lightSurface.hex), accentOn(loud, lightGround.hex, lightSurface.hex)),
    scheme('dark', 'Dark', darkGround, darkSurface, inkOn(darkGround.hex, darkSurface.hex), accentOn(loud, darkGround.hex, darkSurface.hex)),
    scheme('bold', 'Bold', boldGround, boldSurface, boldInk, accentOn(second.hex === boldGround.hex ? boldInk : second, boldGround.hex)),
  ];
  return {
    ...plainBook,
    ...(picks.language === null ? {} : { language: picks.language }),
    colours: [...palette.colours],
    schemes,
    type: {
      display: withFont(plainBook.type.display, picks.displayFont),
      heading: withFont(plainBook.type.heading, picks.displayFont),
      text: withFont(plainBook.type.text, picks.textFont),
      label: withFont(plainBook.type.label, picks.textFont),
    },
    marks: picks.marks.length > 0 ? withVariants(picks.marks, schemes.map((each) => ({ ground: hexOf(palette, each.ground), ink: hexOf(palette, each.ink) }))) : plainBook.marks,
    facts: plainBook.facts.map((fact) => (fact.key === 'site' ? { ...fact, text: picks.site } : fact.key === 'handle' ? { ...fact, text: picks.handle } : fact)),
    voice: { ...plainBook.voice, guidance: picks.guidance, link: picks.site === '' ? '' : `https://${picks.site}` },
  };
}

function hexOf(palette: Palette, key: string): string {
  return palette.colours.find((colour) => colour.key === key)?.hex ?? PAPER;
}

/** Marks with, for every ground on which none of them shows, one whose main colour is the ink of that ground. */
function withVariants(marks: readonly BrandMark[], grounds: readonly { readonly ground: string; readonly ink: string }[]): BrandMark[] {
  const all = [...marks];
  const shows = (ground: string): boolean => all.some((mark) => contrastRatio(outerColours(mark)[0] ?? ground, ground) >= MIN_LARGE_CONTRAST);
  for (const { ground, ink } of grounds) {
    const [first] = marks;
    if (shows(ground) || first?.kind !== 'vector') continue;
    all.push({ ...withMainColour(first, ink), key: `${first.key}-${all.length + 1}`, for: relativeLuminance(ground) < 0.3 ? 'dark' : 'light' });
  }
  return all;
}

function withFont(role: TypeRole, font: string | null): TypeRole {
  return font === null ? role : { ...role, font };
}

function weakest(colour: string, grounds: readonly string[]): number {
  return Math.min(...grounds.map((ground) => contrastRatio(colour, ground)));
}

function chroma(hex: string): number {
  return toOklch(hex)?.c ?? 0;
}

/** The same hue, lighter or darker by a step of OKLCH lightness. */
function shade(hex: string, by: number): string {
  const colour = toOklch(hex);
  return colour ? formatHex(clampChroma({ ...colour, l: Math.min(1, Math.max(0, colour.l + by)) }, 'oklch')) : hex;
}

/** The colours of a book in the making, each with a key of its own. */
class Palette {
  readonly colours: Colour[] = [];

  constructor(picked: BookPicks['colours']) {
    for (const { name, hex } of picked) this.add(name, hex);
  }

  /** The colour if it is there, else it joins. */
  add(name: string, hex: string): Colour {
    const known = this.colours.find((each) => each.hex.toLowerCase() === hex.toLowerCase());
    if (known) return known;
    const colour = { key: this.#freeKey(name || colourWord(hex)), name: name || colourWord(hex), hex };
    this.colours.push(colour);
    return colour;
  }

  pick(fits: (hex: string) => boolean, rate: (hex: string) => number): Colour | null {
    const fitting = this.colours.filter((colour) => fits(colour.hex));
    return fitting.length === 0 ? null : fitting.reduce((best, each) => (rate(each.hex) > rate(best.hex) ? each : best));
  }

  #freeKey(name: string): string {
    const base = keyFrom(name, 'colour');
    for (let count = 1; ; count += 1) {
      const key = count === 1 ? base : `${base}-${count}`;
      if (!this.colours.some((colour) => colour.key === key)) return key;
    }
  }
}

/** A name as a key: small letters, digits and hyphens, a letter first. */
export function keyFrom(name: string, otherwise: string): string {
  const plain = transliterate(name).normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^[^a-z]+|(?<!-)-+$/g, '');
  return plain.slice(0, 40).replace(/(?<!-)-+$/, '') || otherwise;
}
