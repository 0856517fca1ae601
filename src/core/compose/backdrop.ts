import { contrastOfLuminances, relativeLuminance } from '../colour/contrast.ts';
import { luminanceBehind, type CropWindow } from '../crop/crop-window.ts';
import type { PictureFacts } from '../crop/picture-facts.ts';
import { toneShare } from '../scene/picture-looks.ts';
import type { Tone } from '../scene/scene.ts';
import { treatedLuminances, type Treatment } from '../scene/treatment.ts';
import { boxContains, intersectBoxes, type Box } from '../geometry/box.ts';

/** Something already painted: a flat colour or a part of a picture. */
export type Layer =
  | { readonly kind: 'flat'; readonly box: Box; readonly luminance: number }
  | { readonly kind: 'picture'; readonly box: Box; readonly facts: PictureFacts; readonly window: CropWindow; readonly tone?: Tone | undefined; readonly treatment?: Treatment | undefined }
  | ({ readonly kind: 'veil'; readonly luminance: number } & Veiling);

/** Where a thin colour lies over what is below, and how much of it the colour hides in a region: at least and at most, in [0, 1]. */
export interface Veiling {
  readonly box: Box;
  readonly sharesIn: (region: Box) => readonly [least: number, most: number];
}

/** A colour that is equally thin in all of a box, but for an opening in which it hides less, or nothing. */
export function evenVeil(box: Box, share: number, opening?: Box): Veiling {
  const isEvenIn = (region: Box): boolean => boxContains(box, region, 1) && !(opening && intersectBoxes(opening, region));
  return { box, sharesIn: (region) => [isEvenIn(region) ? share : 0, share] };
}

export interface LuminanceRange {
  readonly least: number;
  readonly most: number;
}

/** The layers of a cut so far, asked what lies behind a region. */
export class Backdrop {
  readonly #layers: Layer[] = [];

  add(layer: Layer): void {
    this.#layers.push(layer);
  }

  addFlat(box: Box, colour: string): void {
    this.add({ kind: 'flat', box, luminance: relativeLuminance(colour) });
  }

  addVeil(colour: string, veiling: Veiling): void {
    this.add({ kind: 'veil', luminance: relativeLuminance(colour), ...veiling });
  }

  /** Luminances that show in a region: from the top layer down to the first that covers it whole. */
  behind(region: Box): LuminanceRange {
    let [least, most] = [1, 0];
    const veils: { readonly luminance: number; readonly shares: readonly [number, number] }[] = [];
    for (const layer of [...this.#layers].reverse()) {
      const common = intersectBoxes(layer.box, region);
      if (!common) continue;
      if (layer.kind === 'veil') {
        veils.unshift({ luminance: layer.luminance, shares: layer.sharesIn(region) });
        continue;
      }
      const seen = veils.reduce(below, luminanceOf(layer, common));
      [least, most] = [Math.min(least, seen.least), Math.max(most, seen.most)];
      if (boxContains(layer.box, region, 1)) break;
    }
    return least <= most ? { least, most } : { least: 0, most: 1 };
  }

  /** The mean luminance that shows in a region: of what lies on top there, below thin colours. */
  typicalBehind(region: Box): number | null {
    const at = this.#layers.findLastIndex((layer) => layer.kind !== 'veil' && boxContains(layer.box, region, 1));
    const layer = this.#layers[at];
    if (!layer || layer.kind === 'veil') return null;
    const own = layer.kind === 'flat' ? layer.luminance : meanOf(layer, region);
    return this.#layers.slice(at + 1).reduce((seen, each) => {
      if (each.kind !== 'veil' || !intersectBoxes(each.box, region)) return seen;
      const [least, most] = each.sharesIn(region);
      return veiled({ least: seen, most: seen }, { luminance: each.luminance, share: (least + most) / 2 }).least;
    }, own);
  }

  /** How much of the topmost picture in a region is hidden by what lies over it, in [0, 1]. */
  hiddenIn(region: Box): number {
    let seen = 1;
    for (const layer of [...this.#layers].reverse()) {
      if (!intersectBoxes(layer.box, region)) continue;
      if (layer.kind === 'picture') return 1 - seen;
      if (layer.kind === 'flat') return 1;
      seen *= 1 - layer.sharesIn(region)[0];
    }
    return 1;
  }

  /** Mean luminance of the topmost picture, all of it, or flat colour in a region; null where there is none. It is the same in all cuts of a picture. */
  meanBehind(region: Box): number | null {
    const top = this.#layers.findLast((layer): layer is Exclude<Layer, { kind: 'veil' }> => layer.kind !== 'veil' && intersectBoxes(layer.box, region) !== null);
    if (!top || top.kind === 'flat') return top?.luminance ?? null;
    const { meanLuminance } = top.facts;
    return meanLuminance.reduce((sum, each) => sum + each, 0) / Math.max(1, meanLuminance.length) / 255;
  }
}

