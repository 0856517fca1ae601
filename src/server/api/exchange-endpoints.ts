import { nanoid } from 'nanoid';
import * as contracts from '../../contract/exchange-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import type { PackageScope } from '../../contract/package-format.ts';
import { roleMay, whyNot } from '../../core/access/access.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import type { Caller } from '../auth/caller.ts';
import { findBrandBySlug } from '../db/brand-repository.ts';
import { enqueueJob, findJob, type Job } from '../db/job-repository.ts';
import { findPackage, insertPackage, listPackages, type IncomingPackage } from '../db/package-repository.ts';
import { listMemberships } from '../db/people-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { importPackageJob, lookJob, lookJobKey, packageJobKey, removePackage } from '../exchange/import-package.ts';
import { selectionOf, type Wanted } from '../exchange/selection.ts';
import { packageEntries, type PackedBrand } from '../exchange/write-package.ts';
import { waitForJob } from '../jobs/wait-for-job.ts';
import { requireRoom } from '../media/receive-upload.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';
import { writeZip } from '../zip/write-zip.ts';
import { takeArchivePlace, withEnd } from './archive-share.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const MAX_PACKAGES = 4;
/** A small package is read through within this time, mostly. */
const SOON_MS = 2_000;

async function answerPackage(services: Services, caller: Caller, request: Request, scope: PackageScope, brands: readonly PackedBrand[], name: string, nowMs: number): Promise<Response> {
  const entries = await packageEntries(services, scope, brands, nowMs);
  const giveBack = takeArchivePlace(caller.person.id);
  request.signal.addEventListener('abort', giveBack, { once: true });
  return new Response(withEnd(writeZip(entries, request.signal), giveBack), { headers: { 'content-type': 'application/zip', 'content-disposition': attachment(name), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' } });
}

function wantedOf({ scope, piece, month }: { readonly scope: 'brand' | 'piece' | 'month' | 'media'; readonly piece?: string | undefined; readonly month?: string | undefined }): Wanted {
  if (scope === 'brand' || scope === 'media') return { scope };
  if (scope === 'piece' && piece !== undefined) return { scope, pieceId: piece };
  if (scope === 'month' && month !== undefined) return { scope, month };
  throw new ProblemError(422, 'not-valid', `Name the ${scope} that the package is of.`);
}

const getBrandPackage = defineEndpoint({
  contract: contracts.getBrandPackage,
  may: 'make',
  async handle({ services, brand, caller, role, query, request, nowMs }) {
    const wanted = wantedOf(query);
    if (wanted.scope === 'brand' && !roleMay(role, 'brand')) throw new ProblemError(403, 'role-too-low', whyNot(role, 'brand', brand.name));
    const selection = await selectionOf(services, brand, wanted);
    const what = wanted.scope === 'month' ? wanted.month : wanted.scope === 'piece' ? `piece-${wanted.pieceId}` : `${wanted.scope}-${wallTimeOf(nowMs, brand.zone).slice(0, 10)}`;
    return answerPackage(services, caller, request, wanted.scope, [{ brand, selection }], `${brand.slug}-${what}.zip`, nowMs);
  },
});

const getWholePackage = defineEndpoint({
  contract: contracts.getWholePackage,
  may: 'signed-in',
  async handle({ services, caller, request, nowMs }) {
    const mine = (await listMemberships(services.db, caller.person.id)).filter(({ role }) => roleMay(role, 'brand'));
    const brands = (await Promise.all(mine.map(({ slug }) => findBrandBySlug(services.db, slug)))).flatMap((brand) => brand ?? []);
    if (brands.length === 0) throw new ProblemError(403, 'role-too-low', 'You may change no brand of this Confetti. Ask an owner for the package.');
    const packed = await Promise.all(brands.map(async (brand) => ({ brand, selection: await selectionOf(services, brand, { scope: 'brand' }) })));
    return answerPackage(services, caller, request, 'all', packed, `confetti-${new Date(nowMs).toISOString().slice(0, 10)}.zip`, nowMs);
  },
});

async function getMine(services: Services, caller: Caller, id: string): Promise<IncomingPackage> {
  const incoming = await findPackage(services.db, caller.person.id, id);
  if (!incoming) throw notFound('package');
  return incoming;
}

const workOf = (job: Job | null) => job && { state: job.state, progress: job.progress, problem: job.problem };

async function describe({ db, media }: Services, { id, name, bytes }: IncomingPackage): Promise<AnswerOf<typeof contracts.getPackage>> {
  type Answer = AnswerOf<typeof contracts.getPackage>;
  const [look, work] = [await findJob(db, lookJobKey(id)), await findJob(db, packageJobKey(id))];
  const received = look ? bytes : await new UploadParts(media).received(id);
  const report = work?.state === 'done' ? (work.result as { readonly brands: readonly { readonly slug: string; readonly name: string; readonly isNew: boolean; readonly report: Pick<NonNullable<Answer['report']>['brands'][number], 'counts' | 'notes'> }[] } | null) : null;
  return {
    id,
    name,
    bytes,
    received,
    look: workOf(look),
    found: look?.state === 'done' ? (look.result as unknown as Answer['found']) : null,
    import: workOf(work),
    report: report && { brands: report.brands.map((brand) => ({ slug: brand.slug, name: brand.name, isNew: brand.isNew, counts: brand.report.counts, notes: brand.report.notes })) },
  };
}

const startPackage = defineEndpoint({
  contract: contracts.startPackage,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body }) {
    const { db, clock, media } = services;
    if ((await listPackages(db, caller.person.id)).length >= MAX_PACKAGES) throw new ProblemError(429, 'too-many-packages', `You have ${MAX_PACKAGES} packages here already. Remove one of them first.`);
    requireRoom(media.dataFolder, body.bytes);
    const incoming = { id: nanoid(16), personId: caller.person.id, name: body.name, bytes: body.bytes, startedMs: clock.machineNowMs() };
    await insertPackage(db, incoming);
    return describe(services, { ...incoming, begun: [] });
  },
});

const sendPackagePart = defineEndpoint({
  contract: contracts.sendPackagePart,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, params, query, request }) {
    const { db, clock, media } = services;
    const incoming = await getMine(services, caller, params.package);
    // The last part may be sent again, when its answer was lost.
    if (await findJob(db, lookJobKey(incoming.id))) return describe(services, incoming);
    const received = await new UploadParts(media).append(incoming.id, query.at, incoming.bytes, request);
    if (received >= incoming.bytes) {
      await enqueueJob(db, lookJob(incoming.id), clock.machineNowMs());
      await waitForJob(db, lookJobKey(incoming.id), SOON_MS, request.signal);
    }
    return describe(services, incoming);
  },
});

const getPackage = defineEndpoint({ contract: contracts.getPackage, may: 'signed-in', handle: async ({ services, caller, params }) => describe(services, await getMine(services, caller, params.package)) });

const importPackage = defineEndpoint({
  contract: contracts.importPackage,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, params }) {
    const { db, clock } = services;
    const incoming = await getMine(services, caller, params.package);
    if ((await findJob(db, lookJobKey(incoming.id)))?.state !== 'done') throw new ProblemError(409, 'not-possible-now', 'The package has to be read through first.');
    // Pressed twice, it is one import; one that failed begins anew.
    await enqueueJob(db, importPackageJob(incoming.id), clock.machineNowMs(), { again: (await findJob(db, packageJobKey(incoming.id)))?.state === 'failed' });
    return describe(services, incoming);
  },
});

const dropPackage = defineEndpoint({
  contract: contracts.dropPackage,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, params }) {
    await removePackage(services, await getMine(services, caller, params.package));
    return undefined;
  },
});

export const exchangeEndpoints: readonly Endpoint[] = [getBrandPackage, getWholePackage, startPackage, sendPackagePart, getPackage, importPackage, dropPackage];
