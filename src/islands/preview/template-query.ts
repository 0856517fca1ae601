import { queryOptions } from '@tanstack/react-query';
import { getTemplateDocument } from '../../contract/template-contracts.ts';
import { call } from '../ui/call.ts';

/** A template's document by its key. It is asked for once: while a piece is open, its template stays as it was. */
export function templateQuery(brand: string, key: string) {
  return queryOptions({ queryKey: ['template-document', brand, key], queryFn: () => call(getTemplateDocument, { params: { brand, template: key } }), staleTime: Infinity });
}
