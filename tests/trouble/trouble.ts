import { spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { seededNumbers } from '../../src/core/motif/seeded-numbers.ts';
import { SEED_FOLDER } from '../fixtures/seed-folder.ts';
import setup from '../server/seed-once.ts';
import { Client, PASSWORD, type Answer } from '../server/stack.ts';
import { endProgram, freePort, startProgram, until } from '../fixtures/programs.ts';

/**
 * Two people work while the machine is in trouble of all kinds, one after the other. Afterwards everything that was acknowledged has to be
 * there, nothing twice, and all programs well by themselves. Prints a table; ends with 1 when anything was lost, doubled, or stayed down.
 */
const { values } = parseArgs({ options: { minutes: { type: 'string', default: '5' }, seed: { type: 'string', default: '1' } } });
const END_MS = Date.now() + Number(values.minutes) * 60_000;
const RECOVER_WITHIN_MS = 60_000;
const QUIET_WITHIN_MS = 240_000;
const DISK_MEGABYTES = 360;
const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** A run with the same seed can be had again. */
const random = seededNumbers(Number(values.seed));

await setup();
const folder = mkdtempSync(join(tmpdir(), 'confetti-trouble-'));
const disk = join(folder, 'disk');
mkdirSync(disk);
const hasDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MEGABYTES}m`, 'tmpfs', disk]).status === 0;
const data = join(disk, 'data');
cpSync(SEED_FOLDER, data, { recursive: true });
// The networks have a machine of their own: their disk is not in trouble.
const networks = join(folder, 'networks');
cpSync(join(SEED_FOLDER, 'standin'), networks, { recursive: true });

const [port, standinPort] = [await freePort(), await freePort()];
const [origin, standinOrigin] = [`http://127.0.0.1:${port}`, `http://127.0.0.1:${standinPort}`];
const seedDb = new Database(join(data, 'confetti.db'));
seedDb.prepare('update channels set origin = ?').run(standinOrigin);
seedDb.close();
const environment = { CONFETTI_DATA: data, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standinOrigin, CONFETTI_LOG: 'silent', HOST: '127.0.0.1', PORT: String(port), NODE_ENV: 'production', STANDIN_DATA: networks, STANDIN_PORT: String(standinPort), STANDIN_SLOW_MS: '3000' };

/** Programs that are started again when they end, as `npm start` does. */
const programs = { web: 'web.mjs', worker: 'worker.mjs', standin: 'standin.mjs' } as const;
type Program = keyof typeof programs;
const running = new Map<Program, ChildProcess>();
let isStopping = false;
function start(name: Program): void {
  const child = startProgram(programs[name], environment);
  running.set(name, child);
  child.once('exit', () => void setTimeout(() => isStopping || start(name), 400));
}
/** Ends a program without starting it again. */
async function end(name: Program): Promise<void> {
  const child = running.get(name);
  child?.removeAllListeners('exit');
  if (child) await endProgram(child, 'SIGKILL');
}
for (const name of Object.keys(programs) as Program[]) start(name);
const isUp = (): Promise<boolean> => fetch(`${origin}/sign-in`, { signal: AbortSignal.timeout(1_000) }).then((response) => response.ok, () => false);
await until('Confetti', isUp);

/** What was acknowledged. */
const kept = { texts: new Map<string, string>(), pictures: new Set<string>(), posts: new Map<string, { piece: string; caption: string }>() };
const tally = { asked: 0, acknowledged: 0, refused: 0, unanswered: 0 };

/** Asks until it is answered for good; a request that may have been done is asked again just as it was. */
async function insist(ask: () => Promise<Answer>): Promise<Answer | null> {
  for (let attempt = 0; attempt < 200 && !(Date.now() > END_MS + RECOVER_WITHIN_MS); attempt += 1) {
    tally.asked += 1;
    try {
      const answer = await ask();
      if (answer.status < 500 && answer.status !== 429) return answer;
      tally.refused += 1;
    } catch {
      tally.unanswered += 1;
    }
    await sleep(250);
  }
  return null;
}

