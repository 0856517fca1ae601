import { standinConnector } from '../connectors/standin-connector.ts';
import { closeServices, openServices } from '../services.ts';
import { readSettings } from '../settings.ts';
import { runDispatcher } from './dispatcher.ts';

const THREADS = 1;

const services = await openServices(readSettings(process.env), THREADS);
const stop = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
services.log.info('dispatcher is running');
await runDispatcher(services, standinConnector, stop.signal);
await closeServices(services);
