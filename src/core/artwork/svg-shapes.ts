/**
 * The outline of a basic shape as path data; null for elements that are no shape or have no extent.
 * @see https://www.w3.org/TR/SVG2/shapes.html
 */
export function outlineOf(name: string, attributes: Readonly<Record<string, string>>): string | null {
  const number = (key: string): number => Number.parseFloat(attributes[key] ?? '0') || 0;
  switch (name) {
    case 'path':
      return attributes['d'] ?? null;
    case 'rect':
      return rect(number('x'), number('y'), number('width'), number('height'), number(attributes['rx'] === undefined ? 'ry' : 'rx'), number(attributes['ry'] === undefined ? 'rx' : 'ry'));
    case 'circle':
      return ellipse(number('cx'), number('cy'), number('r'), number('r'));
    case 'ellipse':
      return ellipse(number('cx'), number('cy'), number('rx'), number('ry'));
    case 'polygon':
    case 'polyline':
      return polygon(attributes['points'] ?? '');
    default:
      return null;
  }
}

function rect(x: number, y: number, width: number, height: number, askedRx: number, askedRy: number): string | null {
  if (width <= 0 || height <= 0) return null;
  const [rx, ry] = [Math.min(askedRx, width / 2), Math.min(askedRy, height / 2)];
  if (rx <= 0 || ry <= 0) return `M${x} ${y}h${width}v${height}h${-width}Z`;
  const arc = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return `M${x + rx} ${y}h${width - 2 * rx}${arc(rx, ry)}v${height - 2 * ry}${arc(-rx, ry)}h${2 * rx - width}${arc(-rx, -ry)}v${2 * ry - height}${arc(rx, -ry)}Z`;
}

function ellipse(cx: number, cy: number, rx: number, ry: number): string | null {
  if (rx <= 0 || ry <= 0) return null;
  return `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;
}

function polygon(points: string): string | null {
  const numbers = points.trim().split(/[\s,]+/).map(Number);
  if (numbers.length < 6 || numbers.some(Number.isNaN)) return null;
  const pairs = Array.from({ length: Math.floor(numbers.length / 2) }, (_, index) => `${numbers[index * 2]} ${numbers[index * 2 + 1]}`);
  return `M${pairs.join('L')}Z`;
}
