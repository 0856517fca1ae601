import { nanoid } from 'nanoid';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { insertChannel, listChannels, saveNetworkSheet } from '../db/brand-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

export interface NewAccounts {
  readonly brandId: string;
  readonly brandName: string;
  readonly handle: string;
  readonly networks: readonly string[];
}

/**
 * Opens accounts for a brand on stand-in networks and keeps them as its channels, in the order of the sheets.
 * @throws ProblemError when a network is unknown or does not open one
 */
export async function openStandinAccounts(services: Pick<Services, 'db' | 'settings' | 'sealer'>, accounts: NewAccounts): Promise<void> {
  const { standinOrigin } = services.settings;
  if (accounts.networks.length === 0) return;
  if (standinOrigin === null) throw new ProblemError(422, 'no-standins', 'No stand-in networks are running here.');
  const unknown = accounts.networks.find((key) => !shippedSheets.some((sheet) => sheet.key === key));
  if (unknown !== undefined) throw new ProblemError(422, 'unknown-network', `There is no network '${unknown}'.`);
  const before = (await listChannels(services.db, accounts.brandId)).length;
  for (const [index, sheet] of shippedSheets.filter((each) => accounts.networks.includes(each.key)).entries()) {
    await saveNetworkSheet(services.db, sheet);
    const response = await fetch(new URL('/switchboard/accounts', standinOrigin), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ network: sheet.key, handle: accounts.handle, name: accounts.brandName }),
    });
    if (!response.ok) throw new ProblemError(422, 'account-refused', `${sheet.name} opened no account for ${accounts.handle}.`);
    const { token } = (await response.json()) as { token: string };
    await insertChannel(services.db, { id: nanoid(12), brandId: accounts.brandId, network: sheet.key, name: `${sheet.name} ${accounts.handle}`, handle: accounts.handle, origin: standinOrigin, token: services.sealer.seal(token) }, before + index);
  }
}
