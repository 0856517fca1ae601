import { converter } from 'culori';

const toOklch = converter('oklch');

/** Hues of OKLCH by where each begins, in degrees. */
const HUES: readonly (readonly [number, string])[] = [
  [0, 'pink'],
  [15, 'red'],
  [45, 'orange'],
  [75, 'yellow'],
  [115, 'lime'],
  [135, 'green'],
  [170, 'teal'],
  [210, 'sky'],
  [245, 'blue'],
  [280, 'violet'],
  [320, 'purple'],
  [345, 'pink'],
];
const GREY_BELOW = 0.03;

/** A plain word for a colour, to name it by until somebody knows better: “Deep blue”, “Pale grey”. */
export function colourWord(hex: string): string {
  const { l = 0, c = 0, h = 0 } = toOklch(hex) ?? {};
  if (c < GREY_BELOW) return l > 0.97 ? 'White' : l > 0.88 ? 'Paper' : l < 0.22 ? 'Black' : l < 0.5 ? 'Dark grey' : 'Grey';
  // Dark reds and oranges have names of their own.
  if (l < 0.5 && (h < 20 || h >= 345)) return c > 0.05 ? 'Wine' : 'Dark brown';
  if (l < 0.55 && h >= 20 && h < 95) return l < 0.3 ? 'Dark brown' : 'Brown';
  const hue = HUES.findLast(([from]) => h >= from)?.[1] ?? 'pink';
  const word = l < 0.38 ? `deep ${hue}` : l > 0.86 ? `pale ${hue}` : hue;
  return word.charAt(0).toUpperCase() + word.slice(1);
}
