import { ProblemError } from '../errors.ts';

/** Where a page ended: the sorting moment and the id that settles ties. */
export interface PageCursor {
  readonly ms: number;
  readonly id: string;
}

export const PAGE_SIZE = 48;

/** @throws ProblemError 400 when the text is no cursor of ours */
export function readCursor(text: string | undefined): PageCursor | null {
  if (text === undefined) return null;
  const match = /^(\d{1,16})_([A-Za-z0-9_-]{1,40})$/.exec(text);
  if (!match) throw badCursor();
  return { ms: Number(match[1]), id: match[2] ?? '' };
}

/** The cursor behind the last of a full page; null when there is nothing more. */
export function nextCursor<Item>(items: readonly Item[], limit: number, key: (item: Item) => PageCursor): string | null {
  const last = items.at(-1);
  if (!last || items.length < limit) return null;
  const { ms, id } = key(last);
  return `${ms}_${id}`;
}

/** Where a page by name ended. The name is in it as a list sorts by it. */
export interface NameCursor {
  readonly value: string;
  readonly id: string;
}

/** @throws ProblemError 400 when the text is no cursor of ours */
export function readNameCursor(text: string | undefined): NameCursor | null {
  if (text === undefined) return null;
  const match = /^([A-Za-z0-9_-]{0,560})\.([A-Za-z0-9_-]{1,40})$/.exec(text);
  if (!match) throw badCursor();
  return { value: Buffer.from(match[1] ?? '', 'base64url').toString('utf8'), id: match[2] ?? '' };
}

/** The cursor behind the last of a full page by name; null when there is nothing more. */
export function nextNameCursor(items: readonly { readonly id: string; readonly name: string }[], limit: number): string | null {
  const last = items.at(-1);
  return !last || items.length < limit ? null : `${Buffer.from(last.name.toLocaleLowerCase('en'), 'utf8').toString('base64url')}.${last.id}`;
}

function badCursor(): ProblemError {
  return new ProblemError(400, 'bad-cursor', 'Invalid page cursor. Use the `next` of a page.');
}
