import { useEffect, useState } from 'react';

interface Keyed {
  readonly key: React.Key | bigint;
}

/** How much of each row is drawn, in parts. */
type Parts = ReadonlyMap<Keyed['key'], number>;

/**
 * Draws the rows of a long list bit by bit: each frame adds one part of one row. Empty rows come first, then the rows nearest to the
 * middle of the view. Drawing several rows in one frame would make scrolling stutter. After a jump to rows that were never drawn, all
 * are drawn at once.
 * @param rows the rows in and near the view
 * @param whole the parts of a row
 * @returns the parts that are drawn of each row, from 1 to `whole`; a row that is missing is not drawn yet
 */
export function useInTurn(rows: readonly Keyed[], whole: number): Parts {
  const [drawn, setDrawn] = useState<Parts>(() => new Map());
  const isJump = !rows.some(({ key }) => drawn.has(key));
  const isSettled = rows.every(({ key }) => drawn.get(key) === whole);
  useEffect(() => {
    if (isSettled) return undefined;
    const frame = requestAnimationFrame(() => setDrawn(isJump ? allOf(rows, whole) : onePartMore(rows, drawn, whole)));
    return () => cancelAnimationFrame(frame);
  });
  return isJump ? allOf(rows, whole) : drawn;
}

function allOf(rows: readonly Keyed[], whole: number): Parts {
  return new Map(rows.map(({ key }) => [key, whole]));
}

/** The parts that are drawn after one more frame. */
export function onePartMore(rows: readonly Keyed[], drawn: Parts, whole: number): Parts {
  const middle = (rows.length - 1) / 2;
  const parts = new Map(rows.flatMap(({ key }) => (drawn.has(key) ? [[key, drawn.get(key) ?? 0] as const] : [])));
  const unfinished = rows.map(({ key }, index) => ({ key, has: parts.get(key) ?? 0, distance: Math.abs(index - middle) })).filter(({ has }) => has < whole);
  const [next] = unfinished.sort((a, b) => Math.min(a.has, 1) - Math.min(b.has, 1) || a.distance - b.distance);
  if (next) parts.set(next.key, next.has + 1);
  return parts;
}
