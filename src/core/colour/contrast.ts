/**
 * Relative luminance of an opaque colour.
 * @param hex `#rrggbb`
 * @returns a value in [0, 1]
 * @throws RangeError when `hex` is not six hexadecimal digits behind a `#`
 * @see https://www.w3.org/TR/WCAG22/#dfn-relative-luminance
 */
export function relativeLuminance(hex: string): number {
  if (!/^#[0-9a-f]{6}$/i.test(hex)) throw new RangeError(`Colour '${hex}': expected #rrggbb`);
  const rgb = parseInt(hex.slice(1), 16);
  const light = (byte: number): number => LINEAR_OF_BYTE[byte & 0xff] ?? 0;
  return luminanceOfLinear(light(rgb >> 16), light(rgb >> 8), light(rgb));
}

/**
 * sRGB channel to linear light, both in [0, 1].
 * @see https://www.w3.org/TR/css-color-4/#color-conversion-code
 */
export function srgbToLinear(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

/** Linear light of each byte of an sRGB channel: pictures have many pixels and only 256 of these. */
export const LINEAR_OF_BYTE: Float64Array = Float64Array.from({ length: 256 }, (_, byte) => srgbToLinear(byte / 255));

/** Linear light to an sRGB channel, both in [0, 1]: `srgbToLinear` the other way. */
export function linearToSrgb(light: number): number {
  return light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055;
}

/** Luminance of linear sRGB channels in [0, 1]; the weights are those of sRGB's primaries. */
export function luminanceOfLinear(red: number, green: number, blue: number): number {
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/**
 * WCAG contrast ratio of two relative luminances in [0, 1].
 * @returns a ratio in [1, 21], the same for (a, b) and (b, a)
 * @see https://www.w3.org/TR/WCAG22/#dfn-contrast-ratio
 */
export function contrastOfLuminances(a: number, b: number): number {
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** WCAG contrast ratio of two opaque colours given as `#rrggbb`. */
export function contrastRatio(a: string, b: string): number {
  return contrastOfLuminances(relativeLuminance(a), relativeLuminance(b));
}

/** The least contrast of reading text, and of large text and marks (WCAG 2.2, 1.4.3 and 1.4.11). */
export const MIN_TEXT_CONTRAST = 4.5;
export const MIN_LARGE_CONTRAST = 3;
