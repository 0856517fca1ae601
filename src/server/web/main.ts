import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { openLog } from '../log.ts';
import { readSettings } from '../settings.ts';
import { keepFilesPrivate } from '../secrets/keep-files-private.ts';
import { clientAddress } from './client-address.ts';
import { isOwnHost } from './own-hosts.ts';
import { openStaticFiles } from './static-files.ts';

/** What stands before Astro: headers on everything that goes out, files and redirects too, and the true origin of what comes in. */
keepFilesPrivate();
const settings = readSettings(process.env);
const log = openLog(settings.logLevel);

type Handler = (request: IncomingMessage, response: ServerResponse) => void;
const { handler } = (await import(pathToFileURL(join(settings.buildFolder, 'server', 'entry.mjs')).href)) as { readonly handler: Handler };

const sendStatic = openStaticFiles(join(settings.buildFolder, 'client'));

const HSTS = 'max-age=31536000; includeSubDomains';
const isTls = settings.origin?.startsWith('https:') === true;

function refuse(response: ServerResponse, status: number, code: string, title: string): void {
  response.writeHead(status, { 'content-type': 'application/problem+json', 'cache-control': 'no-store' });
  response.end(JSON.stringify({ title, status, code }));
}

/** Forwarded headers that others write are dropped: Astro would believe them. */
function dropForwarded(request: IncomingMessage): void {
  const address = clientAddress(request.headers, request.socket.remoteAddress ?? '', settings.proxies);
  for (const name of Object.keys(request.headers)) if (name.startsWith('x-forwarded-')) Reflect.deleteProperty(request.headers, name);
  request.headers['x-forwarded-for'] = address;
}

const server = createServer((request, response) => {
  response.setHeader('x-content-type-options', 'nosniff');
  if (isTls) response.setHeader('strict-transport-security', HSTS);
  if (!isOwnHost(request.headers.host, settings)) return refuse(response, 421, 'foreign-host', 'Confetti does not answer to this name.');
  if (!isReadableAddress(request.url ?? '')) return refuse(response, 400, 'not-an-address', 'This is no address: a % stands before something that is not a number.');
  if (sendStatic(request, response)) return;
  dropForwarded(request);
  handler(request, response);
});

function isReadableAddress(address: string): boolean {
  try {
    decodeURIComponent(address);
    return true;
  } catch {
    return false;
  }
}

const HEADERS_WITHIN_MS = 20_000;
const IDLE_WITHIN_MS = 65_000;
const MAX_CONNECTIONS = 1_000;
server.headersTimeout = HEADERS_WITHIN_MS;
// Longer than what stands in front of it keeps an idle connection: a request never meets one that is just being closed.
server.keepAliveTimeout = IDLE_WITHIN_MS;
// Uploads may take as long as they move: what receives them watches that.
server.requestTimeout = 0;
server.maxConnections = MAX_CONNECTIONS;

const host = process.env['HOST'] ?? '127.0.0.1';
const port = Number(process.env['PORT'] ?? 4321);
server.listen(port, host, () => log.info({ host, port, data: resolve(settings.dataFolder) }, 'Confetti listens'));

const CLOSE_WITHIN_MS = 5_000;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), CLOSE_WITHIN_MS).unref();
    // Streams stay open for ever by themselves.
    server.closeAllConnections();
  });
}
