import * as contracts from '../../contract/word-contracts.ts';
import type { DeskVersion } from '../../core/write/desk.ts';
import { isWebAddress } from '../../core/words/fields.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findLinkCard } from '../db/link-card-repository.ts';
import { findPiece, type StoredPiece } from '../db/piece-repository.ts';
import { pageShortLinks, type ShortLink } from '../db/short-link-repository.ts';
import { findWritingService, removeWritingService, saveWritingService } from '../db/writing-service-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { briefFor } from '../words/desk-brief.ts';
import { linkCard } from '../words/link-card.ts';
import { proposeHashtags as propose } from '../words/propose-hashtags.ts';
import { shortLinkTo } from '../words/short-link.ts';
import { suggestWords as suggest } from '../words/suggest-words.ts';
import { askService, requestBody, type HeaderValues } from '../words/writing-service.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const suggestWords = defineEndpoint({
  contract: contracts.suggestWords,
  may: 'see',
  handle: async ({ services, brand, query }) => ({ items: [...(await suggest(services, brand, query.word, query.channel ?? null))] }),
});

const proposeHashtags = defineEndpoint({
  contract: contracts.proposeHashtags,
  may: 'see',
  async handle({ services, brand, body }) {
    const { tags, leftOut, places, note } = await propose(services, brand, { text: body.text, present: body.present, channelId: body.channel, sort: body.sort, place: body.place });
    return { tags: [...tags], leftOut: [...leftOut], places: [...places], note };
  },
});

async function getPiece(services: Services, brand: Brand, id: string): Promise<StoredPiece> {
  const piece = await findPiece(services.db, brand.id, id);
  if (!piece) throw notFound('piece');
  return piece;
}

const SERVICE_FAILED = 'The writing service did not help: ';

const askDesk = defineEndpoint({
  contract: contracts.askDesk,
  may: 'make',
  async handle({ services, brand, params, body }) {
    const brief = await briefFor(services, brand, await getPiece(services, brand, params.piece), body);
    const service = body.service ? await findWritingService(services.db, brand.id) : null;
    let excuse = '';
    if (service?.isOn) {
      try {
        const versions = await askService(services, service, brief);
        return { versions: versions.map(forWire), note: '', by: 'service' as const };
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        services.log.info({ err: error, brand: brand.id }, 'the writing service did not help');
        excuse = `${SERVICE_FAILED}${error.sentence} The desk wrote these. `;
      }
    }
    const { versions, note } = await services.words.run({ kind: 'desk', brief });
    return { versions: versions.map(forWire), note: `${excuse}${note}`, by: 'desk' as const };
  },
});

function forWire({ text, used, leftOut, marked, fits }: DeskVersion) {
  return { text, used: [...used], leftOut: [...leftOut], marked: marked.map(({ kind, text: span }) => ({ kind, text: span })), fits };
}

const showWritingRequest = defineEndpoint({
  contract: contracts.showWritingRequest,
  may: 'make',
  async handle({ services, brand, params, body }) {
    const service = await findWritingService(services.db, brand.id);
    if (!service) throw notFound('writing service');
    const brief = await briefFor(services, brand, await getPiece(services, brand, params.piece), body);
    return { address: service.address, headers: headersOf(services, service.headers).map(({ name }) => name), body: requestBody(service, brief) };
  },
});

const checkSpelling = defineEndpoint({
  contract: contracts.checkSpelling,
  may: 'see',
  async handle({ services, brand, body }) {
    const { voice, facts, language } = brand.book;
    const own = [brand.name, ...facts.flatMap(({ name, text }) => [name, text]), ...voice.words.map(({ prefer }) => prefer), ...voice.people.map(({ name }) => name), ...voice.hashtags.map((tag) => tag.replace(/(?<=\p{Ll})(?=\p{Lu})/gu, ' ')), ...voice.snippets.map(({ text }) => text)];
    const { mistakes, language: used } = await services.words.run({ kind: 'spelling', texts: body.texts, language: language ?? null, own });
    return { mistakes: mistakes.map(({ word, proposals }) => ({ word, proposals: [...proposals] })), language: used };
  },
});

const readLinkCard = defineEndpoint({
  contract: contracts.readLinkCard,
  may: 'see',
  async handle({ services, brand, query }) {
    const { title, description, site, picture, problem } = await linkCard(services, brand, query.address);
    return { title, description, site, hasPicture: picture !== null, problem };
  },
});

