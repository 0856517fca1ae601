import type { Fade } from '../scene/fade.ts';
import { withShadow } from '../scene/shadow.ts';
import type { GlyphsNode, PictureNode, Scene, SceneNode } from '../scene/scene.ts';
import { escapeXml } from './picture-metadata.ts';

/** What a drawing needs from outside: outlines of glyphs, and pictures as data addresses, cropped and toned. */
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
  const definitions = new Map<string, string>();
  const body = scene.nodes.map((node) => drawNode(node, assets, definitions)).join('\n');
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${widthPx} ${heightPx}" role="img">`,
    `<title>${escapeXml(about.title)}</title>`,
    `<desc>${escapeXml(about.description)}</desc>`,
    definitions.size === 0 ? '' : `<defs>${[...definitions.values()].join('')}</defs>`,
    body,
    '</svg>\n',
  ]
    .filter((line) => line !== '')
    .join('\n');
}

/** @param definitions what nodes refer to, by id; drawing adds to it */
function drawNode(node: SceneNode, assets: SvgAssets, definitions: Map<string, string>): string {
  switch (node.kind) {
    case 'fill':
      return `<path d="${node.path}" fill="${node.fade ? gradient(node.fade, node.colour, definitions) : node.colour}"${opacity(node.alpha)}/>`;
    case 'picture': {
      // The picture of a subject with a shadow has room for it.
      const { xPx, yPx, widthPx, heightPx } = node.shadow ? withShadow(node.box, node.shadow) : node.box;
      return `<image x="${short(xPx)}" y="${short(yPx)}" width="${short(widthPx)}" height="${short(heightPx)}" preserveAspectRatio="none"${clip(node, definitions)} href="${assets.picture(node)}"/>`;
    }
    case 'glyphs':
      return drawGlyphs(node, assets, definitions);
    case 'artwork':
      return `<g transform="translate(${short(node.xPx)} ${short(node.yPx)}) scale(${short(node.scale)})">${node.paths.map((path) => `<path d="${path.d}" fill="${path.fill}"${path.evenOdd ? ' fill-rule="evenodd"' : ''}/>`).join('')}</g>`;
  }
}

/** A fade as a gradient of the drawing; the answer refers to it. */
function gradient(fade: Fade, colour: string, definitions: Map<string, string>): string {
  const id = `fade-${definitions.size}`;
  const stops = fade.stops.map(({ at, share }) => `<stop offset="${short(at)}" stop-color="${colour}" stop-opacity="${short(share)}"/>`).join('');
  const drawn =
    fade.kind === 'line'
      ? `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${short(fade.from.xPx)}" y1="${short(fade.from.yPx)}" x2="${short(fade.to.xPx)}" y2="${short(fade.to.yPx)}">${stops}</linearGradient>`
      : `<radialGradient id="${id}" gradientUnits="userSpaceOnUse" cx="${short(fade.middle.xPx)}" cy="${short(fade.middle.yPx)}" r="${short(fade.radiusPx)}">${stops}</radialGradient>`;
  definitions.set(id, drawn);
  return `url(#${id})`;
}

function clip(node: PictureNode, definitions: Map<string, string>): string {
  if (node.mask === undefined) return '';
  const id = `window-${definitions.size}`;
  definitions.set(id, `<clipPath id="${id}"><path d="${node.mask}"/></clipPath>`);
  return ` clip-path="url(#${id})"`;
}

/** Each outline is written once; a text is a row of references to them. */
function drawGlyphs(node: GlyphsNode, assets: SvgAssets, definitions: Map<string, string>): string {
  const uses = node.glyphs.map((glyph) => {
    const { path, unitsPerEm } = assets.glyph(glyph.fontKey, glyph.id);
    if (path === '') return '';
    const id = `${glyph.fontKey}-${glyph.id}`;
    definitions.set(id, `<path id="${id}" d="${path}"/>`);
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
