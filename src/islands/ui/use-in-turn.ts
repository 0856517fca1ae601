import { useEffect, useState } from 'react';

interface Keyed {
  readonly key: React.Key | bigint;
}

/**
 * Which rows of a long list to draw: those already drawn, and one more each frame, the nearest to the middle of the view
 * first. A fast scroll brings in several rows at once, and drawing them in one frame would hold the scroll up.
 * After a jump, where no row in view was drawn before, all are drawn together.
 * @param rows the rows in and near the view
 * @returns the keys of the rows to draw
 */
export function useInTurn(rows: readonly Keyed[]): ReadonlySet<Keyed['key']> {
  const [drawn, setDrawn] = useState<ReadonlySet<Keyed['key']>>(() => new Set());
  const isJump = !rows.some(({ key }) => drawn.has(key));
  const missing = isJump ? [] : rows.filter(({ key }) => !drawn.has(key));
  const isSettled = !isJump && missing.length === 0;
  useEffect(() => {
    if (isSettled || rows.length === 0) return undefined;
    const middle = (rows.length - 1) / 2;
    const distance = (row: Keyed): number => Math.abs(rows.indexOf(row) - middle);
    const next = [...missing].sort((a, b) => distance(a) - distance(b))[0];
    const keep = rows.filter((row) => isJump || row === next || drawn.has(row.key));
    const frame = requestAnimationFrame(() => setDrawn(new Set(keep.map(({ key }) => key))));
    return () => cancelAnimationFrame(frame);
  });
  return isJump ? new Set(rows.map(({ key }) => key)) : drawn;
}
