import {
  appendBezierCurve,
  beginText,
  clip,
  closePath,
  concatTransformationMatrix,
  endPath,
  endText,
  fill,
  lineTo,
  moveTo,
  PDFDocument,
  PDFOperator,
  PDFOperatorNames,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setCharacterSqueeze,
  setFillingColor,
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
import svgpath from 'svgpath';
import type { Box, Size } from '../../core/geometry/box.ts';
import type { Fade } from '../../core/scene/fade.ts';

/** A pixel of a cut in points: 96 pixels and 72 points to the inch. */
const POINTS_PER_PIXEL = 0.75;

/** A line that can be searched, copied and read aloud, and is not seen. */
export interface UnseenLine {
  readonly text: string;
  readonly xPx: number;
  /** Where its letters stand, from the top of the page. */
  readonly baselinePx: number;
  readonly maxWidthPx: number;
  readonly sizePx: number;
}

/** A PDF that is being written. This file alone knows the library that writes it. */
export class PdfFile {
  private constructor(
    readonly document: PDFDocument,
    readonly font: PDFFont,
  ) {}

  static async create({ title, subject, author }: { readonly title: string; readonly subject: string; readonly author: string | undefined }): Promise<PdfFile> {
    const document = await PDFDocument.create();
    document.setTitle(title);
    document.setSubject(subject);
    if (author) document.setAuthor(author);
    document.setCreator('Confetti');
    return new PdfFile(document, await document.embedFont(StandardFonts.Helvetica));
  }

  /** A page that is measured as a scene is: in pixels, from the top down. */
  addPage(size: Size): PdfPage {
    const page = this.document.addPage([size.widthPx * POINTS_PER_PIXEL, size.heightPx * POINTS_PER_PIXEL]);
    return new PdfPage(this, page, size);
  }

  /** Keeps a picture in the file, to be drawn on any of its pages. */
  embed(bytes: Buffer, mime: string): Promise<PDFImage> {
    return mime === 'image/jpeg' ? this.document.embedJpg(bytes) : this.document.embedPng(bytes);
  }

  async bytes(): Promise<Buffer> {
    return Buffer.from(await this.document.save());
  }
}

export type PdfPicture = PDFImage;

/** One page. What is set in `within` holds for what is drawn in it. */
export class PdfPage {
  constructor(
    readonly file: PdfFile,
    readonly page: PDFPage,
    readonly size: Size,
  ) {}

  /** Draws what `draw` draws, measured in pixels from the top down, and forgets all settings after it. */
  drawFromTop(draw: () => void): void {
    this.within(draw, concatTransformationMatrix(POINTS_PER_PIXEL, 0, 0, -POINTS_PER_PIXEL, 0, this.size.heightPx * POINTS_PER_PIXEL));
  }

  /** Draws in a space that is scaled and moved: `x` and `y` are scales, a negative one turns over. */
  scaled(scale: { readonly x: number; readonly y: number }, at: { readonly xPx: number; readonly yPx: number }, draw: () => void): void {
    this.within(draw, concatTransformationMatrix(scale.x, 0, 0, scale.y, at.xPx, at.yPx));
  }

  /** Draws with an opacity in [0, 1]. */
  withAlpha(alpha: number, draw: () => void): void {
    const state = alpha === 1 ? [] : [setGraphicsState(this.page.node.newExtGState('Alpha', this.file.document.context.obj({ Type: 'ExtGState', ca: alpha })))];
    this.within(draw, ...state);
  }

  /**
   * Draws with a fade; without one all of it. The fade is a mask of greys whose lightness is the opacity.
   * @see ISO 32000-1, 8.7.4.5 (shadings) and 11.6.5 (soft masks)
   */
  faded(fade: Fade | undefined, draw: () => void): void {
    if (!fade) return draw();
    const { context } = this.file.document;
    const [first, ...others] = fade.stops;
    const parts = others.map((stop, index) => ({ FunctionType: 2, Domain: [0, 1], N: 1, C0: [fade.stops[index]?.share ?? 0], C1: [stop.share] }));
    const along = { FunctionType: 3, Domain: [first?.at ?? 0, others.at(-1)?.at ?? 1], Functions: parts, Bounds: others.slice(0, -1).map(({ at }) => at), Encode: parts.flatMap(() => [0, 1]) };
    const coords = fade.kind === 'line' ? [fade.from.xPx, fade.from.yPx, fade.to.xPx, fade.to.yPx] : [fade.middle.xPx, fade.middle.yPx, 0, fade.middle.xPx, fade.middle.yPx, fade.radiusPx];
    const shading = { ShadingType: fade.kind === 'line' ? 2 : 3, ColorSpace: 'DeviceGray', Coords: coords, Function: along, Extend: [true, true] };
    const mask = context.register(
      context.stream('/Fade sh', {
        Type: 'XObject',
        Subtype: 'Form',
        BBox: [0, 0, this.size.widthPx, this.size.heightPx],
        Group: { Type: 'Group', S: 'Transparency', CS: 'DeviceGray' },
        Resources: { Shading: { Fade: shading } },
      }),
    );
    const state = context.obj({ Type: 'ExtGState', SMask: { Type: 'Mask', S: 'Luminosity', G: mask } });
    this.within(draw, setGraphicsState(this.page.node.newExtGState('Fade', state)));
  }

  /** Draws only what falls into a path; all of it without one. */
  clipped(path: string | undefined, draw: () => void): void {
    this.within(draw, ...(path === undefined ? [] : [...pathOperators(path), clip(), endPath()]));
  }

  /** The colour of what is filled from here on, `#rrggbb`. */
  setFill(hex: string): void {
    const colour = parseColour(hex);
    this.page.pushOperators(colour?.mode === 'rgb' ? setFillingColor(rgb(colour.r, colour.g, colour.b)) : setFillingColor(rgb(0, 0, 0)));
  }

  /** @param path SVG path data */
  fillPath(path: string, rule: 'nonzero' | 'evenodd' = 'nonzero'): void {
    this.page.pushOperators(...pathOperators(path), rule === 'evenodd' ? PDFOperator.of(PDFOperatorNames.FillEvenOdd) : fill());
  }

  drawPicture(picture: PdfPicture, { xPx, yPx, widthPx, heightPx }: Box): void {
    const name = this.page.node.newXObject('Picture', picture.ref);
    // A picture fills the unit square upwards; the page counts downwards.
    this.scaled({ x: widthPx, y: -heightPx }, { xPx, yPx: yPx + heightPx }, () => this.page.pushOperators(PDFOperator.of(PDFOperatorNames.DrawObject, [name])));
  }

  /** Writes a line in ink that does not show, as far as a standard font has its characters. */
  writeUnseen({ text, xPx, baselinePx, maxWidthPx, sizePx }: UnseenLine): void {
    const { font } = this.file;
    const known = new Set(font.getCharacterSet());
    if (text === '' || ![...text].every((character) => known.has(character.codePointAt(0) ?? 0))) return;
    const size = sizePx * POINTS_PER_PIXEL;
    // A line is as wide as its box at most; the standard font is squeezed to it.
    const squeeze = Math.min(100, (100 * maxWidthPx * POINTS_PER_PIXEL) / Math.max(1, font.widthOfTextAtSize(text, size)));
    this.page.pushOperators(
      beginText(),
      setTextRenderingMode(TextRenderingMode.Invisible),
      setFontAndSize(this.page.node.newFontDictionary('Text', font.ref), size),
      setCharacterSqueeze(squeeze),
      setTextMatrix(1, 0, 0, 1, xPx * POINTS_PER_PIXEL, (this.size.heightPx - baselinePx) * POINTS_PER_PIXEL),
      showText(font.encodeText(text)),
      endText(),
    );
  }

  private within(draw: () => void, ...settings: readonly PDFOperator[]): void {
    this.page.pushOperators(pushGraphicsState(), ...settings);
    draw();
    this.page.pushOperators(popGraphicsState());
  }
}

/** Operators of a page that draw an SVG path. Arcs become curves; quadratic curves cubic ones, as PDF knows no others. */
function pathOperators(path: string): readonly PDFOperator[] {
  const operators: PDFOperator[] = [];
  svgpath(path)
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _index, x, y) => {
      const [command, ...numbers] = segment as [string, ...number[]];
      const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = numbers;
      switch (command) {
        case 'M':
          operators.push(moveTo(a, b));
          break;
        case 'L':
          operators.push(lineTo(a, b));
          break;
        case 'H':
          operators.push(lineTo(a, y));
          break;
        case 'V':
          operators.push(lineTo(x, a));
          break;
        case 'C':
          operators.push(appendBezierCurve(a, b, c, d, e, f));
          break;
        case 'Q':
          operators.push(appendBezierCurve(x + (2 / 3) * (a - x), y + (2 / 3) * (b - y), c + (2 / 3) * (a - c), d + (2 / 3) * (b - d), c, d));
          break;
        case 'Z':
          operators.push(closePath());
          break;
      }
    });
  return operators;
}
