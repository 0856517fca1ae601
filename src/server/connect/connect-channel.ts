import { nanoid } from 'nanoid';
import { array, object, string } from 'yup';
import { accountKindOf } from '../../core/network/account-kind.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { hashSecret, newSecret } from '../auth/secrets.ts';
import { connectorFor } from '../connectors/registry.ts';
import { insertChannel, listChannelsEver, listSheetsOf, ensureNetworkSheet, listOwnSheets, saveOffers, type Brand, type Channel } from '../db/brand-repository.ts';
import { reconnectChannel } from '../db/channel-repository.ts';
import { answerConnection, endConnection, findConnectionByState, insertConnection, type Connection } from '../db/connection-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { askTokenEndpoint, newVerifier, readGrant, type Grant } from './oauth.ts';
import { findSiteEndpoints } from './site-endpoints.ts';

/** How long a person may take at the network. */
const CONNECTION_MS = 30 * 60_000;
const ANSWER_MS = 10_000;

/** Where networks send people back to. */
export const RETURN_PATH = '/connect/return';

type Needed = Pick<Services, 'db' | 'settings' | 'sealer' | 'clock' | 'log'>;

/** The sheet of a network that can be connected. @throws ProblemError 422 when there is none */
async function sheetOf({ db }: Needed, brand: Pick<Brand, 'id'>, network: string): Promise<NetworkSheet> {
  const sheet = (await listOwnSheets(db, brand.id)).get(network) ?? (await listSheetsOf(db, brand.id)).find(({ key }) => key === network) ?? shippedSheets.find(({ key }) => key === network);
  if (!sheet) throw new ProblemError(422, 'unknown-network', `There is no network '${network}'.`);
  return sheet;
}

const trustedHostsOf = ({ settings }: Needed): readonly string[] => (settings.standinOrigin === null ? settings.trustedHosts : [...settings.trustedHosts, new URL(settings.standinOrigin).host]);

interface Wanted {
  readonly network: string;
  /** Address of a site of one's own, where the network is one. */
  readonly site: string | null;
  readonly personId: string;
  /** Where people reach Confetti. */
  readonly ownOrigin: string;
}

/**
 * Begins to connect an account and answers where the person agrees to it.
 * @throws ProblemError 422 when the network is unknown, or the site does not say where it grants access
 */
export async function beginConnection(services: Needed, brand: Pick<Brand, 'id'>, { network, site, personId, ownOrigin }: Wanted): Promise<{ readonly address: string }> {
  const sheet = await sheetOf(services, brand, network);
  const isSite = sheet.publishing.protocol === 'micropub';
  if (isSite && (site ?? '').trim() === '') throw new ProblemError(422, 'no-site', 'Type the address of your site.');
  const endpoints = isSite ? await findSiteEndpoints(site ?? '', trustedHostsOf(services)) : standinEndpoints(services, sheet);
  const [id, state, { verifier, challenge }] = [nanoid(12), newSecret('cfc'), newVerifier()];
  const redirectUri = `${ownOrigin}${RETURN_PATH}`;
  const host = isSite ? new URL(endpoints.site).host : '';
  const isStandin = !isSite || services.settings.trustedHosts.includes(host);
  await insertConnection(services.db, { id, brandId: brand.id, personId, networkKey: network, origin: isStandin ? (services.settings.standinOrigin ?? '') : '', site: isSite ? endpoints.site : null, stateHash: hashSecret(state), verifier: services.sealer.seal(verifier), tokenEndpoint: endpoints.token, redirectUri, endsMs: services.clock.machineNowMs() + CONNECTION_MS });
  const address = new URL(endpoints.authorization);
  const asked = { response_type: 'code', client_id: `${ownOrigin}/`, redirect_uri: redirectUri, state, code_challenge: challenge, code_challenge_method: 'S256', ...(isSite ? { scope: 'create update delete media', me: endpoints.site } : {}) };
  for (const [name, value] of Object.entries(asked)) address.searchParams.set(name, value);
  return { address: address.href };
}

