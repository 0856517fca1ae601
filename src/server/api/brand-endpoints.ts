import { readFile, rm } from 'node:fs/promises';
import { IANAZone } from 'luxon';
import { nanoid } from 'nanoid';
import { ValidationError } from 'yup';
import * as contracts from '../../contract/brand-contracts.ts';
import { BrandBookError, mediaOfBook, type BrandBook } from '../../core/brand/brand-book.ts';
import { bookToCss } from '../../core/brand/exchange/css-properties.ts';
import { bookToTokens } from '../../core/brand/exchange/design-tokens.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { bookToPalette } from '../../core/brand/exchange/palette.ts';
import { readBrandBook } from '../../core/brand/read-brand-book.ts';
import { placementsFor } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';
import { personMayBeginBrands } from '../auth/me.ts';
import { makeInvitation } from '../auth/one-time-links.ts';
import { changeNameAndZone } from '../brand/change-zone.ts';
import { importMark } from '../brand/import-mark.ts';
import { readWebPage } from '../brand/read-brand-source.ts';
import { keepAccounts, openStandinAccounts } from '../brand/standin-accounts.ts';
import { freeSlug, insertBrand, listChannelSummaries, listSheetsOf, saveBook, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { endInvitation as endLinkOf, listInvitations as invitationsOf } from '../db/link-repository.ts';
import { changeRole, insertMembership, listMembers, removeMember } from '../db/people-repository.ts';
import { hasTypefaces, keepTypeface } from '../db/typeface-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { MAX_TYPEFACE_BYTES } from '../readers/reading-limits.ts';
import { receiveUpload } from '../media/receive-upload.ts';
import type { Services } from '../services.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';
import { fileResponse } from './file-response.ts';
import { describeMedia } from './describe-media.ts';

const getBrand = defineEndpoint({
  contract: contracts.getBrand,
  may: 'see',
  async handle({ services, brand }) {
    return {
      slug: brand.slug,
      name: brand.name,
      zone: brand.zone,
      revision: brand.revision,
      book: brand.book,
      channels: [...(await listChannelSummaries(services.db, brand.id))],
      sheets: [...(await listSheetsOf(services.db, brand.id))],
      markPictures: (await findMediaByIds(services.db, brand.id, mediaOfBook(brand.book))).map(describeMedia),
    };
  },
});

/**
 * A book as it may be kept: by its schema, with everything that it names.
 * @throws ProblemError 422 naming the first fault
 */
async function readBook(services: Services, brandId: string | null, given: unknown): Promise<BrandBook> {
  try {
    const book = readBrandBook(given);
    for (const role of Object.values(book.type)) {
      if (!book.typefaces.some((typeface) => typeface.key === role.font)) getShelfFont(role.font);
    }
    const hashes = book.typefaces.map((typeface) => typeface.hash);
    const pictures = mediaOfBook(book);
    const isOwn = brandId === null ? hashes.length + pictures.length === 0 : (await hasTypefaces(services.db, brandId, hashes)) && (await findMediaByIds(services.db, brandId, pictures)).length === new Set(pictures).size;
    if (!isOwn) throw new ProblemError(422, 'unknown-file', 'The book names a typeface or a picture that the brand does not have.');
    return book;
  } catch (error) {
    if (error instanceof ValidationError || error instanceof BrandBookError || error instanceof RangeError) throw new ProblemError(422, 'not-valid', error.message);
    throw error;
  }
}

const changeBook = defineEndpoint({
  contract: contracts.changeBook,
  may: 'brand',
  async handle({ services, brand, body }) {
    const saved = await saveBook(services.db, brand.id, body.revision, await readBook(services, brand.id, body.book));
    if (!saved) throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed the brand book.', { current: { revision: brand.revision, book: brand.book } });
    return { revision: saved.revision, book: saved.book };
  },
});

const addTypeface = defineEndpoint({
  contract: contracts.addTypeface,
  may: 'brand',
  async handle({ services, brand, query, request, nowMs }) {
    const received = await receiveUpload(request, services.media, () => MAX_TYPEFACE_BYTES);
    try {
      const typeface = await services.readers.read({ kind: 'typeface', bytes: await readFile(received.path), name: query.name });
      const hash = await services.media.keep(typeface.bytes);
      const { family, weight } = typeface;
      await keepTypeface(services.db, brand.id, { hash, family, weight }, nowMs);
      return { key: `own-${hash.slice(0, 12)}`, family, weight, hash };
    } finally {
      await rm(received.path, { force: true });
    }
  },
});

const getTypefaceFile = defineEndpoint({
  contract: contracts.getTypefaceFile,
  may: 'see',
  async handle({ services, brand, params, request }) {
    if (!(await hasTypefaces(services.db, brand.id, [params.hash]))) throw notFound('typeface');
    return fileResponse(request, services.media.pathOf(params.hash), 'font/ttf', 'for-good');
  },
});

const readMark = defineEndpoint({
  contract: contracts.readMark,
  may: 'brand',
  async handle({ services, brand, query, request, nowMs }) {
    const received = await receiveUpload(request, services.media);
    try {
      const { mark, notes, isPart, picture } = await importMark(services, brand, received, query.name, nowMs);
      return { mark, notes: [...notes], isPart, picture: picture ? describeMedia(picture) : null };
    } finally {
      await rm(received.path, { force: true });
    }
  },
});

const exportForms: Readonly<Record<contracts.ExportForm, { readonly file: string; readonly mime: string; readonly write: (brand: Brand) => string }>> = {
  tokens: { file: 'tokens.json', mime: 'application/json', write: (brand) => `${JSON.stringify(bookToTokens(brand.book, brand.name), null, 2)}\n` },
  css: { file: 'brand.css', mime: 'text/css', write: (brand) => bookToCss(brand.book, brand.name) },
  palette: { file: 'palette.gpl', mime: 'text/plain', write: (brand) => bookToPalette(brand.book, brand.name) },
};

const exportBook = defineEndpoint({
  contract: contracts.exportBook,
  may: 'see',
  async handle({ brand, params }) {
    const form = exportForms[params.form];
    return new Response(form.write(brand), {
      headers: { 'content-type': `${form.mime}; charset=utf-8`, 'content-disposition': attachment(`${brand.slug}-${form.file}`), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' },
    });
  },
});

const readBrandSource = defineEndpoint({
  contract: contracts.readBrandSource,
  may: 'signed-in',
  async handle({ services, body }) {
    if (body.address) return readWebPage(body.address, services);
    if (body.files && body.files.length > 0) return services.readers.read({ kind: 'brand-files', files: body.files });
    throw new ProblemError(422, 'no-source', 'Give the address of a web page, or files.');
  },
});

const listStandinNetworks = defineEndpoint({
  contract: contracts.listStandinNetworks,
  may: 'signed-in',
  handle: ({ services }) =>
    Promise.resolve({ networks: services.settings.standinOrigin === null ? [] : shippedSheets.map((sheet) => ({ key: sheet.key, name: sheet.name, placements: placementsFor(sheet, 'graphic').length })) }),
});

const createBrand = defineEndpoint({
  contract: contracts.createBrand,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body }) {
    if (!(await personMayBeginBrands(services, caller.person.id))) throw new ProblemError(403, 'may-not-begin', 'You may not begin brands here. Ask whoever runs this Confetti.');
    if (!isZone(body.zone)) throw new ProblemError(422, 'unknown-zone', `There is no time zone '${body.zone}'.`);
    const book = await readBook(services, null, body.book);
    const id = nanoid(12);
    // The networks answer first: without them there is no half a brand.
    const channels = await openStandinAccounts(services, { brandId: id, brandName: body.name, handle: body.handle, networks: body.networks });
    return services.db.transaction(async (trx) => {
      const slug = await freeSlug(trx, keyFrom(body.name, 'brand'));
      await insertBrand(trx, { id, slug, name: body.name, zone: body.zone, book });
      await insertMembership(trx, caller.person.id, id, 'owner');
      await keepAccounts(trx, channels);
      return { slug };
    });
  },
});

