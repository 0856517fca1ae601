import { stat } from 'node:fs/promises';
import { mediaOfBook } from '../../core/brand/brand-book.ts';
import { resolveCuts } from '../../core/cut/resolve-cuts.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { cutToCheck, type Finding } from '../../core/preflight/finding.ts';
import { preflight } from '../../core/preflight/preflight.ts';
import { mediaOfPiece, type CutRef } from '../../core/piece/piece.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { Services } from '../services.ts';

/**
 * Composes the given cuts without painting them and answers all findings.
 * @param atMs when it would go out: licences may end before
 */
export async function preflightSnapshot(services: Services, brand: Brand, snapshot: Snapshot, cuts: readonly CutRef[], atMs: number): Promise<readonly Finding[]> {
  const channels = await listChannels(services.db, brand.id);
  const resolved = resolveCuts({ ...snapshot, channels }, cuts);
  const reports = await services.render.reports({ kind: 'report', sources: resolved.map(({ channel, ref }) => cutSourceOf(snapshot, channel.network, ref, services.media)) });
  const toCheck = resolved.map((cut, index) => cutToCheck(cut, (_, at) => reports[index]?.[at]));
  const { piece, template, book } = snapshot;
  const items = await findMediaByIds(services.db, brand.id, mediaOfPiece(piece));
  const pictures = items.map(({ id, name, altText, widthPx, heightPx, recording, terms }) => ({ id, name, altText, widthPx, heightPx, recording, licence: terms.licence, licenceUntil: terms.licenceUntil }));
  const findings = preflight({ piece, template, book, cuts: toCheck.filter(({ slides }) => slides.length > 0), pictures, atMs, zone: brand.zone });
  return [...(await missingFiles(services, brand, snapshot)), ...findings];
}

/** Files that are needed and are gone: seen now, and not by the network. */
async function missingFiles(services: Services, brand: Brand, { piece, book }: Snapshot): Promise<readonly Finding[]> {
  const items = await findMediaByIds(services.db, brand.id, [...mediaOfPiece(piece), ...mediaOfBook(book)]);
  const needed = [...items.map(({ name, storedHash }) => ({ name, hash: storedHash })), ...book.typefaces.map(({ family, hash }) => ({ name: family, hash }))];
  const isThere = await Promise.all(needed.map(({ hash }) => stat(services.media.pathOf(hash)).then(({ size }) => size > 0, () => false)));
  return needed
    .filter((_, index) => isThere[index] === false)
    .map(({ name }): Finding => ({ severity: 'stops', sentence: `The file of “${name}” is gone from the disk. Upload it again, or choose another.`, cut: null, view: 'look', fix: null }));
}
