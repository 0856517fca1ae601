import {
  beginText,
  clip,
  concatTransformationMatrix,
  endPath,
  endText,
  fill,
  PDFDocument,
  PDFOperator,
  PDFOperatorNames,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setFillingColor,
  setCharacterSqueeze,
  setFontAndSize,
  setGraphicsState,
  setTextMatrix,
  setTextRenderingMode,
  showText,
  StandardFonts,
  TextRenderingMode,
  type PDFFont,
  type PDFImage,
  type PDFPage,
} from 'pdf-lib';
import { parse as parseColour } from 'culori';
import type { PlacedText } from '../../core/compose/report.ts';
import type { SceneNode } from '../../core/scene/scene.ts';
import { pathOperators } from './path-operators.ts';
import { encodePictureNode, type VectorInput } from './scene-to-svg.ts';

/** A pixel of a cut in points: 96 pixels and 72 points to the inch. */
const POINTS_PER_PIXEL = 0.75;

/** A page: a scene, and the texts on it as they are set. */
export interface PdfPage extends VectorInput {
  readonly texts: readonly PlacedText[];
}

/**
 * Scenes as the pages of one PDF: letters, fields and marks as vectors, photographs as they are. Under the drawn letters lies the
 * text itself, unseen, to be searched, copied and read aloud, as far as a standard font has its characters.
 * @throws RangeError when a scene shows a picture that has no source
 */
export async function scenesToPdf(inputs: readonly PdfPage[]): Promise<Buffer> {
  const document = await PDFDocument.create();
  const [first] = inputs;
  document.setTitle(first?.metadata.title ?? '');
  document.setSubject(first?.metadata.altText ?? '');
  if (first?.metadata.credit) document.setAuthor(first.metadata.credit);
  document.setCreator('Confetti');
  const font = await document.embedFont(StandardFonts.Helvetica);
  const images = new Map<string, Promise<PDFImage>>();
  for (const input of inputs) {
    const { widthPx, heightPx } = input.scene.size;
    const page = document.addPage([widthPx * POINTS_PER_PIXEL, heightPx * POINTS_PER_PIXEL]);
    // From here on the page is measured as the scene is: in pixels, from the top down.
    page.pushOperators(pushGraphicsState(), concatTransformationMatrix(POINTS_PER_PIXEL, 0, 0, -POINTS_PER_PIXEL, 0, heightPx * POINTS_PER_PIXEL));
    for (const node of input.scene.nodes) await drawNode(document, page, node, input, images);
    page.pushOperators(popGraphicsState());
    for (const text of input.texts) writeUnseen(page, font, text, heightPx);
  }
  return Buffer.from(await document.save());
}

/** The lines of a text where they are seen, in ink that does not show. */
function writeUnseen(page: PDFPage, font: PDFFont, { box, lineTexts, sizePx }: PlacedText, pageHeightPx: number): void {
  const size = sizePx * POINTS_PER_PIXEL;
  lineTexts.forEach((line, index) => {
    const text = line.trim();
    if (text === '' || !canWrite(font, text)) return;
    const baselinePx = box.yPx + (box.heightPx * (index + 1)) / lineTexts.length;
    // A line is as wide as its box at most; the standard font is squeezed to it.
    const squeeze = Math.min(100, (100 * box.widthPx * POINTS_PER_PIXEL) / Math.max(1, font.widthOfTextAtSize(text, size)));
    page.pushOperators(
      beginText(),
      setTextRenderingMode(TextRenderingMode.Invisible),
      setFontAndSize(page.node.newFontDictionary('Text', font.ref), size),
      setCharacterSqueeze(squeeze),
      setTextMatrix(1, 0, 0, 1, box.xPx * POINTS_PER_PIXEL, (pageHeightPx - baselinePx) * POINTS_PER_PIXEL),
      showText(font.encodeText(text)),
      endText(),
    );
  });
}

function canWrite(font: PDFFont, text: string): boolean {
  const known = new Set(font.getCharacterSet());
  return [...text].every((character) => known.has(character.codePointAt(0) ?? 0));
}

async function drawNode(document: PDFDocument, page: PDFPage, node: SceneNode, { typesetter, sources }: VectorInput, images: Map<string, Promise<PDFImage>>): Promise<void> {
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
      // What runs through several pages, or stands on each of them, is in the file once.
      const key = JSON.stringify([node.pictureId, node.window, node.box.widthPx, node.box.heightPx, node.tone]);
      const known = images.get(key) ?? encodePictureNode(node, source).then(({ bytes, mime }) => (mime === 'image/jpeg' ? document.embedJpg(bytes) : document.embedPng(bytes)));
      images.set(key, known);
      const image = await known;
      const name = page.node.newXObject('Picture', image.ref);
      const { xPx, yPx, widthPx, heightPx } = node.box;
      // A picture fills the unit square upwards; the page counts downwards.
      const window = node.mask === undefined ? [] : [...pathOperators(node.mask), clip(), endPath()];
      page.pushOperators(pushGraphicsState(), ...window, concatTransformationMatrix(widthPx, 0, 0, -heightPx, xPx, yPx + heightPx), PDFOperator.of(PDFOperatorNames.DrawObject, [name]), popGraphicsState());
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