/** A thin colour over something: how much of it is hidden, in [0, 1]. */
interface Veil {
  readonly luminance: number;
  readonly share: number;
}

/** Mixes luminances with a veil above them, by perceived lightness as canvases do. */
export function veiled({ least, most }: LuminanceRange, { luminance, share }: Veil): LuminanceRange {
  const mixed = (below: number): number => (below ** (1 / GAMMA) * (1 - share) + luminance ** (1 / GAMMA) * share) ** GAMMA;
  return { least: mixed(least), most: mixed(most) };
}

/** Luminances below a veil: where it is thinner in a part of the region, the range holds both. */
function below(range: LuminanceRange, { luminance, shares: [thin, thick] }: { readonly luminance: number; readonly shares: readonly [number, number] }): LuminanceRange {
  const [a, b] = [veiled(range, { luminance, share: thin }), veiled(range, { luminance, share: thick })];
  return { least: Math.min(a.least, b.least), most: Math.max(a.most, b.most) };
}

const GAMMA = 2.2;
/** Facts come from a small picture, which averages the darkest and lightest pixels away. Add this share of the range at both ends. */
const SOFTENED_SHARE = 0.16;

type PictureLayer = Extract<Layer, { kind: 'picture' }>;

/** Mean luminance of a picture in a region, in its looks. */
function meanOf(layer: PictureLayer, region: Box): number {
  const { mean } = luminanceBehind(layer.facts, layer.window, layer.box, region);
  const { least, most } = inLooks(layer, { least: mean, most: mean });
  return (least + most) / 2;
}

/** Luminances of a layer in a region, after a duotone or the brand's treatment where the picture has one. */
function luminanceOf(layer: Exclude<Layer, { kind: 'veil' }>, region: Box): LuminanceRange {
  if (layer.kind === 'flat') return { least: layer.luminance, most: layer.luminance };
  const seen = luminanceBehind(layer.facts, layer.window, layer.box, region);
  const softened = (seen.most - seen.least) * SOFTENED_SHARE;
  return inLooks(layer, { least: Math.max(0, seen.least - softened), most: Math.min(1, seen.most + softened) });
}

/** Luminances of a picture as its duotone or the brand's treatment shows them. */
function inLooks({ tone, treatment }: PictureLayer, own: LuminanceRange): LuminanceRange {
  if (treatment) return treatedLuminances(own, treatment);
  if (!tone) return own;
  const [dark, light] = [relativeLuminance(tone.dark), relativeLuminance(tone.light)];
  const toned = (luminance: number): number => dark + (light - dark) * toneShare(luminance) ** GAMMA;
  return { least: toned(own.least), most: toned(own.most) };
}

/** The worst contrast of a colour against a range of luminances. */
export function worstContrast(colour: string, behind: LuminanceRange): number {
  const own = relativeLuminance(colour);
  if (own >= behind.least && own <= behind.most) return 1;
  return Math.min(contrastOfLuminances(own, behind.least), contrastOfLuminances(own, behind.most));
}

/** The wanted colour if it stands out enough, else whichever candidate stands out most. */
export function chooseInk(wanted: string, candidates: readonly string[], behind: LuminanceRange, needed: number): { colour: string; ratio: number } {
  const rated = [wanted, ...candidates].map((colour) => ({ colour, ratio: worstContrast(colour, behind) }));
  const first = rated[0] ?? { colour: wanted, ratio: 1 };
  if (first.ratio >= needed) return first;
  return rated.reduce((best, each) => (each.ratio > best.ratio ? each : best));
}