async function work(person: string, email: string): Promise<void> {
  const client = new Client(origin);
  await insist(() => client.ask('POST', '/api/session', { email, password: PASSWORD }));
  for (let count = 0; Date.now() < END_MS; count += 1) {
    const made = await insist(() => client.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' }));
    const piece = made?.body as unknown as { id: string; revision: number; document: { cuts: { channelId: string; placement: string }[] } } | undefined;
    if (made?.status !== 201 || !piece) continue;
    const caption = `${person} ${count} ${piece.id}`;
    const text = { kind: 'text', text: `Headline ${caption}` };
    let { revision } = piece;
    for (const patches of [[{ op: 'add', path: '/frames/0/slots/quote', value: text }, { op: 'add', path: '/frames/0/slots/headline', value: text }], [{ op: 'add', path: '/words/shared/caption', value: caption }]]) {
      const saved = await insist(() => client.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision, patches }));
      if (saved?.status !== 200) continue;
      revision = (saved.body as unknown as { revision: number }).revision;
      tally.acknowledged += 1;
      if (patches.length === 1) kept.texts.set(piece.id, caption);
    }
    if (count % 3 === 0) {
      const colour = { r: Math.floor(random() * 255), g: count % 255, b: Math.floor(random() * 255) };
      const bytes = await sharp({ create: { width: 320, height: 240, channels: 3, background: colour } }).jpeg().toBuffer();
      const uploaded = await insist(() => client.upload('gullwick', `${person}-${count}.jpg`, bytes));
      if (uploaded?.status === 200 || uploaded?.status === 201) {
        kept.pictures.add(String(uploaded.body['id']));
        tally.acknowledged += 1;
      }
    }
    const cut = piece.document.cuts.find(({ placement }) => placement === (count % 2 === 0 ? 'post-wide' : 'feed-square'));
    const request = `trouble-${person}-${count}`;
    const scheduled = cut ? await insist(() => client.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision, cuts: [cut], when: { kind: 'now' }, request })) : null;
    if (scheduled?.status === 201) {
      kept.posts.set(request, { piece: piece.id, caption });
      tally.acknowledged += 1;
    }
    await sleep(300 + random() * 500);
  }
}

interface Trouble {
  readonly name: string;
  /** Makes the trouble, lets it last, and ends it. */
  readonly make: () => Promise<void>;
}

const switchboard = (network: string, kind: string, times = 6): Promise<unknown> => fetch(`${standinOrigin}/switchboard/faults`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ network, kind, times }) }).catch(() => undefined);
const kill = (name: Program): Trouble => ({ name: `kill -9 of the ${name === 'standin' ? 'networks' : name}`, make: async () => void running.get(name)?.kill('SIGKILL') });
const fault = (kind: string): Trouble => ({ name: `a network: ${kind}`, make: async () => void (await Promise.all(['petalry', 'quipline'].map((network) => switchboard(network, kind)))) });

/** A network that begins to answer and never ends, in the place of the stand-ins. */
async function endless(): Promise<void> {
  await end('standin');
  const server: Server = createServer((request, response) => {
    request.resume();
    response.writeHead(200, { 'content-type': 'application/json' });
    const chunk = Buffer.alloc(64 * 1024, 0x20);
    const more = (): void => {
      while (!response.destroyed && response.write(chunk));
      if (!response.destroyed) response.once('drain', more);
    };
    more();
  }).listen(standinPort, '127.0.0.1');
  await sleep(6_000);
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  start('standin');
}

const filler = join(disk, 'filler');
const troubles: readonly Trouble[] = [
  kill('web'),
  kill('worker'),
  kill('standin'),
  fault('down'),
  fault('slow'),
  fault('broken'),
  fault('busy'),
  fault('drop-after-publish'),
  { name: 'a network answers without end', make: endless },
  {
    name: 'the database locked for 12 s',
    async make() {
      const db = new Database(join(data, 'confetti.db'));
      db.pragma('busy_timeout = 5000');
      db.exec('BEGIN IMMEDIATE');
      await sleep(12_000);
      db.exec('COMMIT');
      db.close();
    },
  },
  {
    name: 'the demo clock jumps an hour',
    make: async () => void (await new Client(origin, demoToken()).ask('POST', '/api/demo/clock', { forwardMs: 3_600_000 }).catch(() => undefined)),
  },
  ...(hasDisk
    ? [
        {
          name: 'the disk full for 10 s',
          async make() {
            const { bavail, bsize } = statfsSync(disk);
            try {
              writeFileSync(filler, Buffer.alloc(bavail * bsize, 1));
            } catch {
              // Full is what it has to be.
            }
            await sleep(10_000);
            rmSync(filler, { force: true });
          },
        },
        {
          name: 'the folder read-only for 8 s',
          async make() {
            // While files are open for writing, a file system is not made read-only by force: the programs start anew in it.
            for (const name of ['web', 'worker'] as const) await end(name);
            await until('the file system read-only', () => spawnSync('mount', ['-o', 'remount,ro', disk]).status === 0, 10_000);
            start('web');
            start('worker');
            await sleep(8_000);
            spawnSync('mount', ['-o', 'remount,rw', disk]);
          },
        },
      ]
    : []),
];
function demoToken(): string {
  return (JSON.parse(readFileSync(join(data, 'demo.json'), 'utf8')) as { token: { secret: string } }).token.secret;
}

/** Whether a person can read and write again; by a token, as sessions may be among what waits. */
async function isWell(): Promise<boolean> {
  const client = new Client(origin, demoToken());
  try {
    const made = await client.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' });
    return made.status === 201;
  } catch {
    return false;
  }
}

const results = new Map<string, { times: number; worstMs: number; failed: number }>();
let chosen = 0;
async function troubleMaker(): Promise<void> {
  while (Date.now() < END_MS - 5_000) {
    // Each once, in their order; then by chance.
    const trouble = chosen < troubles.length ? troubles[chosen] : troubles[Math.floor(random() * troubles.length)];
    chosen += 1;
    if (!trouble) return;
    await trouble.make();
    const ended = Date.now();
    let isRecovered = false;
    while (!isRecovered && Date.now() - ended < RECOVER_WITHIN_MS) {
      isRecovered = await isWell();
      if (!isRecovered) await sleep(100);
    }
    const known = results.get(trouble.name) ?? { times: 0, worstMs: 0, failed: 0 };
    results.set(trouble.name, { times: known.times + 1, worstMs: Math.max(known.worstMs, Date.now() - ended), failed: known.failed + (isRecovered ? 0 : 1) });
    await sleep(2_000 + random() * 3_000);
  }
}

