import svgpath from 'svgpath';
import { describe, expect, it } from 'vitest';
import { outlineOf } from './svg-shapes.ts';

describe('the outline of a basic shape', () => {
  it.each([
    ['rect', { x: '10', y: '20', width: '30', height: '40' }, 'M10 20h30v40h-30Z'],
    ['polygon', { points: '0,0 10,0 10 10' }, 'M0 0L10 0L10 10Z'],
    ['polyline', { points: ' 0 0\n10 0, 10,10 ' }, 'M0 0L10 0L10 10Z'],
    ['path', { d: 'M1 1h2' }, 'M1 1h2'],
  ] as const)('of a %s', (name, attributes, path) => {
    expect(outlineOf(name, attributes)).toBe(path);
  });

  /** Where a path's segments end: left, top, right, bottom. */
  const ends = (path: string | null): readonly number[] => {
    const points: (readonly [number, number])[] = [];
    svgpath(path ?? '').abs().iterate((_segment, _index, x, y) => void points.push([x, y]));
    const [xs, ys] = [points.slice(1).map(([x]) => x), points.slice(1).map(([, y]) => y)];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  };

  it('of what is round keeps to its extent', () => {
    expect(ends(outlineOf('circle', { cx: '50', cy: '40', r: '10' }))).toEqual([40, 40, 60, 40]);
    expect(ends(outlineOf('rect', { x: '10', y: '20', width: '30', height: '40', rx: '6' }))).toEqual([10, 20, 40, 60]);
    // Corners never take more than half a side.
    expect(ends(outlineOf('rect', { x: '10', y: '20', width: '30', height: '40', ry: '600' }))).toEqual([10, 20, 40, 60]);
  });

  it.each([
    ['rect', { width: '0', height: '4' }],
    ['circle', { r: '0' }],
    ['ellipse', { rx: '4' }],
    ['polygon', { points: '0 0 1 1' }],
    ['polygon', { points: '0 0 one 1 2 2' }],
    ['line', { x2: '4' }],
    ['path', {}],
  ] as const)('is none for a %s of %j', (name, attributes) => {
    expect(outlineOf(name, attributes as Readonly<Record<string, string>>)).toBeNull();
  });
});
