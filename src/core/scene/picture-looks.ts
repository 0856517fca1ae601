import { luminanceOfLinear, srgbToLinear } from '../colour/contrast.ts';
import { pictureRaster, type PictureNode, type Tone } from './scene.ts';

/** What masking uses of a 2D canvas. */
export interface MaskContext<Path> {
  globalCompositeOperation: unknown;
  fillStyle: unknown;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  fill(path: Path): void;
}

/**
 * Keeps of a painted picture only what lies inside its node's mask. A layer of its own is masked, as clipping is not
 * smoothed everywhere.
 * @param context the canvas that holds the picture at the pixels it fills
 */
export function maskPicture<Path>(context: MaskContext<Path>, node: PictureNode, scale: number, path: (data: string) => Path): void {
  if (node.mask === undefined) return;
  const raster = pictureRaster(node, scale);
  context.globalCompositeOperation = 'destination-in';
  context.fillStyle = '#000000';
  context.setTransform(scale, 0, 0, scale, -raster.xPx, -raster.yPx);
  context.fill(path(node.mask));
  context.globalCompositeOperation = 'source-over';
  context.setTransform(1, 0, 0, 1, 0, 0);
}

const channels = (hex: string): readonly [number, number, number] => [parseInt(hex.slice(1, 3), 16), parseInt(hex.slice(3, 5), 16), parseInt(hex.slice(5, 7), 16)];

/** How far from the dark to the light colour a luminance lies, in [0, 1]: by perceived lightness, not by light. */
export function toneShare(luminance: number): number {
  return Math.min(1, Math.max(0, luminance)) ** (1 / 2.2);
}

/** Replaces every pixel by its place between two colours; alpha stays. Changes `rgba` in place: it is the canvas's own. */
export function applyTone(rgba: Uint8Array | Uint8ClampedArray, tone: Tone): void {
  const [dark, light] = [channels(tone.dark), channels(tone.light)];
  const linear = Float64Array.from({ length: 256 }, (_, value) => srgbToLinear(value / 255));
  for (let index = 0; index < rgba.length; index += 4) {
    const luminance = luminanceOfLinear(linear[rgba[index] ?? 0] ?? 0, linear[rgba[index + 1] ?? 0] ?? 0, linear[rgba[index + 2] ?? 0] ?? 0);
    const share = toneShare(luminance);
    for (let channel = 0; channel < 3; channel += 1) rgba[index + channel] = Math.round((dark[channel] ?? 0) + ((light[channel] ?? 0) - (dark[channel] ?? 0)) * share);
  }
}
