import type { QueryOf } from '../../contract/contract.ts';
import type { listPieces } from '../../contract/piece-contracts.ts';

type ListQuery = QueryOf<typeof listPieces>;

/** Filters, order and shelf of the pieces list. They are kept in the address, so that a link opens the same list. */
export interface PieceQuery {
  readonly words?: string | undefined;
  readonly kind?: ListQuery['kind'];
  readonly status?: ListQuery['status'];
  readonly template?: string | undefined;
  readonly person?: string | undefined;
  /** Changed within so many days. */
  readonly days?: '1' | '7' | '30' | '365' | undefined;
  readonly sort?: ListQuery['sort'];
  readonly shelf?: ListQuery['shelf'];
}

const keys = ['words', 'kind', 'status', 'template', 'person', 'days', 'sort', 'shelf'] as const satisfies readonly (keyof PieceQuery)[];

/** Whether some pieces are left out, beyond those of other shelves. */
export function isFiltered({ sort: _, shelf: __, ...filters }: PieceQuery): boolean {
  return Object.values(filters).some((value) => value !== undefined && value !== '');
}

/** The query of an address; the server refuses values that there are not. */
export function readPieceQuery(search: string): PieceQuery {
  const params = new URLSearchParams(search);
  return Object.fromEntries(keys.flatMap((key) => (params.get(key) ? [[key, params.get(key)] as const] : [])));
}

/** The address of a query. */
export function writePieceQuery(query: PieceQuery): string {
  const params = new URLSearchParams(keys.flatMap((key) => (query[key] ? [[key, query[key]]] : [])));
  return params.size === 0 ? location.pathname : `${location.pathname}?${params.toString()}`;
}

/** The same as the server takes it. */
export function toListQuery({ words, days, ...query }: PieceQuery): Omit<ListQuery, 'before' | 'limit'> {
  const given = Object.fromEntries(Object.entries(query).filter(([, value]) => value !== undefined && value !== '')) as Omit<PieceQuery, 'words' | 'days'>;
  return { ...given, ...(words?.trim() ? { words: words.trim().slice(0, 100) } : {}), ...(days ? { days: Number(days) } : {}) };
}
