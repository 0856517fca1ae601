import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { seededNumbers } from '../../src/core/motif/seeded-numbers.ts';
import { addClockOffsetMs, readClockOffsetMs } from '../../src/server/db/clock-repository.ts';
import { closeServices, openServices, type Services } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { freePort, until } from '../fixtures/programs.ts';
import { Machine } from './machine.ts';
import { brandOf, grantAccesses, makeDeliveries, spread, type MadeDelivery } from './make-deliveries.ts';

export interface CampaignOptions {
  readonly deliveries: number;
  readonly seed: number;
  /** False: no faults, for measuring time. */
  readonly hasTrouble: boolean;
  readonly say: (text: string) => void;
}

/** What came of a campaign. The first four have to be 0. */
export interface CampaignResult {
  readonly deliveries: number;
  readonly doubled: number;
  readonly lost: number;
  readonly early: number;
  readonly unexplained: number;
  readonly sent: number;
  /** Failed with a reason that a person can act on. */
  readonly explained: number;
  readonly troubles: Readonly<Record<string, number>>;
  readonly seconds: number;
  /** Seconds after its moment, of those that were sent. */
  readonly lateP95: number;
}

const QUIET_WITHIN_MS = 15 * 60_000;
/** Stand-ins and Confetti read the clock a moment apart. */
const CLOCK_SLACK_MS = 1_500;
/** A delivery becomes due so often. */
const EVERY_MS = 60;

/**
 * Sends a number of deliveries to all nine networks while everything goes wrong, one fault after the other, and counts afterwards in the
 * networks' own store what became of each.
 */
export async function runCampaign({ deliveries, seed, hasTrouble, say }: CampaignOptions): Promise<CampaignResult> {
  const random = seededNumbers(seed);
  const machine = new Machine();
  const standinPort = await freePort();
  const standinOrigin = `http://127.0.0.1:${standinPort}`;
  machine.environment = { CONFETTI_DATA: machine.data, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standinOrigin, CONFETTI_LANES: 'send,send-video', CONFETTI_LOG: 'silent', NODE_ENV: 'production', STANDIN_DATA: machine.networks, STANDIN_PORT: String(standinPort), STANDIN_SLOW_MS: '2000' };
  const services = await openServices(readSettings(machine.environment), 1);
  try {
    machine.start('standin');
    await until('the stand-ins', () => fetch(`${standinOrigin}/switchboard`).then(({ ok }) => ok, () => false));
    await fetch(`${standinOrigin}/switchboard/clock`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ offsetMs: await readClockOffsetMs(services.db) }) });
    const brand = await brandOf(services);
    await services.db('channels').update({ origin: standinOrigin });
    await services.db('jobs').delete();
    await services.db('deliveries').whereIn('state', ['scheduled', 'sending', 'in review', 'by hand']).update({ state: 'cancelled' });
    await grantAccesses(services, brand, standinOrigin);
    const made = await makeDeliveries(services, brand, deliveries);
    say(`${made.length} deliveries of ${new Set(made.map(({ network }) => network)).size} networks are scheduled`);
    const startMs = Date.now();
    await spread(services, made, EVERY_MS);
    for (const name of ['worker one', 'worker two']) machine.start(name);
    const troubles: Record<string, number> = {};
    const isOver = { now: false };
    const trouble = hasTrouble ? makeTrouble(machine, services, standinOrigin, random, troubles, isOver) : Promise.resolve();
    const waiting = async (): Promise<number> => Number((await services.db('deliveries').whereIn('id', made.map(({ id }) => id).slice(0, 30_000)).whereIn('state', ['scheduled', 'sending']).count({ count: '*' }).first())?.['count'] ?? 0);
    const dueEndMs = startMs + made.length * EVERY_MS;
    while (Date.now() < dueEndMs) await sleep(1_000);
    isOver.now = true;
    await trouble;
    say('no more faults; waiting for the remaining deliveries');
    await until('everything to end', async () => (await countSafely(waiting)) === 0, QUIET_WITHIN_MS);
    const seconds = (Date.now() - startMs) / 1000;
    return { ...(await judge(services, machine, made)), troubles, seconds };
  } finally {
    await machine.endPrograms();
    await closeServices(services);
    machine.remove();
  }
}

/** Treats a locked database as still busy. */
async function countSafely(count: () => Promise<number>): Promise<number> {
  return count().catch(() => 1);
}

const PAUSE_MS = 1_200;

