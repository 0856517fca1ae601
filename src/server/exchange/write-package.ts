import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { MANIFEST_NAME, PACKAGE_VERSION, recordKinds, type Manifest, type PackageScope, type RecordKind } from '../../contract/package-format.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listTypefaces, pageIds } from '../db/exchange-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import type { Services } from '../services.ts';
import type { ZipEntry } from '../zip/write-zip.ts';
import { collectRecords, mediaFileName, typefaceFileName } from './collect-records.ts';
import type { Selection } from './selection.ts';

/** A brand of a package, and what of it goes in. */
export interface PackedBrand {
  readonly brand: Brand;
  readonly selection: Selection;
}

/** The files of a package, in their order: what it is, then each brand’s records and files. Nothing is read before its turn. */
export async function packageEntries(services: Pick<Services, 'db' | 'media'>, scope: PackageScope, brands: readonly PackedBrand[], nowMs: number): Promise<readonly ZipEntry[]> {
  const manifest: Manifest = { format: 'confetti-package', version: PACKAGE_VERSION, scope, madeMs: nowMs, brands: brands.map(({ brand }) => ({ id: brand.id, name: brand.name, folder: brand.slug })) };
  const entries: ZipEntry[] = [{ name: MANIFEST_NAME, isText: true, open: async () => Readable.from([`${JSON.stringify(manifest, null, 2)}\n`]) }];
  for (const { brand, selection } of brands) {
    const records = collectRecords(services, brand, selection);
    const kinds = recordKinds.filter((kind) => selection.kinds === null || selection.kinds.has(kind));
    entries.push(...kinds.map((kind): ZipEntry => ({ name: recordFileName(brand.slug, kind), isText: true, open: async () => Readable.from(lines(records[kind]())) })));
    for (const { hash } of await listTypefaces(services.db, brand.id)) entries.push({ name: `${brand.slug}/${typefaceFileName(hash)}`, open: async () => createReadStream(services.media.pathOf(hash)) });
    for await (const ids of pageIds(services.db, 'media', brand.id, { ids: selection.mediaIds })) {
      for (const item of await findMediaByIds(services.db, brand.id, ids)) entries.push({ name: `${brand.slug}/${mediaFileName(item)}`, open: async () => createReadStream(services.media.pathOf(item.recording?.storedHash ?? item.storedHash)) });
    }
  }
  return entries;
}

export const recordFileName = (folder: string, kind: RecordKind): string => `${folder}/${kind}.jsonl`;

async function* lines(records: AsyncIterable<unknown>): AsyncGenerator<string> {
  for await (const record of records) yield `${JSON.stringify(record)}\n`;
}