function standinEndpoints({ settings }: Needed, sheet: NetworkSheet): { readonly site: string; readonly authorization: string; readonly token: string } {
  if (settings.standinOrigin === null) throw new ProblemError(422, 'no-standins', `${sheet.name} cannot be reached from here: no stand-in networks are running.`);
  const base = `${settings.standinOrigin}/${sheet.key}`;
  return { site: base, authorization: `${base}/consent`, token: `${base}/token` };
}

/** An account that a network offers, with the access to it. */
export interface OfferedAccount extends Grant {
  readonly handle: string;
  readonly name: string;
  readonly kind: string;
}

/** What a network sent a person back with. */
export interface Returned {
  readonly state: string;
  readonly code: string | null;
  readonly error: string | null;
}

/**
 * Takes a person back from the network: exchanges the code for accounts, and keeps them until the person chooses.
 * @throws ProblemError 404 when nobody was sent off with this state, or it was too long ago
 */
export async function finishConnection(services: Needed, returned: Returned, personId: string): Promise<Pick<Connection, 'id' | 'brandId'>> {
  const connection = await findConnectionByState(services.db, hashSecret(returned.state), personId, services.clock.machineNowMs());
  if (!connection) throw new ProblemError(404, 'no-connection', 'This connection was begun by somebody else, or too long ago. Connect the channel again.');
  const { name } = await sheetOf(services, { id: connection.brandId }, connection.networkKey);
  if (connection.offered !== null || connection.problem !== null) return connection;
  const fail = (problem: string): Promise<boolean> => answerConnection(services.db, connection.id, { offered: null, problem, site: connection.site });
  if (returned.code === null) {
    await fail(returned.error === 'access_denied' ? `You did not allow Confetti to post to ${name}. Nothing was connected.` : `${name} sent you back without an access. Nothing was connected.`);
    return connection;
  }
  const form = { grant_type: 'authorization_code', code: returned.code, redirect_uri: connection.redirectUri, client_id: `${new URL(connection.redirectUri).origin}/`, code_verifier: services.sealer.open(connection.verifier) };
  try {
    const answer = await askTokenEndpoint(connection.tokenEndpoint, form, trustedHostsOf(services));
    if (answer.kind === 'refused') await fail(`${name} refused the access. ${answer.reason}`.trim());
    else {
      const offered = connection.site === null ? readAccounts(answer.json, name) : [readSite(answer.json, connection.site, name)];
      await answerConnection(services.db, connection.id, { offered: services.sealer.seal(JSON.stringify(offered)), problem: null, site: connection.site });
    }
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    await fail(error.sentence);
  }
  return connection;
}

const accountsSchema = object({ accounts: array(object({ handle: string().max(200).required(), name: string().max(200).required(), kind: string().max(40).required() }).required()).max(500).required() });

function readAccounts(given: unknown, network: string): readonly OfferedAccount[] {
  if (!accountsSchema.isValidSync(given, { strict: true })) throw new ProblemError(422, 'no-accounts', `${network} did not say which accounts it offers. Nothing was connected.`);
  return given.accounts.map((account) => ({ handle: account.handle, name: account.name, kind: account.kind, ...readGrant(account, network) }));
}

/** Reads the grant of a site. The site has to be on the host that the person typed (IndieAuth section 5.3.4). */
function readSite(given: unknown, site: string, network: string): OfferedAccount {
  const me = (given as { readonly me?: unknown } | null)?.me;
  const isSame = typeof me === 'string' && URL.canParse(me) && new URL(me).host === new URL(site).host;
  if (!isSame) throw new ProblemError(422, 'other-site', `${network} answered for another site than ${site}. Nothing was connected.`);
  const { host, pathname } = new URL(me);
  const handle = /\/(@[a-z0-9.]{2,40})$/.exec(pathname)?.[1] ?? `${host}${pathname === '/' ? '' : pathname}`;
  return { handle, name: host, kind: 'site', ...readGrant(given, network) };
}

