import type { PlacedText } from '../../core/compose/report.ts';
import type { PictureNode, SceneNode } from '../../core/scene/scene.ts';
import { withShadow } from '../../core/scene/shadow.ts';
import { PdfFile, type PdfPage, type PdfPicture, type UnseenLine } from './pdf-file.ts';
import { encodePictureNode, type VectorInput } from './scene-to-svg.ts';

/** A scene as a page, and the texts on it as they are set. */
export interface ScenePage extends VectorInput {
  readonly texts: readonly PlacedText[];
}

/**
 * Scenes as the pages of one PDF: letters, fields and marks as vectors, photographs as they are. Under the drawn letters lies the
 * text itself, unseen, to be searched, copied and read aloud, as far as a standard font has its characters.
 * @throws RangeError when a scene shows a picture that has no source
 */
export async function scenesToPdf(inputs: readonly ScenePage[]): Promise<Buffer> {
  const metadata = inputs[0]?.metadata;
  const file = await PdfFile.create({ title: metadata?.title ?? '', subject: metadata?.altText ?? '', author: metadata?.credit });
  const pictures = await embedPictures(file, inputs);
  for (const input of inputs) {
    const page = file.addPage(input.scene.size);
    page.drawFromTop(() => {
      for (const node of input.scene.nodes) drawNode(page, node, input, pictures);
    });
    for (const line of input.texts.flatMap(unseenLines)) page.writeUnseen(line);
  }
  return file.bytes();
}

/** What runs through several pages, or stands on each of them, is in the file once. */
async function embedPictures(file: PdfFile, inputs: readonly ScenePage[]): Promise<ReadonlyMap<string, PdfPicture>> {
  const pictures = new Map<string, PdfPicture>();
  for (const { scene, sources } of inputs) {
    for (const node of scene.nodes) {
      if (node.kind !== 'picture' || pictures.has(pictureKey(node))) continue;
      const source = sources.get(node.pictureId);
      if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
      const { bytes, mime } = await encodePictureNode(node, source);
      pictures.set(pictureKey(node), await file.embed(bytes, mime));
    }
  }
  return pictures;
}

const pictureKey = (node: PictureNode): string => JSON.stringify([node.pictureId, node.window, node.box.widthPx, node.box.heightPx, node.tone, node.treatment, node.shadow]);

/** The lines of a text where they are seen. */
function unseenLines({ box, lineTexts, sizePx }: PlacedText): readonly UnseenLine[] {
  return lineTexts.map((line, index) => ({ text: line.trim(), xPx: box.xPx, baselinePx: box.yPx + (box.heightPx * (index + 1)) / lineTexts.length, maxWidthPx: box.widthPx, sizePx }));
}

function drawNode(page: PdfPage, node: SceneNode, { typesetter }: VectorInput, pictures: ReadonlyMap<string, PdfPicture>): void {
  switch (node.kind) {
    case 'fill':
      page.withAlpha(node.alpha, () => {
        page.faded(node.fade, () => {
          page.setFill(node.colour);
          page.fillPath(node.path);
        });
      });
      return;
    case 'glyphs':
      page.withAlpha(node.alpha, () => {
        page.setFill(node.colour);
        for (const glyph of node.glyphs) {
          const unit = node.sizePx / typesetter.unitsPerEm(glyph.fontKey);
          page.scaled({ x: unit, y: -unit }, glyph, () => page.fillPath(typesetter.outline(glyph.fontKey, glyph.id)));
        }
      });
      return;
    case 'artwork':
      page.scaled({ x: node.scale, y: node.scale }, node, () => {
        for (const path of node.paths) {
          page.setFill(path.fill);
          page.fillPath(path.d, path.evenOdd ? 'evenodd' : 'nonzero');
        }
      });
      return;
    case 'picture': {
      const picture = pictures.get(pictureKey(node));
      if (picture) page.clipped(node.mask, () => page.drawPicture(picture, node.shadow ? withShadow(node.box, node.shadow) : node.box));
      return;
    }
  }
}
