import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Piece } from '../../src/core/piece/piece.ts';
import type { ConnectorFor } from '../../src/server/connectors/registry.ts';
import { runDueJobs, runJobs } from '../../src/server/jobs/job-runner.ts';
import { lanes, type Lane } from '../../src/server/jobs/lanes.ts';
import { workHandlers } from '../../src/server/worker/handlers.ts';
import { closeServices, openServices, type Services } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { startStandin, type RunningStandin } from '../../standin/start.ts';
import { endProgram, freePort, startProgram, until } from '../fixtures/programs.ts';
import { SEED_FOLDER } from '../fixtures/seed-folder.ts';

/** How long the stand-in's slow fault takes here. */
export const SLOW_MS = 1_500;

/** A piece as the server answers it. */
export interface Made {
  readonly id: string;
  readonly revision: number;
  readonly document: Piece;
}

export interface Answer {
  readonly status: number;
  readonly body: Record<string, never> & Record<string, unknown>;
  readonly headers: Headers;
}

/** A person's way to the server: by a session's cookie or by a token. */
export class Client {
  #cookie: string | null = null;

  constructor(
    readonly origin: string,
    readonly token: string | null = null,
  ) {}

  async raw(method: string, path: string, init: RequestInit = {}): Promise<Response> {
    return fetch(`${this.origin}${path}`, {
      redirect: 'manual',
      ...init,
      method,
      headers: {
        origin: this.origin,
        ...(this.#cookie ? { cookie: this.#cookie } : {}),
        ...(this.token ? { authorization: `Bearer ${this.token}` } : {}),
        ...(init.headers as Record<string, string> | undefined),
      },
    });
  }

  async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const response = await this.raw(method, path, body === undefined ? { headers } : { body: JSON.stringify(body), headers: { 'content-type': 'application/json', ...headers } });
    const setCookie = response.headers.get('set-cookie');
    if (setCookie) this.#cookie = setCookie.split(';')[0] ?? null;
    const text = await response.text();
    return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : {}, headers: response.headers };
  }

  async upload(brand: string, name: string, bytes: Uint8Array): Promise<Answer> {
    const response = await this.raw('POST', `/api/brands/${brand}/media?name=${encodeURIComponent(name)}`, { body: bytes as Uint8Array<ArrayBuffer>, headers: { 'content-type': 'application/octet-stream' } });
    return { status: response.status, body: await response.json(), headers: response.headers };
  }
}

/** Signs people of the demo in, by the first part of their address. */
export async function signInAll(origin: string, names: readonly string[]): Promise<ReadonlyMap<string, Client>> {
  const people = new Map<string, Client>();
  for (const name of names) {
    const client = new Client(origin);
    await client.ask('POST', '/api/session', { email: `${name}@gullwickkites.example`, password: PASSWORD });
    people.set(name, client);
  }
  return people;
}

/** Invites somebody new and lets them join. */
export async function joinAs(owner: Client, brand: string, email: string, role: string): Promise<Client> {
  const { body } = await owner.ask('POST', `/api/brands/${brand}/invitations`, { email, role });
  const joined = new Client(owner.origin);
  const answer = await joined.ask('POST', '/api/invitations/accept', { secret: String(body['path']).split('#')[1], newcomer: { name: email.split('@')[0], email, newPassword: 'a password for tests' } });
  if (answer.status !== 201) throw new Error(`${email} could not join: ${answer.status}`);
  return joined;
}

/** What somebody wants to connect: a network, or a site of one's own. */
interface WantedConnection {
  readonly network: string;
  readonly site?: string;
}

/** Goes to a network's consent page as a person does, answers it, and comes back; answers the connection. */
export async function consentTo({ origin }: Pick<Stack, 'origin'>, by: Client, wanted: WantedConnection, form: Readonly<Record<string, string>>): Promise<string> {
  const begun = await by.ask('POST', `${GULLWICK}/connections`, wanted);
  if (begun.status !== 201) throw new Error(`No connection was begun: ${begun.status}`);
  const address = new URL(String(begun.body['address']));
  const page = await (await fetch(address)).text();
  if (!page.includes('asks to post for you')) throw new Error('The network showed no page of consent');
  const answered = await fetch(`${address.origin}${address.pathname}`, { method: 'POST', redirect: 'manual', body: new URLSearchParams({ ...Object.fromEntries(address.searchParams), ...form }) });
  const back = new URL(answered.headers.get('location') ?? '');
  const returned = await by.raw('GET', `${back.pathname}${back.search}`);
  return new URL(returned.headers.get('location') ?? '', origin).searchParams.get('connection') ?? '';
}

/** Opens an account on a network and connects it; answers its channel. */
export async function connectNew(stack: Pick<Stack, 'origin'>, by: Client, network: string, account: { readonly handle: string; readonly name: string; readonly kind: string }): Promise<string> {
  const connection = await consentTo(stack, by, { network }, { answer: 'allow', 'new-handle': account.handle, 'new-name': account.name, 'new-kind': account.kind });
  const { channels } = (await by.ask('POST', `${GULLWICK}/connections/${connection}`, { handles: [account.handle] })).body as unknown as { channels: { id: string }[] };
  const id = channels[0]?.id;
  if (!id) throw new Error(`${account.handle} was not connected`);
  return id;
}

