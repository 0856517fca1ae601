import { mediaOfBook } from '../../core/brand/brand-book.ts';
import { mediaOfPiece, type Piece } from '../../core/piece/piece.ts';
import type { Snapshot, PinnedRecording } from '../../core/post/snapshot.ts';
import { listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds, toPicture, type MediaItem, type StoredRecording } from '../db/media-repository.ts';
import { getTemplate } from '../db/template-repository.ts';
import type { Services } from '../services.ts';

function recordingOf({ kind, durationMs, hasSound, facts, subject, storedHash }: StoredRecording): PinnedRecording {
  return { kind, durationMs, hasSound, facts, storedHash, ...(subject === undefined ? {} : { subject }) };
}

/** Pictures as a snapshot holds them: those given, and those that the brand's book shows. */
export async function picturesOfSnapshot({ db }: Pick<Services, 'db'>, brand: Brand, items: readonly MediaItem[]): Promise<Snapshot['pictures']> {
  const own = items.length > 0 ? [] : await findMediaByIds(db, brand.id, mediaOfBook(brand.book));
  return [...items, ...own].map(pictureOf);
}

function pictureOf(item: MediaItem): Snapshot['pictures'][number] {
  return { ...toPicture(item), storedHash: item.storedHash, credit: item.terms.credit, licence: item.terms.licence, ...(item.recording ? { recording: recordingOf(item.recording) } : {}) };
}

/** All that the cuts of a piece are made of, as it is now. */
export async function makeSnapshot(services: Pick<Services, 'db'>, brand: Brand, piece: Piece): Promise<Snapshot> {
  const items = await findMediaByIds(services.db, brand.id, [...new Set([...mediaOfPiece(piece), ...mediaOfBook(brand.book)])]);
  return {
    piece,
    template: await getTemplate(services.db, brand.id, piece.template.key),
    book: brand.book,
    sheets: await listSheetsOf(services.db, brand.id),
    pictures: items.map(pictureOf),
  };
}
