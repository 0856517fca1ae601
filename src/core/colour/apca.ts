/**
 * Perceived lightness contrast of text on a ground (APCA, W3 version 0.1.9), of opaque sRGB colours.
 * @param text `#rrggbb`
 * @param ground `#rrggbb`
 * @returns Lc in about [-108, 106]: positive for dark text on light, negative for light on dark, 0 below perception
 * @see https://github.com/Myndex/SAPC-APCA
 */
export function apcaContrast(text: string, ground: string): number {
  const [textY, groundY] = [softClampBlack(screenLuminance(text)), softClampBlack(screenLuminance(ground))];
  if (Math.abs(groundY - textY) < 0.0005) return 0;
  const isDarkOnLight = groundY > textY;
  const contrast = isDarkOnLight ? (groundY ** 0.56 - textY ** 0.57) * 1.14 : (groundY ** 0.65 - textY ** 0.62) * 1.14;
  if (Math.abs(contrast) < 0.1) return 0;
  return (isDarkOnLight ? contrast - 0.027 : contrast + 0.027) * 100;
}

/** Luminance as APCA takes it: a plain power curve and its own weights. */
function screenLuminance(hex: string): number {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!match) throw new RangeError(`Colour '${hex}': expected #rrggbb`);
  const weights = [0.2126729, 0.7151522, 0.072175];
  return match.slice(1).reduce((sum, part, index) => sum + (weights[index] ?? 0) * (parseInt(part, 16) / 255) ** 2.4, 0);
}

function softClampBlack(luminance: number): number {
  return luminance > 0.022 ? luminance : luminance + (0.022 - luminance) ** 1.414;
}
