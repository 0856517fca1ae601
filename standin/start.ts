import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { getRequestListener } from '@hono/node-server';
import { callHooks } from './audience/hooks.ts';
import { DroppedConnection, Faults } from './faults.ts';
import { Mailbox } from './mailbox.ts';
import { standinApp } from './server.ts';
import { StandinStore } from './store.ts';

/** How often programs are told of what came in. */
const HOOKS_EVERY_MS = 5_000;

export interface RunningStandin {
  readonly origin: string;
  readonly store: StandinStore;
  /** The port that letters are taken on. */
  readonly mailPort: number;
  readonly mailbox: Mailbox;
  close(): Promise<void>;
}

const IDLE_WITHIN_MS = 65_000;

/** Starts the stand-in networks on a loopback port; port 0 takes a free one. */
export async function startStandin(options: { readonly dataFolder: string; readonly port: number; readonly slowMs: number; readonly mailPort?: number }): Promise<RunningStandin> {
  const store = new StandinStore(options.dataFolder);
  const faults = new Faults();
  const server = createServer();
  // A program that was busy for some seconds would write to a connection that is just being closed.
  server.keepAliveTimeout = IDLE_WITHIN_MS;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(options.port, '127.0.0.1', resolve);
  });
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const mailbox = new Mailbox();
  const mailPort = await mailbox.listen(options.mailPort ?? 0);
  const app = standinApp({ store, faults, mailbox, publicOrigin: origin, slowMs: options.slowMs });
  server.on('request', (request, response) => {
    const answer = getRequestListener(app.fetch, {
      errorHandler: (error) => {
        // The socket goes without a word, as when a line breaks.
        if (error instanceof DroppedConnection) request.socket.destroy();
        return new Response(null, { status: 500 });
      },
    });
    void answer(request, response);
  });
  let calls = Promise.resolve();
  const calling = setInterval(() => (calls = calls.then(() => callHooks(store, Date.now() + store.clockOffsetMs()))), HOOKS_EVERY_MS);
  const close = async (): Promise<void> => {
    clearInterval(calling);
    await Promise.all([closeServer(server), mailbox.close(), calls]);
    store.close();
  };
  return { origin, store, mailPort, mailbox, close };
}

function closeServer(server: Server): Promise<void> {
  server.closeAllConnections();
  return new Promise((resolve) => server.close(() => resolve()));
}
