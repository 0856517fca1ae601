import { ProblemError } from '../errors.ts';
import { guardedAsk } from '../outside/guarded-fetch.ts';
import { endpointIn } from '../outside/link-relations.ts';

/** Where a site takes entries and where it grants access. */
export interface SiteEndpoints {
  /** The site's own address, after redirects. */
  readonly site: string;
  readonly authorization: string;
  readonly token: string;
}

const MAX_PAGE_BYTES = 2 * 1024 * 1024;

/**
 * Finds where a site grants access: IndieAuth metadata first, else the endpoints that its page names.
 * @throws ProblemError 422 saying what the site lacks
 * @see https://indieauth.spec.indieweb.org/#discovery-by-clients
 */
export async function findSiteEndpoints(address: string, trustedHosts: readonly string[]): Promise<SiteEndpoints> {
  const options = { accept: 'text/html', mostBytes: MAX_PAGE_BYTES, trustedHosts };
  const page = await guardedAsk(address, { method: 'GET' }, options);
  if (page.status !== 200) throw new ProblemError(422, 'outside-refused', `${address} answered ${page.status}.`);
  const find = (relation: string): string | null => endpointIn(relation, page.headers.get('link'), page.bytes.toString('utf8'), page.address);
  if (find('micropub') === null) throw new ProblemError(422, 'no-micropub', `${page.address} names no Micropub endpoint. Add a link with rel="micropub" to the site.`);
  const metadata = find('indieauth-metadata');
  const named = metadata === null ? null : await readMetadata(metadata, trustedHosts);
  const authorization = named?.authorization ?? find('authorization_endpoint');
  const token = named?.token ?? find('token_endpoint');
  if (authorization === null || token === null) throw new ProblemError(422, 'no-indieauth', `${page.address} does not say where it grants access. Add a link with rel="indieauth-metadata" to the site.`);
  return { site: page.address, authorization, token };
}

const webAddress = /^https?:\/\//;

async function readMetadata(address: string, trustedHosts: readonly string[]): Promise<Pick<SiteEndpoints, 'authorization' | 'token'> | null> {
  const { status, bytes } = await guardedAsk(address, { method: 'GET' }, { accept: 'application/json', mostBytes: MAX_PAGE_BYTES, trustedHosts });
  if (status !== 200) return null;
  try {
    const { authorization_endpoint: authorization, token_endpoint: token } = JSON.parse(bytes.toString('utf8')) as Record<string, unknown>;
    const isFine = (value: unknown): value is string => typeof value === 'string' && webAddress.test(value) && URL.canParse(value);
    return isFine(authorization) && isFine(token) ? { authorization, token } : null;
  } catch {
    return null;
  }
}
