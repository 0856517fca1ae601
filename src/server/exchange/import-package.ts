import { recordKinds, type Outcome, type RecordKind, type RecordOf } from '../../contract/package-format.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { BrandBookError, mediaOfBook, type BrandBook } from '../../core/brand/brand-book.ts';
import { readBrandBook, upgradeBrandBook } from '../../core/brand/read-brand-book.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';
import { documentHash } from '../db/document-repository.ts';
import { freeSlug, findBrandById, insertBrand, saveBook } from '../db/brand-repository.ts';
import { dropBegunBrand, findRoleIn } from '../db/exchange-repository.ts';
import { keepIdeaSettings } from '../db/idea-repository.ts';
import { keepLearnSettings } from '../db/learn-settings-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { deletePackage, findPackageById, noteBegun, type IncomingPackage } from '../db/package-repository.ts';
import { insertMembership, mayBeginBrands } from '../db/people-repository.ts';
import { savePlan, setHeld } from '../db/plan-repository.ts';
import { saveSendSettings } from '../db/send-settings-repository.ts';
import { hasTypefaces } from '../db/typeface-repository.ts';
import { moveJob, type NewJob } from '../db/job-repository.ts';
import { ProblemError } from '../errors.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { UploadParts } from '../media/upload-parts.ts';
import { count, newReport, note, type ImportContext, type ImportReport, type ImportServices } from './import-context.ts';
import { keepers } from './keep-records.ts';
import { openPackage, readRecords, type OpenPackage } from './read-package.ts';

const LOOK = 'package-look';
const IMPORT = 'package-import';
const MAX_ATTEMPTS = 3;

export const lookJobKey = (packageId: string): string => `${LOOK}:${packageId}`;
export const packageJobKey = (packageId: string): string => `${IMPORT}:${packageId}`;

/** Reads a whole package and changes nothing. */
export function lookJob(packageId: string): NewJob {
  return { key: lookJobKey(packageId), kind: LOOK, lane: 'import', payload: { packageId }, maxAttempts: MAX_ATTEMPTS, priority: 1 };
}

export function importPackageJob(packageId: string): NewJob {
  return { key: packageJobKey(packageId), kind: IMPORT, lane: 'import', payload: { packageId }, maxAttempts: MAX_ATTEMPTS, priority: 1 };
}

/** What a package has of one brand, and what would become of it here. */
export interface BrandLook {
  readonly id: string;
  readonly name: string;
  /** The brand is here, and this person may change it; it is not here, and they may begin it; or why neither. */
  readonly target: { readonly kind: 'new' } | { readonly kind: 'here'; readonly slug: string } | { readonly kind: 'not yours'; readonly sentence: string };
  readonly counts: Partial<Record<RecordKind, number>>;
}

async function targetOf({ db }: Pick<ImportServices, 'db'>, brandId: string, personId: string): Promise<BrandLook['target']> {
  const found = await findRoleIn(db, brandId, personId);
  // A brand without members is one that an import has begun.
  if (!found || found.members === 0) return (await mayBeginBrands(db, personId)) ? { kind: 'new' } : { kind: 'not yours', sentence: 'You may not begin brands on this Confetti. Ask whoever runs it.' };
  if (found.role !== null && roleMay(found.role as Role, 'brand')) return { kind: 'here', slug: found.slug };
  return { kind: 'not yours', sentence: 'This brand is here already, and you may not change it. Ask one of its owners to import the package.' };
}

/** Checks every record of a package, so that a damaged package is refused before the import. */
export function lookHandler(services: ImportServices): JobHandler {
  return {
    run: (job, { signal, progress }) => withPackage(services, job.payload['packageId'] as string, async (incoming, opened) => {
      const { brands } = opened.manifest;
      const looks: BrandLook[] = [];
      for (const [at, { id, name, folder }] of brands.entries()) {
        const counts: Partial<Record<RecordKind, number>> = {};
        await brandRecord(opened, folder, id, signal);
        for (const [step, kind] of recordKinds.entries()) {
          for await (const record of readRecords(opened, folder, kind, signal)) {
            counts[kind] = (counts[kind] ?? 0) + 1;
            if ('file' in record && !opened.zip.names.has(`${folder}/${record.file}`)) throw new ProblemError(422, 'file-missing', `The package has no file “${folder}/${record.file}”. Export it again.`);
          }
          progress((at + (step + 1) / recordKinds.length) / brands.length);
        }
        looks.push({ id, name, target: await targetOf(services, id, incoming.personId), counts });
      }
      return { scope: opened.manifest.scope, madeMs: opened.manifest.madeMs, brands: looks };
    }),
  };
}