async function makeTrouble(machine: Machine, services: Services, standinOrigin: string, random: () => number, troubles: Record<string, number>, isOver: { readonly now: boolean }): Promise<void> {
  const networks = (await services.db('channels').distinct('network_key').pluck('network_key')) as string[];
  const pick = <Each>(from: readonly Each[]): Each => from[Math.floor(random() * from.length)] as Each;
  const switchboard = (path: string, body: unknown): Promise<unknown> => fetch(`${standinOrigin}/switchboard/${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).catch(() => undefined);
  const fault = (kind: string, times: number) => (): Promise<unknown> => switchboard('faults', { network: pick(networks), kind, times });
  const acts: readonly (readonly [string, () => unknown])[] = [
    ['kill -9 of a dispatcher', () => machine.kill(pick(['worker one', 'worker two']))],
    ['kill -9 of both dispatchers', () => ['worker one', 'worker two'].forEach((name) => machine.kill(name))],
    ['kill -9 of the networks', () => machine.kill('standin')],
    ['connections that break before the work', fault('down', 6)],
    ['connections that break after the work', fault('drop-after-publish', 3)],
    ['429 with Retry-After', fault('busy', 6)],
    ['bursts of 500', fault('broken', 8)],
    ['a slow network', fault('slow', 3)],
    ['tokens that end', () => switchboard('end-tokens', { network: pick(networks) })],
    ['a locked database', () => lockDatabase(machine)],
    ['a full disk', () => machine.fillDisk(1_500)],
    [
      'a clock that jumps',
      async () => {
        await addClockOffsetMs(services.db, 20_000);
        await switchboard('clock', { offsetMs: await readClockOffsetMs(services.db) });
      },
    ],
  ];
  while (!isOver.now) {
    const [name, act] = pick(acts);
    troubles[name] = (troubles[name] ?? 0) + 1;
    // A locked or full database may refuse the trouble itself.
    await Promise.resolve()
      .then(act)
      .catch(() => undefined);
    await sleep(PAUSE_MS * (0.3 + random()));
  }
  for (const network of networks) await switchboard('faults', { network, kind: 'none' });
}

/** Holds the database's write lock for longer than a writer waits at once. */
async function lockDatabase(machine: Machine): Promise<void> {
  const db = new Database(join(machine.data, 'confetti.db'));
  try {
    db.pragma('busy_timeout = 2000');
    db.exec('BEGIN IMMEDIATE');
    await sleep(3_000);
    db.exec('ROLLBACK');
  } finally {
    db.close();
  }
}

interface PublicPost {
  readonly text: string;
  readonly network: string;
  readonly publishedMs: number;
  readonly details: string;
  readonly firstComment: string;
}

async function judge({ db }: Services, machine: Machine, made: readonly MadeDelivery[]): Promise<Omit<CampaignResult, 'troubles' | 'seconds'>> {
  const networks = new Database(join(machine.networks, 'standin.db'), { readonly: true });
  const posts = networks.prepare("SELECT text, network, publishedMs, details, firstComment FROM posts WHERE text LIKE 'Delivery %'").all() as PublicPost[];
  networks.close();
  const byText = new Map<string, PublicPost[]>();
  for (const post of posts) byText.set(`${post.network} ${post.text}`, [...(byText.get(`${post.network} ${post.text}`) ?? []), post]);
  const rows: { id: string; state: string; problem: string | null; due_ms: number; sent_ms: number | null }[] = [];
  for (let at = 0; at < made.length; at += 500) rows.push(...(await db('deliveries').whereIn('id', made.slice(at, at + 500).map(({ id }) => id)).select('id', 'state', 'problem', 'due_ms', 'sent_ms')));
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const tally = { deliveries: made.length, doubled: 0, lost: 0, early: 0, unexplained: 0, sent: 0, explained: 0 };
  const lates: number[] = [];
  for (const { id, network, text, parts, comment } of made) {
    const row = rowOf.get(id);
    const published = byText.get(`${network} ${text}`) ?? [];
    if (published.length > 1) tally.doubled += 1;
    const behind = published.map(({ details }) => ((JSON.parse(details) as { thread?: readonly { readonly text: string }[] }).thread ?? []).map((part) => part.text));
    if (behind.some((texts) => new Set(texts).size < texts.length)) tally.doubled += 1;
    if (published.some(({ publishedMs }) => publishedMs < Number(row?.due_ms ?? 0) - CLOCK_SLACK_MS)) tally.early += 1;
    if (row?.state === 'sent') {
      tally.sent += 1;
      if (published.length === 0 || behind[0]?.join() !== parts.join() || published[0]?.firstComment !== comment) tally.lost += 1;
      lates.push(Math.max(0, Number(row.sent_ms ?? 0) - Number(row.due_ms)) / 1000);
    } else if (row?.state === 'failed' && row.problem !== null && row.problem !== '') {
      tally.explained += 1;
      // What is public although it counts as failed must say that nobody knows.
      if (published.length > 0 && !/cannot say whether|could not find out whether|^It is out/.test(row.problem)) tally.unexplained += 1;
    } else tally.unexplained += 1;
  }
  const sorted = lates.toSorted((a, b) => a - b);
  return { ...tally, lateP95: sorted[Math.floor(sorted.length * 0.95)] ?? 0 };
}
