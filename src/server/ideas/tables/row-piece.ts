import type { Template } from '../../../core/template/template.ts';
import type { Words } from '../../../core/words/fields.ts';
import type { Piece } from '../../../core/piece/piece.ts';
import { contentOfRow } from '../../../core/ideas/table/row-content.ts';
import type { Brand } from '../../db/brand-repository.ts';
import type { Services } from '../../services.ts';
import { pieceFromContent } from '../piece-from-content.ts';
import type { StandingRow } from './table-context.ts';

/** What goes out beside the picture, as the row says it. */
export function wordsOfRow({ cells }: Pick<StandingRow, 'cells'>): Words {
  const { caption, hashtags, firstComment, altText, link } = cells;
  return Object.fromEntries(Object.entries({ caption: caption ?? '', hashtags, firstComment, altText, link }).filter((entry): entry is [string, string] => entry[1] !== undefined));
}

/**
 * The piece of a row, or of rows that belong together: the first leads, the others say what differs on their channels.
 * @throws ProblemError 422 when no template carries it
 */
export async function pieceOfRows(services: Services, brand: Brand, templates: readonly Template[], [lead, ...others]: readonly [StandingRow, ...StandingRow[]], pictures: readonly { readonly id: string; readonly altText: string }[]): Promise<Piece> {
  const shared = wordsOfRow(lead);
  const own = Object.fromEntries(
    others.flatMap((row) => {
      const differing = Object.fromEntries(Object.entries(wordsOfRow(row)).filter(([field, text]) => text !== shared[field as keyof Words]));
      return Object.keys(differing).length === 0 ? [] : row.read.channelIds.map((channelId) => [channelId, differing] as const);
    }),
  );
  return pieceFromContent(services, brand, templates, { content: contentOfRow(lead.read), pictures, template: lead.template, words: shared, own, channelIds: [...new Set([lead, ...others].flatMap(({ read }) => read.channelIds))] });
}
