import { array, boolean, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { contract, documentOf } from './contract.ts';

const channelParams = brandParams.shape({ channel: string().max(40).required() });
const badge = () => documentOf<NetworkSheet['badge']>('The sign of a network');
const lines = () => array(string().required()).required();
const count = () => number().integer().required();

const channelSchema = object({
  id: string().required(),
  name: string().required(),
  handle: string().required(),
  network: string().required(),
  networkName: string().required(),
  /** Address of a site of one's own. */
  site: string().nullable().defined(),
  badge: badge(),
  kindName: string().required(),
  isByHand: boolean().required(),
  state: string<'connected' | 'paused' | 'ended'>().oneOf(['connected', 'paused', 'ended']).required(),
  /** When the network takes its access no longer, unless it is connected again before; null: never. */
  accessEndsMs: number().nullable().defined(),
  isPinned: boolean().required(),
  groupName: string().defined(),
  can: lines(),
  cannot: lines(),
  waiting: count(),
  held: count(),
  failed: count(),
});

export const listChannels = contract({
  method: 'GET',
  path: '/api/brands/{brand}/channels',
  summary: 'The brand’s channels, how each stands and what waits on it; and the networks that can be connected',
  params: brandParams,
  answer: object({ channels: array(channelSchema.required()).required(), networks: array(object({ key: string().required(), name: string().required(), badge: badge(), isSite: boolean().required() }).required()).required() }),
});

export const beginConnection = contract({
  method: 'POST',
  path: '/api/brands/{brand}/connections',
  summary: 'Begin to connect accounts of a network; the answer says where the person agrees to it (authorization code with PKCE; for a site of one’s own, IndieAuth)',
  params: brandParams,
  body: object({ network: string().max(40).required('Choose a network'), site: string().trim().max(500) }).noUnknown(),
  answer: object({ address: string().required() }),
  status: 201,
});

const connectionParams = brandParams.shape({ connection: string().max(40).required() });

export const getConnection = contract({
  method: 'GET',
  path: '/api/brands/{brand}/connections/{connection}',
  summary: 'What a network offered: its accounts and what each kind can and cannot do, or why there are none',
  params: connectionParams,
  answer: object({
    networkName: string().required(),
    badge: badge(),
    problem: string().nullable().defined(),
    accounts: array(object({ handle: string().required(), name: string().required(), kindName: string().required(), can: lines(), cannot: lines(), channelName: string().nullable().defined() }).required()).required(),
  }),
});

export const chooseAccounts = contract({
  method: 'POST',
  path: '/api/brands/{brand}/connections/{connection}',
  summary: 'Keep some of the offered accounts as channels; those that were channels before get a fresh access',
  params: connectionParams,
  body: object({ handles: array(string().max(200).required()).min(1, 'Choose at least one account').max(100).required() }).noUnknown(),
  answer: object({ channels: array(object({ id: string().required(), name: string().required() }).required()).required(), again: count(), failed: count() }),
});

export const pauseChannel = contract({
  method: 'POST',
  path: '/api/brands/{brand}/channels/{channel}/{action}',
  summary: 'Pause a channel, which holds what waits on it, or resume it; what was missed meanwhile stays held',
  params: channelParams.shape({ action: string<'pause' | 'resume'>().oneOf(['pause', 'resume']).required() }),
  answer: object({ held: count(), released: count(), missed: count() }),
});

export const describeChannel = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/channels/{channel}',
  summary: 'Give a channel another name or group, or pin it to the top',
  params: channelParams,
  body: object({ name: string().trim().min(1, 'A channel needs a name').max(80), isPinned: boolean(), groupName: string().trim().max(40) }).noUnknown(),
});

export const getLeaving = contract({
  method: 'GET',
  path: '/api/brands/{brand}/channels/{channel}/leaving',
  summary: 'What disconnecting a channel would do to what waits on it',
  params: channelParams,
  answer: object({ waiting: count(), queued: count(), repeats: count(), next: array(object({ pieceName: string().required(), dueMs: number().required() }).required()).required() }),
});

export const removeChannel = contract({ method: 'DELETE', path: '/api/brands/{brand}/channels/{channel}', summary: 'Disconnect a channel: what waits on it is cancelled, its access is forgotten; what is out stays out', params: channelParams, answer: object({ cancelled: count() }) });
