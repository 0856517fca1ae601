import type { GlyphsNode, PictureNode, Scene, SceneNode } from '../scene/scene.ts';
import { escapeXml } from './picture-metadata.ts';

/** What a drawing needs from outside: outlines of glyphs, and pictures as data addresses, cropped, toned and masked. */
export interface SvgAssets {
  /** Outline of a glyph, y upwards, with the units of its em. */
  glyph(fontKey: string, glyphId: number): { readonly path: string; readonly unitsPerEm: number };
  picture(node: PictureNode): string;
}

/**
 * A scene as an SVG drawing. Letters are outlines, as fonts cannot differ then; the words are kept as title and description,
 * so that they can still be read out.
 */
export function toSvg(scene: Scene, assets: SvgAssets, about: { readonly title: string; readonly description: string }): string {
  const { widthPx, heightPx } = scene.size;
  const symbols = new Map<string, string>();
  const body = scene.nodes.map((node) => drawNode(node, assets, symbols)).join('\n');
  const definitions = [...symbols].map(([id, path]) => `<path id="${id}" d="${path}"/>`).join('');
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${widthPx} ${heightPx}" role="img">`,
    `<title>${escapeXml(about.title)}</title>`,
    `<desc>${escapeXml(about.description)}</desc>`,
    definitions === '' ? '' : `<defs>${definitions}</defs>`,
    body,
    '</svg>\n',
  ]
    .filter((line) => line !== '')
    .join('\n');
}

function drawNode(node: SceneNode, assets: SvgAssets, symbols: Map<string, string>): string {
  switch (node.kind) {
    case 'fill':
      return `<path d="${node.path}" fill="${node.colour}"${opacity(node.alpha)}/>`;
    case 'picture': {
      const { xPx, yPx, widthPx, heightPx } = node.box;
      return `<image x="${short(xPx)}" y="${short(yPx)}" width="${short(widthPx)}" height="${short(heightPx)}" preserveAspectRatio="none" href="${assets.picture(node)}"/>`;
    }
    case 'glyphs':
      return drawGlyphs(node, assets, symbols);
    case 'artwork':
      return `<g transform="translate(${short(node.xPx)} ${short(node.yPx)}) scale(${short(node.scale)})">${node.paths.map((path) => `<path d="${path.d}" fill="${path.fill}"${path.evenOdd ? ' fill-rule="evenodd"' : ''}/>`).join('')}</g>`;
  }
}

/** Each outline is written once; a text is a row of references to them. */
function drawGlyphs(node: GlyphsNode, assets: SvgAssets, symbols: Map<string, string>): string {
  const uses = node.glyphs.map((glyph) => {
    const { path, unitsPerEm } = assets.glyph(glyph.fontKey, glyph.id);
    if (path === '') return '';
    const id = `${glyph.fontKey}-${glyph.id}`;
    symbols.set(id, path);
    const unit = node.sizePx / unitsPerEm;
    return `<use href="#${id}" transform="matrix(${short(unit)} 0 0 ${short(-unit)} ${short(glyph.xPx)} ${short(glyph.yPx)})"/>`;
  });
  return `<g fill="${node.colour}"${opacity(node.alpha)}>${uses.join('')}</g>`;
}

function opacity(alpha: number): string {
  return alpha === 1 ? '' : ` fill-opacity="${short(alpha)}"`;
}

function short(value: number): string {
  return String(Math.round(value * 1e5) / 1e5);
}
