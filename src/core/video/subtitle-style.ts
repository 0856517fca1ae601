import { differenceEuclidean } from 'culori';
import { resolveScheme, type BrandBook, type SubtitleLook } from '../brand/brand-book.ts';
import { contrastRatio, relativeLuminance } from '../colour/contrast.ts';
import type { GlyphsNode, Scene, SceneGlyph, SceneNode } from '../scene/scene.ts';
import type { Template } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { subtitleTemplates } from './subtitle-template.ts';

/** How the subtitles of a brand are drawn. */
export interface SubtitleStyle {
  readonly template: Template;
  /** Colours of letters that stand on the picture itself; null where a field lies behind them. */
  readonly bare: { readonly ink: string; readonly edge: string } | null;
  /** How the word that is spoken is told from the others; null where it is not. */
  readonly said: SaidWord | null;
}

/** In a colour of its own, or in the colours of the line turned round: its letters as the ground, a plate as the other letters. */
export type SaidWord = { readonly kind: 'colour'; readonly colour: string } | { readonly kind: 'plate'; readonly plate: string; readonly ink: string };

/** Contrast of a coloured word with what is behind it: that of words in general. */
const MIN_CONTRAST = 4.5;
/** Distance in OKLab from which a coloured word is seen among the others. */
const MIN_DIFFERENCE = 0.12;
/** Width of the edge around bare letters, in em. */
const EDGE_EM = 0.18;

const difference = differenceEuclidean('oklab');

export function subtitleStyle(book: BrandBook): SubtitleStyle {
  const look: SubtitleLook = book.video?.subtitles ?? 'band';
  const template = subtitleTemplates[look];
  const scheme = resolveScheme(book, book.schemes.find(({ key }) => key === template.scheme)?.key ?? book.schemes[0]?.key ?? '');
  const [light, dark] = relativeLuminance(scheme.ink) > relativeLuminance(scheme.ground) ? [scheme.ink, scheme.ground] : [scheme.ground, scheme.ink];
  const bare = look === 'edge' ? { ink: light, edge: dark } : null;
  return { template, bare, said: book.video?.coloursSaidWord ? saidWord(book, look, bare ? { ink: bare.ink, ground: bare.edge } : scheme) : null };
}

function saidWord(book: BrandBook, look: SubtitleLook, { ink, ground }: { readonly ink: string; readonly ground: string }): SaidWord | null {
  const colour = look === 'label' ? null : standingOut(book, ink, ground);
  if (colour !== null) return { kind: 'colour', colour };
  return look === 'edge' ? null : { kind: 'plate', plate: ink, ink: ground };
}

/** The colour of the book that is least like the other words, of those that can be read. */
function standingOut(book: BrandBook, ink: string, behind: string): string | null {
  const passing = book.colours.map(({ hex }) => ({ hex, apart: difference(hex, ink) })).filter(({ hex, apart }) => apart >= MIN_DIFFERENCE && contrastRatio(hex, behind) >= MIN_CONTRAST);
  return passing.sort((a, b) => b.apart - a.apart)[0]?.hex ?? null;
}

/** Room between a word and the edge of its plate, in em, and how far the plate reaches above and below the baseline. */
const PLATE_EM = { side: 0.12, above: 0.92, below: 0.3 } as const;

function plateOf(node: GlyphsNode, glyphs: readonly SceneGlyph[], colour: string, typesetter: Reaches): SceneNode {
  const { sizePx } = node;
  const reaches = glyphs.map(({ fontKey, id, xPx }) => {
    const { leftEm, rightEm } = typesetter.glyphReach(fontKey, id);
    return { left: xPx + leftEm * sizePx, right: xPx + rightEm * sizePx };
  });
  const [left, right] = [Math.min(...reaches.map((each) => each.left)) - PLATE_EM.side * sizePx, Math.max(...reaches.map((each) => each.right)) + PLATE_EM.side * sizePx];
  const tenths = (value: number): number => Math.round(value * 10) / 10;
  const baseline = Math.max(...glyphs.map(({ yPx }) => yPx));
  const [top, bottom] = [baseline - PLATE_EM.above * sizePx, baseline + PLATE_EM.below * sizePx];
  return { kind: 'fill', path: `M${tenths(left)} ${tenths(top)}H${tenths(right)}V${tenths(bottom)}H${tenths(left)}Z`, colour, alpha: 1 };
}

/** Knows how far the ink of a glyph reaches. */
type Reaches = Pick<Typesetter, 'glyphReach'>;

/**
 * A composed line of subtitles as it is shown.
 * @param word the word that is spoken, counted from 0; null where none is coloured
 */
export function styledSubtitle(scene: Scene, { bare, said }: Pick<SubtitleStyle, 'bare' | 'said'>, word: number | null, typesetter: Reaches): Scene {
  const nodes = scene.nodes.flatMap((node): readonly SceneNode[] => {
    if (node.kind !== 'glyphs' || node.slot === undefined) return [node];
    const plain = bare ? { ...node, colour: bare.ink, edge: { colour: bare.edge, widthPx: EDGE_EM * node.sizePx } } : node;
    if (said === null || word === null) return [plain];
    const others = node.glyphs.filter((glyph) => glyph.word !== word);
    // A hyphenated word stands on two lines and gets a plate on each.
    const lines = [...new Set(node.glyphs.filter((glyph) => glyph.word === word).map(({ line }) => line))].map((line) => node.glyphs.filter((glyph) => glyph.word === word && glyph.line === line));
    return [
      ...(others.length > 0 ? [{ ...plain, glyphs: others }] : []),
      ...lines.flatMap((glyphs): readonly SceneNode[] => [...(said.kind === 'plate' ? [plateOf(node, glyphs, said.plate, typesetter)] : []), { ...plain, colour: said.kind === 'plate' ? said.ink : said.colour, glyphs }]),
    ];
  });
  return { ...scene, nodes };
}
