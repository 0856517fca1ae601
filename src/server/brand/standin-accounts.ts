import { nanoid } from 'nanoid';
import type { ChannelOffers } from '../../core/network/channel-offers.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { insertChannel, listChannelsEver, saveNetworkSheet, type NewChannel } from '../db/brand-repository.ts';
import { connectorFor } from '../connectors/registry.ts';
import type { Db } from '../db/connection.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

export interface NewAccounts {
  readonly brandId: string;
  readonly brandName: string;
  readonly handle: string;
  readonly networks: readonly string[];
  /** What kind of accounts they are; missing: the usual one of each network. */
  readonly kind?: string;
  /** What accounts are opened with, by network: boards, playlists. A network that is not named offers its own. */
  readonly offers?: Readonly<Record<string, ChannelOffers>>;
}

/** An account that a network has opened, to be kept as a channel. */
export type OpenedAccount = NewChannel & { readonly sheet: NetworkSheet };

const ANSWER_MS = 10_000;

/**
 * Opens accounts for a brand on stand-in networks, in the order of the sheets. Nothing is kept yet.
 * @throws ProblemError when a network is unknown, does not answer or does not open one
 */
export async function openStandinAccounts(services: Pick<Services, 'settings' | 'sealer' | 'log'>, accounts: NewAccounts): Promise<readonly OpenedAccount[]> {
  const { standinOrigin } = services.settings;
  if (accounts.networks.length === 0) return [];
  if (standinOrigin === null) throw new ProblemError(422, 'no-standins', 'No stand-in networks are running here.');
  const unknown = accounts.networks.find((key) => !shippedSheets.some((sheet) => sheet.key === key));
  if (unknown !== undefined) throw new ProblemError(422, 'unknown-network', `There is no network '${unknown}'.`);
  const opened: OpenedAccount[] = [];
  for (const sheet of shippedSheets.filter((each) => accounts.networks.includes(each.key))) {
    const response = await fetch(new URL('/switchboard/accounts', standinOrigin), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ network: sheet.key, handle: accounts.handle, name: accounts.brandName, kind: accounts.kind, offers: accounts.offers?.[sheet.key] }),
      signal: AbortSignal.timeout(ANSWER_MS),
    }).catch((error: unknown) => {
      services.log.warn({ err: error, network: sheet.key }, 'a network did not answer');
      throw new ProblemError(503, 'network-silent', `${sheet.name} does not answer. Nothing was changed; try again in a while.`);
    });
    if (!response.ok) throw new ProblemError(422, 'account-refused', `${sheet.name} opened no account for ${accounts.handle}. Nothing was changed.`);
    const { token } = (await response.json()) as { token: string };
    const channel = { id: nanoid(12), brandId: accounts.brandId, network: sheet.key, name: `${sheet.name} ${accounts.handle}`, handle: accounts.handle, origin: standinOrigin, kind: accounts.kind ?? '', offers: {} };
    const offers = (await connectorFor({ ...channel, site: null, token }, sheet).knowledge?.offers(AbortSignal.timeout(ANSWER_MS)).catch((error: unknown) => {
      services.log.warn({ err: error, network: sheet.key }, 'the network did not say what its account has to choose from');
      return {};
    })) ?? {};
    opened.push({ ...channel, offers, token: services.sealer.seal(token), sheet });
  }
  return opened;
}

/** Keeps opened accounts as channels, after those that the brand has. */
export async function keepAccounts(db: Db, accounts: readonly OpenedAccount[]): Promise<void> {
  const [first] = accounts;
  if (!first) return;
  const before = (await listChannelsEver(db, first.brandId)).length;
  for (const [index, { sheet, ...channel }] of accounts.entries()) {
    await saveNetworkSheet(db, sheet);
    await insertChannel(db, channel, before + index);
  }
}
