import { ConnectorError } from '../connectors/connector.ts';
import { getChannel, type Channel } from '../db/brand-repository.ts';
import { keepRenewed, setChannelState } from '../db/channel-repository.ts';
import type { Services } from '../services.ts';
import { accessOf } from './connect-channel.ts';
import { askTokenEndpoint, readGrant } from './oauth.ts';
import { findSiteEndpoints } from './site-endpoints.ts';

/** A token is renewed so long before it ends: an upload may take a while. */
const RENEW_BEFORE_MS = 10 * 60_000;

type Needed = Pick<Services, 'db' | 'settings' | 'sealer' | 'clock' | 'log'>;

/**
 * A channel with its token open, renewed where it is about to end.
 * @throws ConnectorError `ended` when the network renews it no longer, `unreachable` when it does not answer
 */
export async function openChannel(services: Needed, id: string): Promise<Channel> {
  const channel = await getChannel(services.db, id);
  if (channel.removedMs !== null) throw new ConnectorError('ended', `${channel.name} is not connected any more. Connect it in Send > Channels, then retry.`);
  const opened = (each: Channel): Channel => ({ ...each, token: services.sealer.open(each.token) });
  if (channel.tokenEndsMs === null || channel.tokenEndsMs - (await services.clock.nowMs()) > RENEW_BEFORE_MS || channel.refreshToken === null) return opened(channel);
  return opened(await renew(services, channel, channel.refreshToken));
}

/**
 * A channel with a fresh access, after its network has said that the one it had is over.
 * @throws ConnectorError `ended` when the network does not renew it; a person has to connect the channel again
 */
export async function renewChannel(services: Needed, id: string, tried: Channel): Promise<Channel> {
  const channel = await getChannel(services.db, id);
  const opened = (each: Channel): Channel => ({ ...each, token: services.sealer.open(each.token) });
  // Another process may have renewed it meanwhile.
  if (services.sealer.open(channel.token) !== tried.token) return opened(channel);
  if (channel.refreshToken === null) {
    await noteEnded(services, channel);
    throw accessEnded(channel);
  }
  return opened(await renew(services, channel, channel.refreshToken));
}

/** Runs an action with a channel whose token is open. If the network rejects the token, renews it and runs the action once more. */
export async function withFreshAccess<Answer>(services: Needed, channelId: string, act: (channel: Channel) => Promise<Answer>): Promise<Answer> {
  const channel = await openChannel(services, channelId);
  try {
    return await act(channel);
  } catch (error) {
    if (!(error instanceof ConnectorError) || error.code !== 'ended') throw error;
    return act(await renewChannel(services, channelId, channel));
  }
}

async function renew(services: Needed, channel: Channel, refreshToken: string): Promise<Channel> {
  const { db, sealer, clock, settings } = services;
  const trustedHosts = channel.origin === '' ? settings.trustedHosts : [...settings.trustedHosts, new URL(channel.origin).host];
  const answer = await askNetwork(async () => {
    const endpoint = channel.site === null ? `${channel.origin}/${channel.network}/token` : (await findSiteEndpoints(channel.site, trustedHosts)).token;
    return askTokenEndpoint(endpoint, { grant_type: 'refresh_token', refresh_token: sealer.open(refreshToken), ...(settings.origin === null ? {} : { client_id: `${settings.origin}/` }) }, trustedHosts);
  }, channel.name);
  if (answer.kind === 'refused') {
    // Another process may have renewed it a moment before: then its token is the good one.
    const now = await getChannel(db, channel.id);
    if (now.refreshToken !== refreshToken) return now;
    await noteEnded(services, channel);
    throw accessEnded(channel);
  }
  const access = accessOf(sealer, readGrant(answer.json, channel.name), await clock.nowMs());
  await keepRenewed(db, channel.id, refreshToken, { ...access, accessEndsMs: access.accessEndsMs ?? channel.accessEndsMs, refreshToken: access.refreshToken ?? refreshToken });
  return getChannel(db, channel.id);
}

async function askNetwork<Answer>(ask: () => Promise<Answer>, name: string): Promise<Answer> {
  try {
    return await ask();
  } catch (error) {
    throw new ConnectorError('unreachable', `${name} does not renew its access now.`, null, { cause: error });
  }
}

/** Records that a network no longer accepts a channel's access. */
async function noteEnded({ db, clock }: Pick<Services, 'db' | 'clock'>, channel: Pick<Channel, 'id' | 'brandId'>): Promise<void> {
  await setChannelState(db, channel, 'ended', ['connected', 'paused'], clock.machineNowMs());
}

function accessEnded({ name }: Pick<Channel, 'name'>): ConnectorError {
  return new ConnectorError('ended', `The access to ${name} has ended. Connect it again in Send > Channels, then retry.`);
}
