import { linearToSrgb, luminanceOfLinear, srgbToLinear } from '../colour/contrast.ts';

/** What a brand does to its photographs. Colours are `#rrggbb`; `strength` is a share, 1 leaves nothing of what the camera saw. */
export type Treatment =
  | { readonly kind: 'mono' | 'warm' | 'faded' | 'grain'; readonly strength: number }
  | { readonly kind: 'duotone' | 'halftone'; readonly strength: number; readonly dark: string; readonly light: string }
  | { readonly kind: 'tint'; readonly strength: number; readonly colour: string };

/** A colour as three channels in [0, 255]. */
export type Rgb = readonly [number, number, number];

/** Where pixels lie: those of a picture that is `scale` pixels a pixel of its cut. */
export interface Raster {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly scale: number;
}

const channels = (hex: string): Rgb => [parseInt(hex.slice(1, 3), 16), parseInt(hex.slice(3, 5), 16), parseInt(hex.slice(5, 7), 16)];
const mix = (from: number, to: number, share: number): number => from + (to - from) * share;
const clamp = (value: number): number => Math.min(255, Math.max(0, value));

/** How warm a picture gets: what each channel is multiplied by, kept about as light by the green one. */
const WARMTH: Rgb = [1.12, 1.01, 0.78];
/** How a faded print looks: blacks lifted, whites dulled, half of the colour gone. */
const FADED = { black: 46, white: 238, grey: 0.5 } as const;
/** Grains and dots in pixels of the cut, so that they are as large in every file. */
const GRAIN_PX = 2;
const GRAIN_CONTRAST = 44;
const DOT_PX = 11;
/** How sharp the edge of a dot is, in pixels of the raster. */
const DOT_EDGE_PX = 1.2;

const linear = Float64Array.from({ length: 256 }, (_, value) => srgbToLinear(value / 255));
const LIGHT_STEPS = 4096;
const lightnesses = Float64Array.from({ length: LIGHT_STEPS + 1 }, (_, step) => linearToSrgb(step / LIGHT_STEPS) * 255);
/** How light a colour looks, in [0, 255]. Tables: it is asked for with every pixel. */
const lightness = (red: number, green: number, blue: number): number => lightnesses[Math.round(luminanceOfLinear(linear[Math.round(red)] ?? 0, linear[Math.round(green)] ?? 0, linear[Math.round(blue)] ?? 0) * LIGHT_STEPS)] ?? 0;

/** What becomes of a colour, whatever lies around it. Grain leaves it; a halftone gives the colour that its dots have from afar. */
export function treatedColour(treatment: Treatment): (red: number, green: number, blue: number) => Rgb {
  const { strength } = treatment;
  const towards = (aim: (red: number, green: number, blue: number) => Rgb) => (red: number, green: number, blue: number): Rgb => {
    const [r, g, b] = aim(red, green, blue);
    return [mix(red, r, strength), mix(green, g, strength), mix(blue, b, strength)];
  };
  switch (treatment.kind) {
    case 'mono':
      return towards((red, green, blue) => {
        const grey = lightness(red, green, blue);
        return [grey, grey, grey];
      });
    case 'warm':
      return towards((red, green, blue) => [clamp(red * WARMTH[0]), clamp(green * WARMTH[1]), blue * WARMTH[2]]);
    case 'faded':
      return towards((red, green, blue) => {
        const grey = lightness(red, green, blue);
        const dulled = (value: number): number => mix(FADED.black, FADED.white, mix(value, grey, FADED.grey) / 255);
        return [dulled(red), dulled(green), dulled(blue)];
      });
    case 'duotone':
    case 'halftone': {
      const [dark, light] = [channels(treatment.dark), channels(treatment.light)];
      return towards((red, green, blue) => {
        const share = lightness(red, green, blue) / 255;
        return [mix(dark[0], light[0], share), mix(dark[1], light[1], share), mix(dark[2], light[2], share)];
      });
    }
    case 'tint': {
      const [red, green, blue] = channels(treatment.colour);
      return towards((r, g, b) => [(r * red) / 255, (g * green) / 255, (b * blue) / 255]);
    }
    case 'grain':
      return (red, green, blue) => [red, green, blue];
  }
}

/** Changes pixels in place, four bytes each: they are a canvas's own. What can be seen through stays so. */
export function applyTreatment(rgba: Uint8Array | Uint8ClampedArray, treatment: Treatment, raster: Raster): void {
  if (treatment.kind === 'grain') return addGrain(rgba, treatment.strength, raster);
  if (treatment.kind === 'halftone') return printDots(rgba, treatment, raster);
  const treated = treatedColour(treatment);
  for (let index = 0; index < rgba.length; index += 4) {
    const [red, green, blue] = treated(rgba[index] ?? 0, rgba[index + 1] ?? 0, rgba[index + 2] ?? 0);
    rgba[index] = Math.round(red);
    rgba[index + 1] = Math.round(green);
    rgba[index + 2] = Math.round(blue);
  }
}