const changeBrand = defineEndpoint({
  contract: contracts.changeBrand,
  may: 'brand',
  async handle({ services, brand, body, nowMs }) {
    if (!isZone(body.zone)) throw new ProblemError(422, 'unknown-zone', `There is no time zone '${body.zone}'.`);
    await changeNameAndZone(services, brand, { name: body.name, zone: body.zone, keep: body.keep ?? 'moment' }, nowMs);
    return { name: body.name, zone: body.zone };
  },
});

function isZone(zone: string): boolean {
  return IANAZone.isValidZone(zone);
}

const listTheMembers = defineEndpoint({ contract: contracts.listMembers, may: 'see', handle: async ({ services, brand }) => ({ people: [...(await listMembers(services.db, brand.id))] }) });

const listInvitations = defineEndpoint({
  contract: contracts.listInvitations,
  may: 'people',
  only: 'session',
  async handle({ services, brand }) {
    const open = await invitationsOf(services.db, brand.id, services.clock.machineNowMs());
    return { invitations: open.map(({ id, email, role, expiresMs }) => ({ id, email, role, expiresMs })) };
  },
});

const MAX_INVITATIONS = 100;

const invite = defineEndpoint({
  contract: contracts.invite,
  may: 'people',
  only: 'session',
  async handle(context) {
    const { services, brand, caller, body } = context;
    const nowMs = services.clock.machineNowMs();
    if ((await invitationsOf(services.db, brand.id, nowMs)).length >= MAX_INVITATIONS) throw new ProblemError(409, 'too-many-invitations', `There are ${MAX_INVITATIONS} open invitations. End one first.`);
    const { id, path, expiresMs } = await makeInvitation(services.db, { brandId: brand.id, role: body.role, email: body.email, madeBy: caller.person.id }, nowMs);
    services.log.info({ event: 'invited', person: caller.person.id, brand: brand.id, role: body.role, invitation: id }, 'invited a person');
    await noteActOf(context, 'people', id, `Invited ${body.email} as ${body.role}`);
    return { invitation: { id, email: body.email, role: body.role, expiresMs }, path };
  },
});

