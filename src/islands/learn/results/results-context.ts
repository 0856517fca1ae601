import type { AnswerOf } from '../../../contract/contract.ts';
import type { getFacets, listResults } from '../../../contract/results-contracts.ts';
import type { Role } from '../../../core/access/access.ts';
import type { filtersOf, ResultsQuery } from './results-query.ts';

/** What the parts of the results share. */
export interface ResultsContext {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
  /** On the brand's clock. */
  readonly today: string;
  readonly query: ResultsQuery;
  readonly change: (next: Partial<ResultsQuery>) => void;
  readonly filters: ReturnType<typeof filtersOf>;
  readonly facets: AnswerOf<typeof getFacets> | null;
}

export type PostRow = AnswerOf<typeof listResults>['posts'][number];
export type Facets = AnswerOf<typeof getFacets>;

export const formatWords: Readonly<Record<string, string>> = { picture: 'graphic', carousel: 'carousel', video: 'video', document: 'document', text: 'text' };

/** A post's channel with its network's sign. */
export function channelOf(facets: Facets | null, id: string): Facets['channels'][number] | null {
  return facets?.channels.find((each) => each.id === id) ?? null;
}