/** The accounts of a connection; empty where the network gave none. */
export function offeredBy({ sealer }: Pick<Services, 'sealer'>, { offered }: Connection): readonly OfferedAccount[] {
  return offered === null ? [] : (JSON.parse(sealer.open(offered)) as OfferedAccount[]);
}

export interface Chosen {
  readonly channels: readonly Pick<Channel, 'id' | 'name'>[];
  /** Those of them that were channels before. */
  readonly again: number;
}

/**
 * Keeps the chosen accounts of a connection as channels; those that the brand has or had get a fresh access.
 * @throws ProblemError 422 when none of those offered is chosen
 */
export async function chooseAccounts(services: Needed, brand: Brand, connection: Connection, handles: readonly string[]): Promise<Chosen> {
  const sheet = await sheetOf(services, brand, connection.networkKey);
  const accounts = offeredBy(services, connection).filter(({ handle }) => handles.includes(handle));
  if (accounts.length === 0) throw new ProblemError(422, 'none-chosen', 'Choose at least one account.');
  const { db, sealer, clock } = services;
  const [nowMs, machineNowMs] = [await clock.nowMs(), clock.machineNowMs()];
  const made = await db.transaction(async (trx) => {
    await ensureNetworkSheet(trx, sheet);
    const before = await listChannelsEver(trx, brand.id);
    const channels: (Pick<Channel, 'id' | 'name'> & { readonly isKnown: boolean })[] = [];
    for (const account of accounts) {
      const access = { ...accessOf(sealer, account, nowMs), kind: accountKindOf(sheet, account.kind).key, site: connection.site, origin: connection.origin };
      const known = before.find(({ network, handle, site }) => network === sheet.key && handle === account.handle && (site === null || connection.site === null || site === connection.site));
      if (known) await reconnectChannel(trx, known, access, machineNowMs);
      const fresh = { id: nanoid(12), brandId: brand.id, network: sheet.key, name: `${sheet.name} ${account.handle}`, handle: account.handle, offers: {}, ...access };
      if (!known) await insertChannel(trx, fresh, before.length + channels.length);
      channels.push(known ? { id: known.id, name: known.name, isKnown: true } : { id: fresh.id, name: fresh.name, isKnown: false });
    }
    await endConnection(trx, connection.id);
    return channels;
  });
  for (const [index, account] of accounts.entries()) await readOffers(services, sheet, { id: made[index]?.id ?? '', network: sheet.key, handle: account.handle, origin: connection.origin, site: connection.site, token: account.accessToken });
  return { channels: made.map(({ id, name }) => ({ id, name })), again: made.filter(({ isKnown }) => isKnown).length };
}

/** What a grant means for a channel, sealed, with its ends by the product's clock. */
export function accessOf(sealer: Services['sealer'], grant: Grant, nowMs: number): Pick<Channel, 'token' | 'refreshToken' | 'tokenEndsMs' | 'accessEndsMs'> {
  const end = (seconds: number | null): number | null => (seconds === null ? null : nowMs + seconds * 1000);
  return { token: sealer.seal(grant.accessToken), refreshToken: grant.refreshToken === null ? null : sealer.seal(grant.refreshToken), tokenEndsMs: end(grant.expiresInS), accessEndsMs: end(grant.refreshToken === null ? grant.expiresInS : grant.renewableForS) };
}

async function readOffers({ db, log }: Needed, sheet: NetworkSheet, channel: Pick<Channel, 'id' | 'network' | 'handle' | 'origin' | 'site' | 'token'>): Promise<void> {
  try {
    const offers = await connectorFor(channel, sheet).knowledge?.offers(AbortSignal.timeout(ANSWER_MS));
    if (offers) await saveOffers(db, channel.id, offers);
  } catch (error) {
    log.warn({ err: error, network: sheet.key }, 'the network did not say what its account has to choose from');
  }
}