const endInvitation = defineEndpoint({
  contract: contracts.endInvitation,
  may: 'people',
  only: 'session',
  async handle(context) {
    const { services, brand, params } = context;
    if (!(await endLinkOf(services.db, brand.id, params.invitation, services.clock.machineNowMs()))) throw notFound('invitation');
    await noteActOf(context, 'people', params.invitation, 'Ended an invitation');
    return undefined;
  },
});

async function getMember(services: Services, brand: Brand, personId: string) {
  const member = (await listMembers(services.db, brand.id)).find((each) => each.id === personId);
  if (!member) throw notFound('person in this brand');
  return member;
}

const lastOwner = (): ProblemError => new ProblemError(409, 'last-owner', 'A brand has at least one owner. Make somebody else owner first.');

const changeMember = defineEndpoint({
  contract: contracts.changeMember,
  may: 'people',
  only: 'session',
  async handle(context) {
    const { services, brand, caller, params, body } = context;
    const { name } = await getMember(services, brand, params.person);
    if (!(await changeRole(services.db, brand.id, params.person, body.role))) throw lastOwner();
    services.log.info({ event: 'role-changed', person: params.person, brand: brand.id, role: body.role, by: caller.person.id }, 'changed a role');
    await noteActOf(context, 'people', params.person, `Made ${name} ${body.role}`);
    return getMember(services, brand, params.person);
  },
});

const takeMemberOut = defineEndpoint({
  contract: contracts.removeMember,
  may: 'people',
  only: 'session',
  async handle(context) {
    const { services, brand, caller, params } = context;
    const { name } = await getMember(services, brand, params.person);
    if (!(await removeMember(services.db, brand.id, params.person))) throw lastOwner();
    services.log.info({ event: 'member-removed', person: params.person, brand: brand.id, by: caller.person.id }, 'removed a person from a brand');
    await noteActOf(context, 'people', params.person, `Removed ${name}`);
    return undefined;
  },
});

export const brandEndpoints: readonly Endpoint[] = [
  getBrand,
  createBrand,
  changeBrand,
  readBrandSource,
  listStandinNetworks,
  changeBook,
  exportBook,
  addTypeface,
  getTypefaceFile,
  readMark,
  listTheMembers,
  listInvitations,
  invite,
  endInvitation,
  changeMember,
  takeMemberOut,
];