/** The brand of a folder: a package has exactly one there, of the id that it says. */
async function brandRecord(opened: OpenPackage, folder: string, id: string, signal: AbortSignal): Promise<RecordOf<'brand'>> {
  for await (const record of readRecords(opened, folder, 'brand', signal)) if (record.id === id) return record;
  throw new ProblemError(422, 'damaged-package', `The package does not say what the brand in “${folder}” is. Export it again.`);
}

/** Opens a package for some work; what is wrong with it is answered as a sentence. */
async function withPackage(services: ImportServices, packageId: string, work: (incoming: IncomingPackage, opened: OpenPackage) => Promise<object>): Promise<Awaited<ReturnType<JobHandler['run']>>> {
  const incoming = await findPackageById(services.db, packageId);
  // It was dropped meanwhile.
  if (!incoming) return { kind: 'done' };
  let opened: OpenPackage | null = null;
  try {
    opened = await openPackage(new UploadParts(services.media).pathOf(packageId));
    return { kind: 'done', result: (await work(incoming, opened)) as Record<string, unknown> };
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    return { kind: 'failed', problem: error.sentence, result: { code: error.code } };
  } finally {
    opened?.zip.close();
  }
}

/** Bytes of files are what takes time; a record counts as so many. */
const RECORD_BYTES = 2_000;

/**
 * Imports what this installation does not have yet. What is here stays as it is, but for pieces of which the package has the newer
 * state. Cancelled or failed, it removes what it has imported; another attempt resumes.
 */
export function importPackageHandler(services: ImportServices): JobHandler {
  return {
    run: (job, { signal, progress }) => withPackage(services, job.payload['packageId'] as string, async (incoming, opened) => {
      const undo: ImportContext['undo'] = [];
      // Kept here as well: the row goes with the package when a person removes it.
      const begun: string[] = [];
      try {
        const brands: { slug: string; name: string; isNew: boolean; report: ImportReport }[] = [];
        const all = opened.manifest.brands.length;
        for (const [at, { id, folder }] of opened.manifest.brands.entries()) brands.push(await importBrand(services, incoming, opened, { id, folder }, { undo, begun }, signal, (share) => progress((at + share) / all)));
        return { brands };
      } catch (error) {
        // After an unknown error another attempt resumes; after a cancel or a fault everything is removed.
        if (signal.aborted ? await isStopped(services, incoming.id) : error instanceof ProblemError) await takeBack(services, { begun: [...incoming.begun, ...begun], id: incoming.id }, undo);
        throw error;
      }
    }),
    async giveUp(job) {
      const incoming = await findPackageById(services.db, job.payload['packageId'] as string);
      if (incoming) await takeBack(services, incoming, []);
    },
  };
}

/** A worker that stops begins the import anew; a person who stops it does not. */
async function isStopped({ db }: Pick<ImportServices, 'db'>, packageId: string): Promise<boolean> {
  return (await findPackageById(db, packageId)) === null || (await db('jobs').where({ key: packageJobKey(packageId), state: 'cancelled' }).first('id')) !== undefined;
}

/** Nothing half made stays. */
async function takeBack({ db }: Pick<ImportServices, 'db'>, { id, begun }: Pick<IncomingPackage, 'id' | 'begun'>, undo: ImportContext['undo']): Promise<void> {
  for (const back of undo.toReversed()) await back();
  for (const brandId of begun) await dropBegunBrand(db, brandId);
  await noteBegun(db, id, []);
}

/** Stops what is done with a package, and removes it; nothing half made stays. */
export async function removePackage(services: Pick<ImportServices, 'db' | 'clock' | 'media'>, { id }: IncomingPackage): Promise<void> {
  const { db, clock, media } = services;
  for (const key of [lookJobKey(id), packageJobKey(id)]) await moveJob(db, key, 'cancel', clock.machineNowMs());
  const now = await findPackageById(db, id);
  if (now) await takeBack(services, now, []);
  await deletePackage(db, id);
  await new UploadParts(media).drop(id);
}

