import * as contracts from '../../contract/channel-contracts.ts';
import { accountKindOf, isByHand, whatAccountCan } from '../../core/network/account-kind.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { disconnectChannel, pauseChannel as pause, resumeChannel as resume } from '../connect/change-channel.ts';
import { beginConnection as begin, chooseAccounts as choose, offeredBy } from '../connect/connect-channel.ts';
import { listChannels as channelsOf, listOwnSheets, listSheetsOf, type Brand, type Channel } from '../db/brand-repository.ts';
import { countByChannel, describeChannel as describe } from '../db/channel-repository.ts';
import { findConnection, type Connection } from '../db/connection-repository.ts';
import { listWaitingOfChannel } from '../db/delivery-repository.ts';
import { listQueue } from '../db/queue-repository.ts';
import { listRepeats } from '../db/repeat-repository.ts';
import { notFound } from '../errors.ts';
import type { Services } from '../services.ts';
import { noteActOf } from './note-act.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

/** Failed posts count for so long. */
const FAILED_BACK_MS = 14 * 86_400_000;
const MAX_SHOWN = 5;
const MAX_WAITING = 2_000;

const abilitiesOf = (sheet: NetworkSheet, kind: string): { kindName: string; can: string[]; cannot: string[] } => {
  const { can, cannot } = whatAccountCan(sheet, kind);
  return { kindName: accountKindOf(sheet, kind).name, can: [...can], cannot: [...cannot] };
};

/** Every network that a brand can connect: those that ship, and its own. */
async function networksOf({ db }: Services, brand: Brand): Promise<readonly NetworkSheet[]> {
  const [own, used] = [await listOwnSheets(db, brand.id), await listSheetsOf(db, brand.id)];
  const all = new Map([...shippedSheets, ...used].map((sheet) => [sheet.key, sheet]));
  for (const [key, sheet] of own) all.set(key, sheet);
  return [...all.values()];
}

const listChannels = defineEndpoint({
  contract: contracts.listChannels,
  may: 'see',
  async handle({ services, brand, nowMs }) {
    const sheets = await networksOf(services, brand);
    const counts = await countByChannel(services.db, brand.id, nowMs - FAILED_BACK_MS);
    const channels = (await channelsOf(services.db, brand.id)).flatMap((channel) => {
      const sheet = sheets.find(({ key }) => key === channel.network);
      if (!sheet) return [];
      const count = (...states: readonly string[]): number => counts.filter((each) => each.channelId === channel.id && states.includes(each.state)).reduce((sum, each) => sum + each.count, 0);
      const { id, name, handle, network, state, accessEndsMs, isPinned, groupName } = channel;
      return [{ id, name, handle, network, networkName: sheet.name, site: channel.site, badge: sheet.badge, isByHand: isByHand(sheet, channel.kind), state, accessEndsMs, isPinned, groupName, ...abilitiesOf(sheet, channel.kind), waiting: count('scheduled', 'in review', 'by hand'), held: count('held'), failed: count('failed') }];
    });
    const isReachable = (sheet: NetworkSheet): boolean => services.settings.standinOrigin !== null || sheet.publishing.protocol === 'micropub';
    return { channels, networks: sheets.filter(isReachable).map((sheet) => ({ key: sheet.key, name: sheet.name, badge: sheet.badge, isSite: sheet.publishing.protocol === 'micropub' })) };
  },
});

const beginConnection = defineEndpoint({
  contract: contracts.beginConnection,
  may: 'brand',
  only: 'session',
  async handle({ services, brand, body, caller, request }) {
    const ownOrigin = services.settings.origin ?? `${new URL(request.url).protocol}//${request.headers.get('host') ?? ''}`;
    return begin(services, brand, { network: body.network, site: body.site ?? null, personId: caller.person.id, ownOrigin });
  },
});

async function connectionOf({ db, clock }: Services, brand: Brand, id: string, personId: string): Promise<Connection> {
  const connection = await findConnection(db, brand.id, id, personId, clock.machineNowMs());
  if (!connection) throw notFound('connection');
  return connection;
}

