import { DateTime } from 'luxon';
import { customAlphabet } from 'nanoid';
import { isWebAddress } from '../../core/words/fields.ts';
import type { Brand } from '../db/brand-repository.ts';
import { countClick, findShortLink, keepShortLink, type ShortLink } from '../db/short-link-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

/** Letters and digits that cannot be mistaken for each other. */
const newCode = customAlphabet('23456789abcdefghjkmnpqrstuvwxyz', 8);
const BOTS = /bot|crawl|spider|slurp|preview|fetch|scan|monitor|curl|wget|python|java\/|headless|http-client/iu;

/** A short link to a web address that a member of the brand has entered. */
export async function shortLinkTo(services: Services, brand: Brand, target: string, label: string, personId: string): Promise<ShortLink> {
  const trimmed = target.trim();
  if (!isWebAddress(trimmed)) throw new ProblemError(422, 'no-address', 'This web address is incomplete. Start it with https://');
  const { username, password } = new URL(trimmed);
  if (username !== '' || password !== '') throw new ProblemError(422, 'no-address', 'An address with a name and password in it gets no short link.');
  return keepShortLink(services.db, { code: newCode(), brandId: brand.id, target: trimmed, label, createdBy: personId, createdMs: services.clock.machineNowMs() });
}

/**
 * Where a short link leads, with the click counted by day, source and country as headers say it; nothing that says who came is kept.
 * @returns null when there is no such link
 */
export async function followShortLink(services: Services, code: string, { method, headers }: Request): Promise<string | null> {
  if (!/^[a-z0-9]{4,20}$/u.test(code)) return null;
  const link = await findShortLink(services.db, code);
  if (!link) return null;
  if (method === 'GET') {
    const day = DateTime.fromMillis(await services.clock.nowMs(), { zone: link.zone }).toFormat('yyyy-MM-dd');
    const country = /^[A-Za-z]{2}$/u.exec(headers.get('x-country-code') ?? '')?.[0]?.toUpperCase() ?? '';
    const agent = headers.get('user-agent') ?? '';
    const click = { day, country: services.settings.proxies > 0 ? country : '', source: hostOf(headers.get('referer')), isBot: agent === '' || BOTS.test(agent) || headers.get('purpose') === 'prefetch' || headers.get('sec-purpose') !== null };
    // A click that cannot be counted leads on all the same.
    await countClick(services.db, code, click).catch((error: unknown) => services.log.warn({ err: error, code }, 'a click was not counted'));
  }
  return link.target;
}

function hostOf(referer: string | null): string {
  return referer !== null && URL.canParse(referer) ? new URL(referer).hostname.slice(0, 100) : '';
}
