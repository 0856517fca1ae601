import {
  concatTransformationMatrix,
  fill,
  PDFDocument,
  PDFOperator,
  PDFOperatorNames,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setFillingColor,
  setGraphicsState,
  type PDFPage,
} from 'pdf-lib';
import { parse as parseColour } from 'culori';
import type { SceneNode } from '../../core/scene/scene.ts';
import { pathOperators } from './path-operators.ts';
import { encodePictureNode, type VectorInput } from './scene-to-svg.ts';

/** A pixel of a cut in points: 96 pixels and 72 points to the inch. */
const POINTS_PER_PIXEL = 0.75;

/**
 * Scenes as the pages of one PDF: letters, fields and marks as vectors, photographs as they are.
 * @throws RangeError when a scene shows a picture that has no source
 */
export async function scenesToPdf(inputs: readonly VectorInput[]): Promise<Buffer> {
  const document = await PDFDocument.create();
  const [first] = inputs;
  document.setTitle(first?.metadata.title ?? '');
  document.setSubject(first?.metadata.altText ?? '');
  if (first?.metadata.credit) document.setAuthor(first.metadata.credit);
  document.setCreator('Confetti');
  for (const input of inputs) {
    const { widthPx, heightPx } = input.scene.size;
    const page = document.addPage([widthPx * POINTS_PER_PIXEL, heightPx * POINTS_PER_PIXEL]);
    // From here on the page is measured as the scene is: in pixels, from the top down.
    page.pushOperators(pushGraphicsState(), concatTransformationMatrix(POINTS_PER_PIXEL, 0, 0, -POINTS_PER_PIXEL, 0, heightPx * POINTS_PER_PIXEL));
    for (const node of input.scene.nodes) await drawNode(document, page, node, input);
    page.pushOperators(popGraphicsState());
  }
  return Buffer.from(await document.save());
}

async function drawNode(document: PDFDocument, page: PDFPage, node: SceneNode, { typesetter, sources }: VectorInput): Promise<void> {
  switch (node.kind) {
    case 'fill':
      page.pushOperators(pushGraphicsState(), ...alphaState(document, page, node.alpha), colourOf(node.colour), ...pathOperators(node.path), fill(), popGraphicsState());
      return;
    case 'glyphs':
      page.pushOperators(pushGraphicsState(), ...alphaState(document, page, node.alpha), colourOf(node.colour));
      for (const glyph of node.glyphs) {
        const unit = node.sizePx / typesetter.unitsPerEm(glyph.fontKey);
        page.pushOperators(pushGraphicsState(), concatTransformationMatrix(unit, 0, 0, -unit, glyph.xPx, glyph.yPx), ...pathOperators(typesetter.outline(glyph.fontKey, glyph.id)), fill(), popGraphicsState());
      }
      page.pushOperators(popGraphicsState());
      return;
    case 'artwork':
      page.pushOperators(pushGraphicsState(), concatTransformationMatrix(node.scale, 0, 0, node.scale, node.xPx, node.yPx));
      for (const path of node.paths) page.pushOperators(colourOf(path.fill), ...pathOperators(path.d), path.evenOdd ? PDFOperator.of(PDFOperatorNames.FillEvenOdd) : fill());
      page.pushOperators(popGraphicsState());
      return;
    case 'picture': {
      const source = sources.get(node.pictureId);
      if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
      const { bytes, mime } = await encodePictureNode(node, source);
      const image = mime === 'image/jpeg' ? await document.embedJpg(bytes) : await document.embedPng(bytes);
      const name = page.node.newXObject('Picture', image.ref);
      const { xPx, yPx, widthPx, heightPx } = node.box;
      // A picture fills the unit square upwards; the page counts downwards.
      page.pushOperators(pushGraphicsState(), concatTransformationMatrix(widthPx, 0, 0, -heightPx, xPx, yPx + heightPx), PDFOperator.of(PDFOperatorNames.DrawObject, [name]), popGraphicsState());
      return;
    }
  }
}

function alphaState(document: PDFDocument, page: PDFPage, alpha: number): readonly PDFOperator[] {
  if (alpha === 1) return [];
  return [setGraphicsState(page.node.newExtGState('Alpha', document.context.obj({ Type: 'ExtGState', ca: alpha })))];
}

function colourOf(hex: string): PDFOperator {
  const colour = parseColour(hex);
  return colour?.mode === 'rgb' ? setFillingColor(rgb(colour.r, colour.g, colour.b)) : setFillingColor(rgb(0, 0, 0));
}