const getConnection = defineEndpoint({
  contract: contracts.getConnection,
  may: 'brand',
  only: 'session',
  async handle({ services, brand, params, caller }) {
    const connection = await connectionOf(services, brand, params.connection, caller.person.id);
    const sheet = (await networksOf(services, brand)).find(({ key }) => key === connection.networkKey);
    if (!sheet) throw notFound('network');
    const channels = await channelsOf(services.db, brand.id);
    const accounts = offeredBy(services, connection).map(({ handle, name, kind }) => ({ handle, name, ...abilitiesOf(sheet, kind), channelName: channels.find((each) => each.network === sheet.key && each.handle === handle)?.name ?? null }));
    return { networkName: sheet.name, badge: sheet.badge, problem: connection.problem, accounts };
  },
});

const chooseAccounts = defineEndpoint({
  contract: contracts.chooseAccounts,
  may: 'brand',
  only: 'session',
  async handle(context) {
    const { services, brand, params, body, caller, nowMs } = context;
    const connection = await connectionOf(services, brand, params.connection, caller.person.id);
    const { channels, again } = await choose(services, brand, connection, body.handles);
    for (const { id, name } of channels) await noteActOf(context, 'channel', id, `Connected ${name}`);
    const counts = await countByChannel(services.db, brand.id, nowMs - FAILED_BACK_MS);
    const failed = counts.filter(({ channelId, state }) => state === 'failed' && channels.some(({ id }) => id === channelId)).reduce((sum, { count }) => sum + count, 0);
    return { channels: channels.map(({ id, name }) => ({ id, name })), again, failed };
  },
});

async function channelOf({ db }: Services, brand: Brand, id: string): Promise<Channel> {
  const channel = (await channelsOf(db, brand.id)).find((each) => each.id === id);
  if (!channel) throw notFound('channel');
  return channel;
}

const pauseChannel = defineEndpoint({
  contract: contracts.pauseChannel,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const channel = await channelOf(services, brand, params.channel);
    const moved = params.action === 'pause' ? await pause(services, channel) : await resume(services, brand, channel, nowMs);
    await noteActOf(context, 'channel', channel.id, `${params.action === 'pause' ? 'Paused' : 'Resumed'} ${channel.name}`);
    return { ...moved };
  },
});

const describeChannel = defineEndpoint({
  contract: contracts.describeChannel,
  may: 'brand',
  async handle(context) {
    const { services, brand, params, body } = context;
    const channel = await channelOf(services, brand, params.channel);
    await describe(services.db, channel, body, services.clock.machineNowMs());
    if (body.name !== undefined && body.name !== channel.name) await noteActOf(context, 'channel', channel.id, `Renamed ${channel.name} to ${body.name}`);
    return undefined;
  },
});

const getLeaving = defineEndpoint({
  contract: contracts.getLeaving,
  may: 'brand',
  async handle({ services, brand, params }) {
    const channel = await channelOf(services, brand, params.channel);
    const waiting = await listWaitingOfChannel(services.db, channel.id, MAX_WAITING);
    const queued = (await listQueue(services.db, brand.id)).filter(({ channelId }) => channelId === channel.id).length;
    const repeats = (await listRepeats(services.db, brand.id)).filter(({ cuts }) => cuts.some(({ channelId }) => channelId === channel.id)).length;
    return { waiting: waiting.length, queued, repeats, next: waiting.slice(0, MAX_SHOWN).map(({ pieceName, dueMs }) => ({ pieceName, dueMs })) };
  },
});

const removeChannel = defineEndpoint({
  contract: contracts.removeChannel,
  may: 'brand',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const channel = await channelOf(services, brand, params.channel);
    const cancelled = await disconnectChannel(services, channel, nowMs);
    await noteActOf(context, 'channel', channel.id, `Disconnected ${channel.name}; ${cancelled} waiting posts were cancelled`);
    return { cancelled };
  },
});

export const channelEndpoints: readonly Endpoint[] = [listChannels, beginConnection, getConnection, chooseAccounts, getLeaving, pauseChannel, describeChannel, removeChannel];