const getLinkPicture = defineEndpoint({
  contract: contracts.getLinkPicture,
  may: 'see',
  async handle({ services, brand, query }) {
    const card = await findLinkCard(services.db, brand.id, query.address);
    if (!card?.picture) throw notFound('picture of this link');
    return new Response(new Uint8Array(card.picture), { headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=86400' } });
  },
});

function shortAddress({ settings }: Services, request: Request, code: string): string {
  return `${settings.origin ?? new URL(request.url).origin}/l/${code}`;
}

function describeLink(services: Services, request: Request, { code, target, label, createdMs }: ShortLink, clicks: number) {
  return { code, address: shortAddress(services, request, code), target, label, clicks, createdMs };
}

const createShortLink = defineEndpoint({
  contract: contracts.createShortLink,
  may: 'make',
  async handle({ services, brand, caller, body, request }) {
    if (isWebAddress(body.target.trim()) && new URL(body.target.trim()).host === new URL(shortAddress(services, request, 'x')).host) throw new ProblemError(422, 'own-address', 'This is an address of Confetti itself. Shorten the page that it leads to.');
    return describeLink(services, request, await shortLinkTo(services, brand, body.target, body.label, caller.person.id), 0);
  },
});

const PAGE = 50;

const listShortLinks = defineEndpoint({
  contract: contracts.listShortLinks,
  may: 'see',
  handle: async ({ services, brand, query, request }) => ({ items: (await pageShortLinks(services.db, brand.id, query.before ?? null, query.limit ?? PAGE)).map((link) => describeLink(services, request, link, link.clicks)) }),
});

function headersOf(services: Services, sealed: string): HeaderValues {
  return JSON.parse(services.sealer.open(sealed)) as HeaderValues;
}

const getWritingService = defineEndpoint({
  contract: contracts.getWritingService,
  may: 'see',
  async handle({ services, brand }) {
    const service = await findWritingService(services.db, brand.id);
    if (!service) return { service: null };
    const { address, body, answerPath, isOn, agreedBy, headers } = service;
    return { service: { address, body, answerPath, isOn, agreedBy, headers: headersOf(services, headers).map(({ name }) => name) } };
  },
});

const saveService = defineEndpoint({
  contract: contracts.saveWritingService,
  // Texts leave Confetti by this: owners alone decide it, as they do who belongs to the brand.
  may: 'people',
  only: 'session',
  async handle({ services, brand, caller, body }) {
    if (!isWebAddress(body.address)) throw new ProblemError(422, 'no-address', 'This web address is incomplete. Start it with https://');
    const kept = await findWritingService(services.db, brand.id);
    // A key goes on being sent to the address that it was entered for, and nowhere else.
    const before = kept && new URL(kept.address).host === new URL(body.address).host ? headersOf(services, kept.headers) : [];
    const headers = body.headers.map(({ name, value }) => ({ name, value: value !== '' ? value : (before.find((each) => each.name === name)?.value ?? '') }));
    const broken = headers.find(({ value }) => /[^\t\u0020-\u007e]/u.test(value));
    if (broken) throw new ProblemError(422, 'not-valid', `The value of ${broken.name} has characters that no header may have.`);
    await saveWritingService(services.db, { brandId: brand.id, address: body.address, headers: services.sealer.seal(JSON.stringify(headers)), body: body.body, answerPath: body.answerPath, isOn: body.isOn, agreedBy: caller.person.name, agreedMs: services.clock.machineNowMs() });
    services.log.info({ event: 'writing-service-set', brand: brand.id, person: caller.person.id, on: body.isOn }, 'a writing service was set');
    return { isOn: body.isOn };
  },
});

const removeService = defineEndpoint({
  contract: contracts.removeWritingService,
  // Texts leave Confetti by this: owners alone decide it, as they do who belongs to the brand.
  may: 'people',
  only: 'session',
  async handle({ services, brand }) {
    await removeWritingService(services.db, brand.id);
    return undefined;
  },
});

export const wordEndpoints: readonly Endpoint[] = [suggestWords, proposeHashtags, askDesk, showWritingRequest, checkSpelling, readLinkCard, getLinkPicture, createShortLink, listShortLinks, getWritingService, saveService, removeService];
