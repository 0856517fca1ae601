import sharp from 'sharp';
import { isWebAddress } from '../../core/words/fields.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findLinkCard, saveLinkCard, type LinkCard } from '../db/link-card-repository.ts';
import { ProblemError } from '../errors.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import type { Services } from '../services.ts';

const FRESH_MS = 7 * 86_400_000;
/** A page that did not answer is asked again soon. */
const RETRY_MS = 10 * 60_000;
const MAX_PAGE_BYTES = 2 * 1024 * 1024;
const MAX_PICTURE_BYTES = 8 * 1024 * 1024;
const MAX_PICTURE_PIXELS = 40_000_000;
const PICTURE = { width: 480, height: 252 } as const;

/** The card of a page that the words link to, kept for a week. A page that cannot be read has a card that says why. */
export async function linkCard(services: Services, brand: Brand, address: string): Promise<LinkCard> {
  if (!isWebAddress(address)) throw new ProblemError(422, 'no-address', 'This web address is incomplete. Start it with https://');
  const nowMs = services.clock.machineNowMs();
  const kept = await findLinkCard(services.db, brand.id, address);
  if (kept && nowMs - kept.fetchedMs < (kept.problem === '' ? FRESH_MS : RETRY_MS)) return kept;
  const card = { ...(await fetchCard(services, address)), fetchedMs: nowMs };
  // A card that was there is better than none: a site may be away for a while.
  const better = card.problem !== '' && kept?.problem === '' ? { ...kept, fetchedMs: nowMs - FRESH_MS + RETRY_MS } : card;
  await saveLinkCard(services.db, brand.id, address, better);
  return better;
}

async function fetchCard(services: Services, address: string): Promise<Omit<LinkCard, 'fetchedMs'>> {
  const none = { title: '', description: '', site: new URL(address).hostname, picture: null };
  try {
    const { trustedHosts } = services.settings;
    const page = await guardedFetch(address, { mostBytes: MAX_PAGE_BYTES, trustedHosts, accept: 'text/html' });
    if (!page.mime.includes('html')) return { ...none, problem: 'This address is a file and no page.' };
    const found = await services.words.run({ kind: 'link-page', html: page.bytes.toString('utf8'), address: page.address });
    return { ...found, picture: found.picture === null ? null : await fetchPicture(services, found.picture), problem: '' };
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    return { ...none, problem: error.sentence };
  }
}

/** The page's picture, small; none where it cannot be had. */
async function fetchPicture(services: Services, address: string): Promise<Uint8Array | null> {
  try {
    const { bytes } = await guardedFetch(address, { mostBytes: MAX_PICTURE_BYTES, trustedHosts: services.settings.trustedHosts, accept: 'image/*' });
    return await sharp(bytes, { limitInputPixels: MAX_PICTURE_PIXELS }).rotate().resize({ ...PICTURE, fit: 'cover' }).jpeg({ quality: 80 }).toBuffer();
  } catch (error) {
    services.log.info({ err: error }, 'the picture of a link could not be had');
    return null;
  }
}