/** A number in [-1, 1] that belongs to a place, and looks as if it did not. */
function noiseAt(x: number, y: number): number {
  let hash = Math.imul(x, 0x27d4eb2d) ^ Math.imul(y, 0x165667b1);
  hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
  hash ^= hash >>> 13;
  // Two halves of the number together: most grains are faint, as in film.
  return ((hash & 0xffff) + (hash >>> 16)) / 0xffff - 1;
}

function addGrain(rgba: Uint8Array | Uint8ClampedArray, strength: number, { widthPx, heightPx, scale }: Raster): void {
  // A small picture has many grains in a pixel, which even out.
  const contrast = strength * GRAIN_CONTRAST * Math.min(1, GRAIN_PX * scale);
  for (let y = 0; y < heightPx; y += 1) {
    const row = Math.floor((y + 0.5) / scale / GRAIN_PX);
    for (let x = 0; x < widthPx; x += 1) {
      const index = (y * widthPx + x) * 4;
      const grain = noiseAt(Math.floor((x + 0.5) / scale / GRAIN_PX), row) * contrast;
      for (let channel = 0; channel < 3; channel += 1) rgba[index + channel] = clamp(Math.round((rgba[index + channel] ?? 0) + grain));
    }
  }
}

/** Dots on a screen turned by 45 degrees, as printers set the strongest ink: the darker the picture, the larger the dots. */
function printDots(rgba: Uint8Array | Uint8ClampedArray, { strength, dark, light }: Extract<Treatment, { readonly dark: string }>, { widthPx, heightPx, scale }: Raster): void {
  const [ink, paper] = [channels(dark), channels(light)];
  const turn = Math.PI / (DOT_PX * scale * Math.SQRT2);
  // Step of the screen's threshold from one pixel to the next.
  const edge = Math.max(1e-3, turn * DOT_EDGE_PX);
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const index = (y * widthPx + x) * 4;
      const [red, green, blue] = [rgba[index] ?? 0, rgba[index + 1] ?? 0, rgba[index + 2] ?? 0];
      const darkness = 1 - lightness(red, green, blue) / 255;
      const threshold = (2 + Math.cos((x + y) * turn * Math.SQRT2) + Math.cos((x - y) * turn * Math.SQRT2)) / 4;
      const cover = Math.min(1, Math.max(0, (darkness - threshold) / edge + 0.5));
      for (let channel = 0; channel < 3; channel += 1) {
        rgba[index + channel] = Math.round(mix(rgba[index + channel] ?? 0, mix(paper[channel] ?? 0, ink[channel] ?? 0, cover), strength));
      }
    }
  }
}

/** Steps of a colour table along each side: more of them are not seen. */
const TABLE_SIDE = 33;

/** What is left of a treatment in moving pictures: grain and dots that stand still over them would look like dirt. */
export function movingTreatment(treatment: Treatment | undefined): Treatment | undefined {
  if (treatment?.kind === 'grain') return undefined;
  return treatment?.kind === 'halftone' ? { ...treatment, kind: 'duotone' } : treatment;
}

/** The table of a treatment's colours in the format of `.cube` files, for programs that treat moving pictures. */
export function colourTable(treatment: Treatment): string {
  const treated = treatedColour(treatment);
  const level = (step: number): number => (step / (TABLE_SIDE - 1)) * 255;
  const rows = [`LUT_3D_SIZE ${TABLE_SIDE}`];
  for (let blue = 0; blue < TABLE_SIDE; blue += 1) for (let green = 0; green < TABLE_SIDE; green += 1) for (let red = 0; red < TABLE_SIDE; red += 1) rows.push(treated(level(red), level(green), level(blue)).map((value) => (value / 255).toFixed(5)).join(' '));
  return `${rows.join('\n')}\n`;
}

/** Luminances that can be seen where a picture had these, at worst. */
export function treatedLuminances({ least, most }: { readonly least: number; readonly most: number }, treatment: Treatment): { readonly least: number; readonly most: number } {
  const treated = treatedColour(treatment);
  const level = (luminance: number): number => Math.min(255, Math.max(0, linearToSrgb(luminance) * 255));
  const of = (red: number, green: number, blue: number): number => luminanceOfLinear(srgbToLinear(clamp(red) / 255), srgbToLinear(clamp(green) / 255), srgbToLinear(clamp(blue) / 255));
  const grey = (luminance: number, more = 0): number => {
    const [red, green, blue] = treated(level(luminance), level(luminance), level(luminance));
    return of(red + more, green + more, blue + more);
  };
  if (treatment.kind === 'grain') return { least: grey(least, -treatment.strength * GRAIN_CONTRAST), most: grey(most, treatment.strength * GRAIN_CONTRAST) };
  if (treatment.kind !== 'halftone') return { least: Math.min(grey(least), grey(most)), most: Math.max(grey(least), grey(most)) };
  // Between dots there is bare paper, and within them full ink.
  const printed = (luminance: number, hex: string): number => {
    const [red, green, blue] = channels(hex).map((value) => mix(level(luminance), value, treatment.strength));
    return of(red ?? 0, green ?? 0, blue ?? 0);
  };
  const all = [printed(least, treatment.dark), printed(most, treatment.dark), printed(least, treatment.light), printed(most, treatment.light)];
  return { least: Math.min(...all), most: Math.max(...all) };
}