/** How a test moves the clocks that its dispatcher sees: ahead, or standing still. */
export interface TestClock {
  aheadMs: number;
  /** The machine's clock stands still here; null lets it run. */
  stoppedAtMs: number | null;
}

export interface Stack {
  readonly origin: string;
  readonly standin: RunningStandin;
  readonly dataFolder: string;
  /** The web server's process. */
  readonly webPid: number;
  readonly environment: Readonly<Record<string, string>>;
  /** The demo designer, with the token that the demo prints. */
  readonly wren: Client;
  /** A way into the same data, for what has no endpoint, with a clock that tests can move. */
  readonly services: Services;
  readonly clock: TestClock;
  fault(network: string, kind: string, times?: number): Promise<void>;
  close(): Promise<void>;
}

const GULLWICK = '/api/brands/gullwick';
export const PASSWORD = 'sand-in-both-shoes';

const SENDING: readonly string[] = ['send', 'send-video'];
/** Lanes that tests run themselves, when they want to. */
const BY_TESTS: readonly string[] = [...SENDING, 'learn', 'answer'];

/** Sends everything that is due right now; answers how many attempts that were. */
export function sendDue({ services }: Pick<Stack, 'services'>, connectorFor?: ConnectorFor): Promise<number> {
  return runDueJobs(services, workHandlers(services, connectorFor), SENDING);
}

/** Cancels everything that waits to be sent, as what the seed has scheduled would go out in the middle of other tests. */
export async function clearQueue({ services: { db } }: Pick<Stack, 'services'>): Promise<void> {
  await db('deliveries').whereIn('state', ['scheduled', 'sending']).update({ state: 'cancelled' });
  await db('jobs').whereIn('lane', [...SENDING]).whereIn('state', ['waiting', 'running']).update({ state: 'cancelled' });
}

/** The rows of a piece's deliveries, for what has no endpoint. */
export async function deliveryRows({ services: { db } }: Pick<Stack, 'services'>, pieceId: string): Promise<{ id: string; post_id: string; words: string; state: string; step: string | null; attempt: number; due_ms: number; not_before_ms: number; publish_intent_ms: number | null }[]> {
  return db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where('posts.piece_id', pieceId).select('deliveries.*');
}

/** A whole Confetti with stand-in networks and the demo's brands, on its own data; it works on everything but sending, which tests do themselves. */
export async function startStack(options: { readonly lanes?: readonly string[]; readonly environment?: Readonly<Record<string, string>> } = {}): Promise<Stack> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'confetti-test-'));
  cpSync(SEED_FOLDER, dataFolder, { recursive: true });
  const standin = await startStandin({ dataFolder: join(dataFolder, 'standin'), port: 0, slowMs: SLOW_MS });
  const port = await freePort();
  const origin = `http://127.0.0.1:${port}`;
  const environment = { CONFETTI_DATA: dataFolder, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standin.origin, CONFETTI_SMTP: `smtp://127.0.0.1:${standin.mailPort}`, CONFETTI_DEMO_VIDEOS: 'drafts', CONFETTI_LOG: 'silent', HOST: '127.0.0.1', PORT: String(port), NODE_ENV: 'production', ...options.environment };
  const opened = await openServices(readSettings(environment), 1);
  // The copy knows the stand-ins that it was seeded with.
  await opened.db('channels').update({ origin: standin.origin });
  const web = startProgram('web.mjs', environment);
  await until('the web server', () => fetch(`${origin}/sign-in`).then((response) => response.ok, () => false));
  const { token } = JSON.parse(readFileSync(join(dataFolder, 'demo.json'), 'utf8')) as { token: { secret: string } };
  const clock: TestClock = { aheadMs: 0, stoppedAtMs: null };
  const services: Services = {
    ...opened,
    clock: { nowMs: async () => (await opened.clock.nowMs()) + clock.aheadMs, machineNowMs: () => (clock.stoppedAtMs ?? opened.clock.machineNowMs()) + clock.aheadMs },
  };
  const stop = new AbortController();
  const work = runJobs(services, workHandlers(services), options.lanes ? lanes.filter(({ name }) => options.lanes?.includes(name)) : lanes.filter(({ name }: Lane) => !BY_TESTS.includes(name)), stop.signal);
  return {
    origin,
    standin,
    dataFolder,
    webPid: web.pid ?? 0,
    environment,
    wren: new Client(origin, token.secret),
    services,
    clock,
    async fault(network, kind, times = 1) {
      const response = await fetch(`${standin.origin}/switchboard/faults`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ network, kind, times }) });
      if (response.status !== 204) throw new Error(`The switchboard answered ${response.status}`);
    },
    async close() {
      stop.abort();
      await work;
      await endProgram(web);
      await closeServices(opened);
      await standin.close();
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}
