import { byFocal } from './by-focal.ts';
import type { FocalPoint, PictureFacts } from './picture-facts.ts';
import { MOST_OF_SIDE, type BoxInPicture } from './subject-box.ts';

/** What belongs to a subject stands out at least this much of what its most striking cell does. */
const BELONGS_FROM = 0.5;
/** A subject stands out at least this much of what the most striking cell of its picture does: less is ground. */
const STANDS_OUT_FROM = 0.4;

/** The box around what stands out at a focal point and hangs together: a guess at the subject of a picture without a known outline. Null where nothing stands out, or nearly all does. */
export const salientBox = byFocal(findBox);

function findBox({ columns, rows, saliency }: PictureFacts, focal: FocalPoint): BoxInPicture | null {
  const cellAt = (share: number, cells: number): number => Math.min(cells - 1, Math.max(0, Math.floor(share * cells)));
  const [column, row] = [cellAt(focal.x, columns), cellAt(focal.y, rows)];
  const neighbours = around(column, row, { columns, rows });
  const striking = Math.max(...neighbours.map((cell) => saliency[cell] ?? 0));
  if (striking < STANDS_OUT_FROM * saliency.reduce((most, each) => Math.max(most, each), 0)) return null;
  // A focal point between the parts of a thing, or on its plain middle, still belongs to it.
  const waiting = [...neighbours];
  const subject = new Set(waiting);
  for (let cell = waiting.pop(); cell !== undefined; cell = waiting.pop()) {
    for (const next of around(cell % columns, Math.floor(cell / columns), { columns, rows })) {
      if (subject.has(next) || (saliency[next] ?? 0) < striking * BELONGS_FROM) continue;
      subject.add(next);
      waiting.push(next);
    }
  }
  const [xs, ys] = [[...subject].map((cell) => cell % columns), [...subject].map((cell) => Math.floor(cell / columns))];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const box = { x: left / columns, y: top / rows, width: (Math.max(...xs) - left + 1) / columns, height: (Math.max(...ys) - top + 1) / rows };
  return box.width < MOST_OF_SIDE && box.height < MOST_OF_SIDE ? box : null;
}

/** A cell and those beside it, as indices row by row. */
function around(column: number, row: number, { columns, rows }: Pick<PictureFacts, 'columns' | 'rows'>): readonly number[] {
  const beside = [[0, 0], [-1, 0], [1, 0], [0, -1], [0, 1]] as const;
  return beside.map(([right, down]) => [column + right, row + down] as const).filter(([x, y]) => x >= 0 && y >= 0 && x < columns && y < rows).map(([x, y]) => y * columns + x);
}
