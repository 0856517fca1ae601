import { tokensOf } from '../../write/tokens.ts';
import type { RowCells } from './table-fields.ts';

/** A row that was read before, with what was made of it. */
export interface KnownRow {
  readonly number: number;
  readonly cells: RowCells;
}

/** Rows that share so much of their words are one row that was edited. */
const ALIKE = 0.5;

/**
 * Which of the rows that were read before each row is, by place; null: it is new. By its key first, then by all its cells, by its headline, by its moment and channels, and by
 * its place where most of its words are the same. No known row is taken twice.
 */
export function matchRows(rows: readonly RowCells[], known: readonly KnownRow[]): readonly (KnownRow | null)[] {
  const matched: (KnownRow | null)[] = rows.map(() => null);
  const free = new Set(known);
  const pass = (nameOf: (cells: RowCells) => string | null): void => {
    const byName = new Map<string, KnownRow[]>();
    for (const row of free) {
      const name = nameOf(row.cells);
      if (name !== null) byName.set(name, [...(byName.get(name) ?? []), row]);
    }
    rows.forEach((cells, index) => {
      const name = matched[index] === null ? nameOf(cells) : null;
      const found = name === null ? undefined : byName.get(name)?.shift();
      if (!found) return;
      matched[index] = found;
      free.delete(found);
    });
  };
  const all = (cells: RowCells): string => JSON.stringify(Object.entries(cells).toSorted(([a], [b]) => (a < b ? -1 : 1)));
  pass(({ key, channels }) => (key === undefined ? null : `${key} ${channels ?? ''}`));
  pass(({ key }) => key ?? null);
  pass(all);
  pass(({ headline, channels }) => (headline === undefined ? null : `${headline.toLowerCase()} ${channels ?? ''}`));
  pass(({ date, time, channels }) => (date === undefined ? null : `${date} ${time ?? ''} ${channels ?? ''}`));
  rows.forEach((cells, index) => {
    const same = matched[index] === null ? [...free].find(({ number }) => number === index + 1) : undefined;
    if (!same || sharedWords(cells, same.cells) < ALIKE) return;
    matched[index] = same;
    free.delete(same);
  });
  return matched;
}

function sharedWords(a: RowCells, b: RowCells): number {
  const words = (cells: RowCells): ReadonlySet<string> => new Set(tokensOf(Object.values(cells).join(' ').toLowerCase()).map((token) => token.text));
  const [own, theirs] = [words(a), words(b)];
  return own.size === 0 ? 0 : [...own].filter((word) => theirs.has(word)).length / Math.max(own.size, theirs.size);
}
