import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Connector, ConnectorChannel } from './connector.ts';
import { micropubConnector } from './micropub-connector.ts';
import { standinConnector } from './standin-connector.ts';

/** How a channel is spoken to: its token is open here. Tests pass their own. */
export type ConnectorFor = (channel: ConnectorChannel, sheet: NetworkSheet) => Connector;

/** Connectors by the protocol that a network sheet names; what each can do, it says in its capabilities. */
const registry = { standin: standinConnector, micropub: micropubConnector } as const satisfies Readonly<Record<string, ConnectorFor>>;

/** Speaks with the network of a channel in the protocol that its sheet names. */
export const connectorFor: ConnectorFor = (channel, sheet) => registry[sheet.publishing.protocol ?? 'standin'](channel, sheet);