/** @throws ProblemError when the person may not, or the package is at fault */
async function importBrand(services: ImportServices, incoming: IncomingPackage, opened: OpenPackage, { id, folder }: { readonly id: string; readonly folder: string }, { undo, begun }: { readonly undo: ImportContext['undo']; readonly begun: string[] }, signal: AbortSignal, progress: (share: number) => void) {
  const { db, clock } = services;
  const target = await targetOf(services, id, incoming.personId);
  if (target.kind === 'not yours') throw new ProblemError(403, 'not-yours', target.sentence);
  const record = await brandRecord(opened, folder, id, signal);
  const book = readBook(record.book);
  const report = newReport();
  const isNew = target.kind === 'new';
  if (isNew) {
    begun.push(id);
    await beginBrand(services, incoming.id, record, book);
  }
  if (!isNew) {
    const here = await findBrandById(db, id);
    const isSame = documentHash(here?.book ?? null) === documentHash(book);
    if (!isSame) note(report, 'The brand book in the package is another one: the book stays as it is here.');
    count(report, 'brand', isSame ? 'here' : 'both');
  }
  const context: ImportContext = { services, opened, folder, brandId: id, isNewBrand: isNew, personId: incoming.personId, nowMs: await clock.nowMs(), machineNowMs: clock.machineNowMs(), signal, sameMedia: new Map(), undo, report };
  const whole = sizeOf(opened, folder);
  let done = 0;
  for (const kind of recordKinds) {
    if (kind === 'brand') continue;
    // What a keeper of a kind takes is what the reader of that kind gives; types cannot follow a key through both.
    const keep = keepers[kind] as (context: ImportContext, each: unknown) => Promise<Outcome | null>;
    for await (const each of readRecords(opened, folder, kind, signal)) {
      const outcome = await keep(context, each);
      if (outcome !== null) count(report, kind, outcome);
      signal.throwIfAborted();
      done += RECORD_BYTES + ('file' in each ? opened.zip.sizeOf(`${folder}/${each.file}`) : 0);
      progress(Math.min(1, done / whole));
    }
  }
  if (isNew) {
    await endBrand(context, record, book);
    count(report, 'brand', 'new');
    note(report, 'The brand arrives on hold, and its channels without access. Connect them again, look through the plan, then let it go.');
  }
  // All of it has come: what follows may fail without touching this brand.
  undo.length = 0;
  begun.length = 0;
  await noteBegun(db, incoming.id, []);
  const brand = await findBrandById(db, id);
  return { slug: brand?.slug ?? '', name: brand?.name ?? record.name, isNew, report };
}

function readBook(given: unknown): BrandBook {
  try {
    const book = readBrandBook(upgradeBrandBook(given));
    for (const role of Object.values(book.type)) if (!book.typefaces.some(({ key }) => key === role.font)) getShelfFont(role.font);
    return book;
  } catch (error) {
    if (error instanceof RangeError || error instanceof BrandBookError) throw new ProblemError(422, 'damaged-package', `The brand book of the package cannot be used: ${error.message}`);
    throw error;
  }
}

/** The brand is there for its records to stand in; nobody is in it until all have come. */
async function beginBrand({ db }: ImportServices, packageId: string, record: RecordOf<'brand'>, book: BrandBook): Promise<void> {
  if (await findBrandById(db, record.id)) return;
  const begun = (await findPackageById(db, packageId))?.begun ?? [];
  await noteBegun(db, packageId, [...begun, record.id]);
  await insertBrand(db, { id: record.id, slug: await freeSlug(db, record.slug), name: record.name, zone: record.zone, book });
}

/** The brand has everything that its book names; the person becomes its owner. */
async function endBrand({ services: { db }, brandId, personId, sameMedia, nowMs, machineNowMs }: ImportContext, record: RecordOf<'brand'>, book: BrandBook): Promise<void> {
  const pictures = mediaOfBook(book).map((id) => sameMedia.get(id) ?? id);
  const isWhole = (await hasTypefaces(db, brandId, book.typefaces.map(({ hash }) => hash))) && (await findMediaByIds(db, brandId, pictures)).length === new Set(pictures).size;
  if (!isWhole) throw new ProblemError(422, 'damaged-package', 'The brand book of the package names a typeface or a picture that the package does not have. Export it again.');
  const marks = book.marks.map((mark) => (mark.kind === 'picture' ? { ...mark, mediaId: sameMedia.get(mark.mediaId) ?? mark.mediaId } : mark));
  if (sameMedia.size > 0) await saveBook(db, brandId, 1, { ...book, marks });
  await savePlan(db, brandId, 1, record.plan, machineNowMs);
  await saveSendSettings(db, brandId, record.sendSettings);
  await keepLearnSettings(db, brandId, record.learnSettings);
  await keepIdeaSettings(db, brandId, record.ideaSettings);
  await db.transaction(async (trx) => {
    await setHeld(trx, brandId, nowMs, machineNowMs);
    await insertMembership(trx, personId, brandId, 'owner');
  });
}

/** Bytes of all that a brand has in a package. */
function sizeOf({ zip }: OpenPackage, folder: string): number {
  return [...zip.names].filter((name) => name.startsWith(`${folder}/`)).reduce((sum, name) => sum + zip.sizeOf(name), 1);
}