say(`Trouble for ${values.minutes} minutes, two people working${hasDisk ? '' : '; without a disk of its own, as only root may make one'}…`);
await Promise.all([work('Wren', 'wren@gullwickkites.example'), work('Ottoline', 'ottoline@gullwickkites.example'), troubleMaker()]);
for (const network of ['petalry', 'quipline']) await switchboard(network, 'none');

const db = new Database(join(data, 'confetti.db'), { readonly: true });
const waiting = (): number => (db.prepare("select count(*) as count from deliveries join posts on posts.id = deliveries.post_id where posts.request like 'trouble-%' and deliveries.state in ('scheduled', 'sending')").get() as { count: number }).count;
const isQuiet = await until('all posts sent', () => waiting() === 0, QUIET_WITHIN_MS).then(() => true, () => false);

const wrong: string[] = [];
if (!isQuiet) wrong.push(`${waiting()} posts are still under way`);
for (const [id, caption] of kept.texts) {
  const row = db.prepare('select documents.body from pieces join documents on documents.hash = pieces.hash where pieces.id = ?').get(id) as { body: string } | undefined;
  if (!row?.body.includes(caption)) wrong.push(`the words of piece ${id} are lost`);
}
for (const id of kept.pictures) if (!db.prepare('select id from media where id = ?').get(id)) wrong.push(`picture ${id} is lost`);
const networksDb = new Database(join(networks, 'standin.db'), { readonly: true });
const published = networksDb.prepare('select text from posts').all() as { text: string }[];
networksDb.close();
let sent = 0;
for (const [request, { piece, caption }] of kept.posts) {
  const rows = db.prepare('select deliveries.state from deliveries join posts on posts.id = deliveries.post_id where posts.request = ? and posts.piece_id = ?').all(request, piece) as { state: string }[];
  if (rows.length !== 1) wrong.push(`${request} made ${rows.length} deliveries`);
  const out = published.filter(({ text }) => text === caption).length;
  if (rows[0]?.state === 'sent') sent += 1;
  if (out > 1) wrong.push(`${request} is public ${out} times`);
  if (rows[0]?.state === 'sent' && out !== 1) wrong.push(`${request} counts as sent and is public ${out} times`);
  if (rows[0]?.state !== 'sent' && out > 0) wrong.push(`${request} is ${rows[0]?.state ?? 'gone'} and public`);
}
if ((db.pragma('integrity_check', { simple: true }) as string) !== 'ok') wrong.push('the database is damaged');
db.close();

isStopping = true;
await Promise.all((Object.keys(programs) as Program[]).map((name) => end(name)));

/** A damaged database is named, and neither program goes on with it. */
const broken = join(folder, 'broken');
cpSync(SEED_FOLDER, broken, { recursive: true });
chmodSync(join(broken, 'confetti.db'), 0o600);
writeFileSync(join(broken, 'confetti.db'), Buffer.alloc(65_536, 0x5a));
for (const end of ['-wal', '-shm']) rmSync(join(broken, `confetti.db${end}`), { force: true });
const brokenPort = await freePort();
const web = startProgram('web.mjs', { ...environment, CONFETTI_DATA: broken, PORT: String(brokenPort) });
let named: Answer | null = null;
await until('an answer', async () => {
  named = await new Client(`http://127.0.0.1:${brokenPort}`).ask('GET', '/api/me').catch(() => null);
  return named !== null;
}, 20_000).catch(() => undefined);
const code = (named as Answer | null)?.body['code'] as unknown;
if (code !== 'database-damaged') wrong.push(`a damaged database is answered ${String(code)}`);
await endProgram(web, 'SIGKILL');
if (hasDisk) spawnSync('umount', ['-l', disk]);
rmSync(folder, { recursive: true, force: true });

say('\n| trouble | times | well again after, at the most | not within a minute |\n|---|---|---|---|');
for (const [name, { times, worstMs, failed }] of results) {
  say(`| ${name} | ${times} | ${(worstMs / 1000).toFixed(1)} s | ${failed} |`);
  if (failed > 0) wrong.push(`not well again by itself: ${name}`);
}
say(`\n${tally.asked} requests: ${tally.refused} refused for a while, ${tally.unanswered} unanswered; ${tally.acknowledged} changes acknowledged: ${kept.texts.size} texts, ${kept.pictures.size} pictures, ${kept.posts.size} posts, of which ${sent} are out.`);
say(wrong.length === 0 ? 'Nothing acknowledged is lost, nothing is doubled, all is well.' : `WRONG:\n${wrong.map((each) => `- ${each}`).join('\n')}`);
process.exit(wrong.length === 0 ? 0 : 1);
