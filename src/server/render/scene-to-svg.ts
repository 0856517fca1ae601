import { createCanvas, type Canvas } from '@napi-rs/canvas';
import sharp from 'sharp';
import type { PictureMetadata } from '../../core/export/picture-metadata.ts';
import { toSvg } from '../../core/export/to-svg.ts';
import { pictureRaster, type PictureNode, type Scene } from '../../core/scene/scene.ts';
import { drawShadowed, withShadow, type Shadow } from '../../core/scene/shadow.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';
import { rasterise, type PictureSource } from './canvas-painter.ts';

/** A scene with what its drawing needs. */
export interface VectorInput {
  readonly scene: Scene;
  readonly typesetter: Typesetter;
  readonly sources: ReadonlyMap<string, PictureSource>;
  readonly metadata: PictureMetadata;
}

/** Photographs in vector files have twice the pixels of the cut, as vectors are made to be enlarged. */
export const VECTOR_PICTURE_SCALE = 2;

/** Quality of a photograph's JPEG in a vector file: at twice the pixels, its traces are too small to see. */
const VECTOR_PICTURE_QUALITY = 82;

/** A picture node as a file of its own, with room for its shadow: JPEG, or PNG where parts of it can be seen through. Its mask is left to the drawing, which clips it as a vector. */
export async function encodePictureNode(node: PictureNode, source: PictureSource): Promise<{ readonly bytes: Buffer; readonly mime: 'image/jpeg' | 'image/png' }> {
  const bare = await rasterise({ ...node, mask: undefined }, source, VECTOR_PICTURE_SCALE);
  const canvas = node.shadow ? shadowed(bare, node, node.shadow) : bare;
  const { width: widthPx, height: heightPx } = canvas;
  const pixels = canvas.data();
  const image = sharp(pixels, { raw: { width: widthPx, height: heightPx, channels: 4 } });
  const isOpaque = (await image.clone().stats()).isOpaque;
  return isOpaque ? { bytes: await image.removeAlpha().jpeg({ quality: VECTOR_PICTURE_QUALITY }).toBuffer(), mime: 'image/jpeg' } : { bytes: await image.png({ compressionLevel: 6 }).toBuffer(), mime: 'image/png' };
}

/** A subject with its shadow, on a canvas that has room for both. */
function shadowed(subject: Canvas, node: PictureNode, shadow: Shadow): Canvas {
  const inner = pictureRaster(node, VECTOR_PICTURE_SCALE);
  const outer = pictureRaster({ ...node, box: withShadow(node.box, shadow) }, VECTOR_PICTURE_SCALE);
  const canvas = createCanvas(outer.widthPx, outer.heightPx);
  const context = canvas.getContext('2d');
  drawShadowed(context, shadow, VECTOR_PICTURE_SCALE, () => context.drawImage(subject, inner.xPx - outer.xPx, inner.yPx - outer.yPx));
  return canvas;
}

/**
 * A scene as an SVG file, whole in itself.
 * @throws RangeError when the scene shows a picture that has no source
 */
export async function sceneToSvg({ scene, typesetter, sources, metadata }: VectorInput): Promise<Buffer> {
  const pictures = new Map<PictureNode, string>();
  for (const node of scene.nodes) {
    if (node.kind !== 'picture') continue;
    const source = sources.get(node.pictureId);
    if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
    const { bytes, mime } = await encodePictureNode(node, source);
    pictures.set(node, `data:${mime};base64,${bytes.toString('base64')}`);
  }
  const glyph = (fontKey: string, glyphId: number) => ({ path: typesetter.outline(fontKey, glyphId), unitsPerEm: typesetter.unitsPerEm(fontKey) });
  return Buffer.from(toSvg(scene, { glyph, picture: (node) => pictures.get(node) ?? '' }, { title: metadata.title, description: metadata.altText }), 'utf8');
}
