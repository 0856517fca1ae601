import { readAddress, writeAddress } from '../ui/address-query.ts';

const keys = ['show', 'state', 'kind', 'theme', 'assigned', 'words', 'used', 'table', 'note', 'link', 'text'] as const;

/** What of the address says what is shown of the ideas; `note`, `link` and `text` begin a note, as the bookmark does. */
export type IdeasQuery = Partial<Record<(typeof keys)[number], string | undefined>>;

export const readIdeasQuery = (search: string): IdeasQuery => readAddress(keys, search);
export const writeIdeasQuery = (query: IdeasQuery): string => writeAddress(keys, query);
