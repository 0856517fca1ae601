import { appendBezierCurve, closePath, lineTo, moveTo, type PDFOperator } from 'pdf-lib';
import svgpath from 'svgpath';

/** Operators of a PDF page that draw an SVG path. Arcs become curves; quadratic curves cubic ones, as PDF knows no others. */
export function pathOperators(path: string): readonly PDFOperator[] {
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
