import { mediaOfBook } from '../../core/brand/brand-book.ts';
import { monthRange } from '../../core/time/month-range.ts';
import type { RecordKind } from '../../contract/package-format.ts';
import type { Brand } from '../db/brand-repository.ts';
import { mediaOfPieces } from '../db/queue-repository.ts';
import { notFound } from '../errors.ts';
import { findPiece } from '../db/piece-repository.ts';
import type { Services } from '../services.ts';

/** What a package is made of, as a person asks for it. */
export type Wanted = { readonly scope: 'brand' | 'media' } | { readonly scope: 'piece'; readonly pieceId: string } | { readonly scope: 'month'; readonly month: string };

/** What of a brand goes into a package: null is everything. */
export interface Selection {
  readonly kinds: ReadonlySet<RecordKind> | null;
  readonly pieceIds: readonly string[] | null;
  readonly mediaIds: readonly string[] | null;
  /** Moments of the plan and of what went out: [from, to). */
  readonly range: { readonly fromMs: number; readonly toMs: number } | null;
}

const everything: Selection = { kinds: null, pieceIds: null, mediaIds: null, range: null };
/** What every package has: without it nothing of the rest can be shown. */
const ground: readonly RecordKind[] = ['brand', 'sheets', 'channels', 'typefaces', 'media'];

/** @throws ProblemError 404 when there is no such piece */
export async function selectionOf(services: Pick<Services, 'db'>, brand: Brand, wanted: Wanted): Promise<Selection> {
  switch (wanted.scope) {
    case 'brand':
      return everything;
    case 'media':
      return { ...everything, kinds: new Set(ground) };
    case 'piece': {
      if (!(await findPiece(services.db, brand.id, wanted.pieceId))) throw notFound('piece');
      return withMedia(services, brand, { kinds: new Set([...ground, 'templates', 'campaigns', 'pieces', 'entries', 'posts']), pieceIds: [wanted.pieceId], range: null });
    }
    case 'month': {
      const range = monthRange(wanted.month, brand.zone);
      const inRange = (table: 'posts' | 'plan_entries') => services.db(table).where({ brand_id: brand.id }).where('due_ms', '>=', range.fromMs).where('due_ms', '<', range.toMs).whereNotNull('piece_id').distinct('piece_id').pluck('piece_id');
      const pieceIds = [...new Set<string>([...((await inRange('posts')) as string[]), ...((await inRange('plan_entries')) as string[])])];
      return withMedia(services, brand, { kinds: new Set([...ground, 'templates', 'campaigns', 'pieces', 'series', 'entries', 'posts', 'publications']), pieceIds, range });
    }
  }
}

async function withMedia({ db }: Pick<Services, 'db'>, brand: Brand, selection: Omit<Selection, 'mediaIds'>): Promise<Selection> {
  const shown = await mediaOfPieces(db, selection.pieceIds ?? []);
  return { ...selection, mediaIds: [...new Set([...[...shown.values()].flat(), ...mediaOfBook(brand.book)])] };
}
