import { spawnSync, type ChildProcess } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { cpSync, mkdirSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import type { Frame } from '../../src/core/piece/piece.ts';
import { seededNumbers } from '../../src/core/motif/seeded-numbers.ts';
import { writeThread } from '../../src/core/words/thread.ts';
import { accessOf } from '../../src/server/connect/connect-channel.ts';
import { readGrant } from '../../src/server/connect/oauth.ts';
import { findBrandFor, listChannels, type Brand } from '../../src/server/db/brand-repository.ts';
import { addClockOffsetMs, readClockOffsetMs } from '../../src/server/db/clock-repository.ts';
import { findPiece, type StoredPiece } from '../../src/server/db/piece-repository.ts';
import { schedule } from '../../src/server/post/schedule.ts';
import { closeServices, openServices, type Services } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { endProgram, freePort, startProgram, until } from '../server/stack.ts';
import { SEED_FOLDER } from '../server/seed-once.ts';

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

const DISK_MEGABYTES = 900;
const QUIET_WITHIN_MS = 15 * 60_000;
/** Stand-ins and Confetti read the clock a moment apart. */
const CLOCK_SLACK_MS = 1_500;
/** A delivery becomes due so often. */
const EVERY_MS = 60;
const PIECES = 8;

/** Two dispatchers, the stand-ins in a process of their own, a disk that can be filled, and everything started again when it ends. */
class Machine {
  readonly folder = mkdtempSync(join(tmpdir(), 'confetti-faults-'));
  readonly disk = join(this.folder, 'disk');
  readonly data = join(this.disk, 'data');
  readonly networks = join(this.folder, 'networks');
  readonly hasDisk: boolean;
  readonly #running = new Map<string, ChildProcess>();
  #isStopping = false;
  environment: Record<string, string> = {};

  constructor() {
    mkdirSync(this.disk);
    this.hasDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MEGABYTES}m`, 'tmpfs', this.disk]).status === 0;
    cpSync(SEED_FOLDER, this.data, { recursive: true });
    cpSync(join(SEED_FOLDER, 'standin'), this.networks, { recursive: true });
  }

  start(name: string): void {
    const child = startProgram(name.startsWith('worker') ? 'worker.mjs' : 'standin.mjs', this.environment);
    this.#running.set(name, child);
    child.once('exit', () => void setTimeout(() => this.#isStopping || this.start(name), 300));
  }

  kill(name: string): void {
    this.#running.get(name)?.kill('SIGKILL');
  }

  /** Leaves no room on the disk for a while. */
  async fillDisk(ms: number): Promise<void> {
    if (!this.hasDisk) return;
    const path = join(this.disk, 'filler');
    const { bavail, bsize } = statfsSync(this.disk);
    try {
      writeFileSync(path, Buffer.alloc(Math.max(0, bavail * bsize - 64 * 1024)));
    } catch {
      // As full as it gets.
    }
    await sleep(ms);
    rmSync(path, { force: true });
  }

  async endPrograms(): Promise<void> {
    this.#isStopping = true;
    await Promise.all([...this.#running.values()].map((child) => endProgram(child, 'SIGKILL')));
  }

  remove(): void {
    if (this.hasDisk) spawnSync('umount', ['-l', this.disk]);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

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
    await spread(services, made);
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

async function brandOf({ db }: Services): Promise<Brand> {
  const wren = await db('people').where({ email: 'wren@gullwickkites.example' }).first('id');
  const found = await findBrandFor(db, 'gullwick', wren.id);
  if (!found) throw new Error('The demo’s brand is not there');
  return found.brand;
}

/** Gives every channel an access that ends and can be renewed, as connecting does. */
async function grantAccesses(services: Services, brand: Brand, standinOrigin: string): Promise<void> {
  for (const channel of await listChannels(services.db, brand.id)) {
    const verifier = randomBytes(32).toString('base64url');
    const asked = { response_type: 'code', client_id: 'http://127.0.0.1/', redirect_uri: 'http://127.0.0.1/back', state: 'faults', code_challenge: createHash('sha256').update(verifier).digest('base64url'), code_challenge_method: 'S256' };
    const answered = await fetch(`${standinOrigin}/${channel.network}/consent`, { method: 'POST', redirect: 'manual', body: new URLSearchParams({ ...asked, answer: 'allow', handle: channel.handle }) });
    const code = new URL(answered.headers.get('location') ?? '').searchParams.get('code') ?? '';
    const granted = (await (await fetch(`${standinOrigin}/${channel.network}/token`, { method: 'POST', body: new URLSearchParams({ grant_type: 'authorization_code', code, client_id: asked.client_id, redirect_uri: asked.redirect_uri, code_verifier: verifier }) })).json()) as { accounts?: readonly unknown[] };
    const access = accessOf(services.sealer, readGrant(granted.accounts?.[0] ?? granted, channel.name), await services.clock.nowMs());
    await services.db('channels').where({ id: channel.id }).update({ token: access.token, refresh_token: access.refreshToken, token_ends_ms: access.tokenEndsMs, access_ends_ms: access.accessEndsMs });
  }
}

/** Networks whose posts go out as threads, or with a first comment. */
const THREADED = 'quipline';
const COMMENTED: readonly string[] = ['petalry', 'guildrow'];

interface MadeDelivery {
  readonly id: string;
  readonly network: string;
  readonly text: string;
  /** What has to stand behind the post when it is sent. */
  readonly parts: readonly string[];
  readonly comment: string;
}

/** One delivery in so many is a video: to the two networks that take nothing else. */
const FILM_EVERY = 25;
const FILM_PLACES: readonly (readonly [network: string, placement: string])[] = [['whirlo', 'clip'], ['longhall', 'short']];
const SHOT_MS = 1_600;

/** Schedules pieces again and again, and gives every delivery a text that tells it from all others; videos come between the graphics. */
async function makeDeliveries(services: Services, brand: Brand, wanted: number): Promise<readonly MadeDelivery[]> {
  const films = Math.floor(wanted / FILM_EVERY);
  const ids: string[] = await services.db('pieces').where({ brand_id: brand.id, kind: 'graphic' }).orderBy('id').limit(PIECES).pluck('id');
  const pieces = (await Promise.all(ids.map((id) => findPiece(services.db, brand.id, id)))).flatMap((piece): StoredPiece[] => (piece ? [piece] : []));
  const made = await scheduleAgain(services, brand, pieces, wanted - films, 'Delivery');
  const madeFilms = await scheduleAgain(services, brand, [await shortFilm(services, brand)], films, 'Delivery of a film');
  return made.flatMap((each, index) => [each, ...madeFilms.slice(Math.ceil((index * films) / made.length), Math.ceil(((index + 1) * films) / made.length))]);
}

/** A video of the demo, cut down to two short shots without a sound, for the networks that take nothing else. */
async function shortFilm({ db }: Services, brand: Brand): Promise<StoredPiece> {
  const id: string | undefined = (await db('pieces').where({ brand_id: brand.id, kind: 'video' }).orderBy('id').first('id'))?.id;
  const piece = id === undefined ? null : await findPiece(db, brand.id, id);
  if (!piece) throw new Error('The demo has no video');
  const channels = await listChannels(db, brand.id);
  const { document } = piece;
  const cuts = document.cuts.filter(({ channelId, placement }) => FILM_PLACES.some(([network, place]) => place === placement && channels.some((channel) => channel.id === channelId && channel.network === network)));
  if (cuts.length === 0) throw new Error('The demo’s video goes to no network of videos');
  const short = (frame: Frame): Frame => ({ ...frame, shot: { lengthMs: SHOT_MS } });
  const [first] = document.frames;
  return { ...piece, document: { ...document, frames: [short(first), short(document.frames.at(-1) ?? first)], track: undefined, cover: undefined, cuts } };
}

async function scheduleAgain(services: Services, brand: Brand, pieces: readonly StoredPiece[], wanted: number, name: string): Promise<readonly MadeDelivery[]> {
  const { db } = services;
  const wren = await db('people').where({ email: 'wren@gullwickkites.example' }).first('id');
  const made: MadeDelivery[] = [];
  // Networks take so many a day; the days are far apart until everything is moved to now.
  for (let day = 0; made.length < wanted; day += 1) {
    for (const piece of pieces) {
      if (made.length >= wanted) break;
      const wall = new Date(Date.UTC(2040, 0, 1 + day)).toISOString().slice(0, 10);
      const deliveries = await schedule(services, brand, piece, { revision: piece.revision, cuts: piece.document.cuts.map((cut) => ({ ...cut, when: undefined })), when: { kind: 'at', wall: `${wall}T09:30` }, again: true }, { personId: wren.id, maySend: true }, await services.clock.nowMs());
      for (const delivery of deliveries) {
        const text = `${name} ${made.length}`;
        const parts = delivery.network === THREADED ? [`${text}, part two`, `${text}, part three`] : [];
        const comment = COMMENTED.includes(delivery.network) ? `${text}, first comment` : '';
        const { thread: _, firstComment: __, ...words } = delivery.words;
        const follows = { ...(parts.length > 0 ? { thread: writeThread({ parts: [text, ...parts], pictureEach: false }) } : {}), ...(comment === '' ? {} : { firstComment: comment }) };
        await db('deliveries').where({ id: delivery.id }).update({ words: JSON.stringify({ ...words, caption: text, ...follows }) });
        made.push({ id: delivery.id, network: delivery.network, text, parts, comment });
      }
    }
  }
  return made;
}

/** Makes the deliveries due one after the other, from now on. */
async function spread(services: Services, made: readonly MadeDelivery[]): Promise<void> {
  const nowMs = await services.clock.nowMs();
  await services.db.transaction(async (trx) => {
    for (const [index, { id }] of made.entries()) {
      const dueMs = nowMs + index * EVERY_MS;
      await trx('deliveries').where({ id }).update({ due_ms: dueMs });
      await trx('jobs').where({ key: `delivery:${id}` }).update({ due_ms: dueMs });
    }
  });
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
