import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';
import { hashSecret, newSecret } from '../../src/server/auth/secrets.ts';
import { insertBrand, insertChannel, saveNetworkSheet } from '../../src/server/db/brand-repository.ts';
import { openDatabase } from '../../src/server/db/connection.ts';
import { insertMembership, insertPerson } from '../../src/server/db/people-repository.ts';
import { insertAccessToken } from '../../src/server/db/token-repository.ts';
import { withServer } from './bench-server.ts';
import { printFigure } from './figure.ts';
import { requestMs } from './request-time.ts';

const POSTS = 100_000;
const MEASUREMENTS_A_POST = 30;
const CHANNELS = 300;
const CONVERSATIONS = 200_000;
const DAYS = 400;
const DAY_MS = 86_400_000;
const ROUNDS = 11;
const BRAND = 'learn';

/** A large team's results and replies: what a person waits for. */
export async function measureLearn(): Promise<void> {
  const dataFolder = await mkdtemp(join(tmpdir(), 'confetti-learn-'));
  try {
    process.stdout.write(`seeding ${POSTS} posts with ${POSTS * MEASUREMENTS_A_POST} measurements on ${CHANNELS} channels, ${CONVERSATIONS} conversations\n`);
    const token = await seed(dataFolder);
    await withServer(dataFolder, async (origin) => {
      const day = (ago: number): string => new Date(Date.now() - ago * DAY_MS).toISOString().slice(0, 10);
      const quarter = `from=${day(91)}&until=${day(0)}`;
      const base = `/api/brands/${BRAND}`;
      const one = `${base}/conversations?limit=60`;
      const timed: readonly (readonly [string, string, number])[] = [
        ['learn-overview-of-a-quarter', `${base}/results/overview?${quarter}`, 400],
        ...(['rate', 'reach', 'saves', 'engagement', 'published'] as const).map((sort): [string, string, number] => [`learn-posts-of-a-quarter-by-${sort}`, `${base}/results/posts?${quarter}&sort=${sort}`, 200]),
        ['learn-replies-to-do', `${one}&state=to-do`, 100],
        ['learn-replies-of-a-channel', `${one}&channels=c7`, 100],
        ['learn-replies-by-words', `${one}&words=harbour+item777`, 100],
        ['learn-replies-of-a-person-closed', `${one}&state=closed&assigned=wren`, 100],
      ];
      for (const [name, path, most] of timed) printFigure(`${name}-in-milliseconds`, await requestMs(origin, path, token, ROUNDS), most);
    }, ['web.mjs']);
  } finally {
    await rm(dataFolder, { recursive: true, force: true });
  }
}

async function seed(dataFolder: string): Promise<string> {
  const secret = newSecret('cft');
  const db = await openDatabase(dataFolder);
  await insertPerson(db, { id: 'wren', email: 'wren@scale.example', name: 'Wren', passwordHash: 'none' }, 0);
  await insertBrand(db, { id: 'b', slug: BRAND, name: 'Learn', zone: 'Europe/London', book: gullwickBook });
  await insertMembership(db, 'wren', 'b', 'designer');
  await insertAccessToken(db, { id: 't', name: 'Bench', scope: 'send', createdMs: 0, expiresMs: 4_000_000_000_000, lastUsedMs: null, personId: 'wren', secretHash: hashSecret(secret) });
  for (const sheet of shippedSheets) await saveNetworkSheet(db, sheet);
  for (let index = 0; index < CHANNELS; index += 1) await insertChannel(db, { id: `c${index}`, brandId: 'b', network: shippedSheets[index % shippedSheets.length]?.key ?? 'petalry', name: `Channel ${index}`, handle: `@c${index}`, origin: '', token: 'none', offers: {} }, index);
  await db.destroy();
  // Rows by the million go in by prepared statements.
  const raw = new Database(join(dataFolder, 'confetti.db'));
  raw.pragma('synchronous = off');
  const post = raw.prepare("insert into publications (id, brand_id, channel_id, remote_id, address, published_ms, title, format, theme_id, traits, measured_ms, impressions, reach, reactions, comments, saves, engagement, rate_reach, rate_impressions, parts, aged) values (?, 'b', ?, ?, 'https://x.example/p', ?, ?, ?, ?, '{\"slides\":1,\"captionWords\":20,\"hashtags\":2,\"hasFirstComment\":false,\"wordsOnPicture\":null}', ?, ?, ?, ?, ?, ?, ?, ?, ?, '{}', ?)");
  const measurement = raw.prepare('insert into measurements values (?, ?, ?, ?, 1)');
  const conversation = raw.prepare("insert into conversations (id, brand_id, channel_id, thread, kind, author_handle, author_name, author_followers, state, assigned_to, snippet, first_ms, last_ms, waiting_since_ms) values (?, 'b', ?, ?, ?, ?, ?, 10, ?, ?, ?, ?, ?, ?)");
  const word = raw.prepare("insert or ignore into conversation_words values ('b', ?, ?)");
  const dayFigure = raw.prepare('insert into account_days values (?, ?, ?, ?)');
  const nowMs = Date.now();
  raw.transaction(() => {
    for (let index = 0; index < POSTS; index += 1) {
      const publishedMs = nowMs - Math.floor((index / POSTS) * DAYS * DAY_MS);
      const reach = 200 + ((index * 7_919) % 4_000);
      const engagement = Math.round(reach * (0.02 + ((index * 31) % 80) / 1_000));
      post.run(`u${index}`, `c${index % CHANNELS}`, `p${index}`, publishedMs, `Post ${index}`, ['picture', 'carousel', 'video'][index % 3], `t${index % 6}`, nowMs, reach * 1.4, reach, engagement * 0.8, engagement * 0.1, (index * 13) % 90, engagement, engagement / reach, engagement / reach / 1.4, JSON.stringify({ 24: { engagement: engagement * 0.7, reach: reach * 0.7, impressions: null }, 72: { engagement, reach, impressions: null } }));
      for (let each = 0; each < MEASUREMENTS_A_POST; each += 1) measurement.run(`u${index}`, ['reach', 'reactions', 'comments'][each % 3], publishedMs + Math.floor(each / 3) * 8 * 3_600_000, Math.round((reach * each) / MEASUREMENTS_A_POST));
    }
  })();
  raw.transaction(() => {
    const words = ['kite', 'harbour', 'loft', 'wind', 'saturday', 'booking', 'red', 'price'];
    for (let index = 0; index < CONVERSATIONS; index += 1) {
      const atMs = nowMs - Math.floor((index / CONVERSATIONS) * DAYS * DAY_MS);
      const text = `${words[index % 8]} ${words[(index * 5 + 3) % 8]} ${words[(index * 3 + 1) % 8]} item${index} and a few more words as people write them`;
      conversation.run(`v${index}`, `c${index % CHANNELS}`, `t${index}`, ['comment', 'mention', 'message'][index % 3], `@a${index % 9_000}`, `Author ${index % 9_000}`, index < 4_000 ? ['unread', 'open'][index % 2] : 'closed', index % 5 === 0 ? 'wren' : null, text, atMs, atMs, index < 4_000 ? atMs : null);
      for (const each of text.split(' ')) word.run(each, `v${index}`);
    }
    for (let channel = 0; channel < CHANNELS; channel += 1) for (let ago = 0; ago < 200; ago += 1) for (const metric of ['followers', 'reach']) dayFigure.run(`c${channel}`, new Date(nowMs - ago * DAY_MS).toISOString().slice(0, 10), metric, 1_000 + channel * 3 - ago);
    raw.exec('analyze');
  })();
  raw.close();
  return secret;
}
