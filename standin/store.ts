import { createHash, randomBytes } from 'node:crypto';
import { appendFileSync, existsSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Draft, Entry, Post } from './entry.ts';
import { usualOffers, type Details, type Offers, type Part } from './details.ts';
import { usualKinds } from './account-kinds.ts';
import { preparedOnce, type Prepare } from './prepared-once.ts';
import { TalkStore } from './audience/talk-store.ts';

export interface Account {
  readonly network: string;
  readonly handle: string;
  readonly name: string;
  /** What kind of account it is: `business`, `group`, `personal`, `listing`, `site`. */
  readonly kind?: string;
}

/** What goes on around an account beside what programs do. */
export interface Life {
  /** Of the people who follow it. */
  readonly zone: string;
  /** When people began to write to it; null: nobody does. */
  readonly sinceMs: number | null;
  /** Whether its owner also posts by hand. */
  readonly ownPosts: boolean;
}

/** An access that was granted to a program: it ends, and can be renewed until the grant itself ends. */
export interface Access {
  readonly access_token: string;
  readonly refresh_token: string;
  /** Seconds. */
  readonly expires_in: number;
  readonly refresh_expires_in: number;
}

/** What a person agreed to at the consent page, until the program fetches it. */
export interface Consent {
  readonly network: string;
  readonly handles: readonly string[];
  readonly clientId: string;
  readonly redirectUri: string;
  /** SHA-256 of the program's secret, as base64url (RFC 7636). */
  readonly challenge: string;
}

/** How long an access lasts, and how long it can be renewed. */
export const ACCESS_S = 3_600;
export const GRANT_S = 60 * 86_400;
const CODE_MS = 10 * 60_000;

export interface MediaRecord {
  readonly id: string;
  readonly network: string;
  readonly handle: string;
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Pages of a document; a picture has one. */
  readonly pages: number;
  /** Seconds of a video; nothing else lasts. */
  readonly seconds: number;
}

/** The stand-ins' own store: accounts, media, drafts and posts of all networks. */
export class StandinStore {
  readonly #prepare: Prepare;
  readonly #db: Database.Database;
  readonly #mediaFolder: string;
  readonly talk: TalkStore;

  constructor(dataFolder: string) {
    this.#mediaFolder = join(dataFolder, 'media');
    mkdirSync(this.#mediaFolder, { recursive: true });
    this.#db = new Database(join(dataFolder, 'standin.db'));
    this.#prepare = preparedOnce(this.#db);
    this.#db.pragma('journal_mode = WAL');
    this.#db.exec(`
      CREATE TABLE IF NOT EXISTS settings (key TEXT PRIMARY KEY, value TEXT NOT NULL);
      CREATE TABLE IF NOT EXISTS accounts (network TEXT, handle TEXT, name TEXT NOT NULL, token_hash TEXT NOT NULL UNIQUE, PRIMARY KEY (network, handle));
      CREATE TABLE IF NOT EXISTS media (id TEXT PRIMARY KEY, network TEXT NOT NULL, handle TEXT NOT NULL, mime TEXT NOT NULL, widthPx INTEGER NOT NULL, heightPx INTEGER NOT NULL);
      CREATE TABLE IF NOT EXISTS drafts (id TEXT PRIMARY KEY, network TEXT NOT NULL, handle TEXT NOT NULL, mediaId TEXT NOT NULL, placement TEXT NOT NULL, text TEXT NOT NULL, altText TEXT NOT NULL, title TEXT NOT NULL, link TEXT NOT NULL, firstComment TEXT NOT NULL, postId TEXT);
      CREATE TABLE IF NOT EXISTS posts (id TEXT PRIMARY KEY, network TEXT NOT NULL, handle TEXT NOT NULL, mediaId TEXT NOT NULL, placement TEXT NOT NULL, text TEXT NOT NULL, altText TEXT NOT NULL, title TEXT NOT NULL, link TEXT NOT NULL, firstComment TEXT NOT NULL, publishedMs INTEGER NOT NULL, idempotencyKey TEXT, UNIQUE (network, handle, idempotencyKey));
    `);
    // Stores of an earlier day have no carousels and documents yet.
    this.#addColumn('media', 'pages INTEGER NOT NULL DEFAULT 1');
    this.#addColumn('media', 'seconds REAL NOT NULL DEFAULT 0');
    for (const table of ['drafts', 'posts']) this.#addColumn(table, "more TEXT NOT NULL DEFAULT '[]'");
    for (const table of ['drafts', 'posts']) for (const column of ['along', 'details']) this.#addColumn(table, `${column} TEXT NOT NULL DEFAULT '{}'`);
    this.#addColumn('accounts', "offers TEXT NOT NULL DEFAULT '{}'");
    this.#addColumn('posts', 'readyMs INTEGER NOT NULL DEFAULT 0');
    this.#addColumn('accounts', "kind TEXT NOT NULL DEFAULT 'business'");
    this.#addColumn('accounts', "life TEXT NOT NULL DEFAULT '{}'");
    for (const table of ['drafts', 'posts']) this.#addColumn(table, "shows TEXT NOT NULL DEFAULT '{}'");
    this.#db.exec(`
      CREATE TABLE IF NOT EXISTS consents (code_hash TEXT PRIMARY KEY, consent TEXT NOT NULL, endsMs INTEGER NOT NULL);
      CREATE TABLE IF NOT EXISTS accesses (token_hash TEXT PRIMARY KEY, refresh_hash TEXT NOT NULL UNIQUE, network TEXT NOT NULL, handle TEXT NOT NULL, endsMs INTEGER NOT NULL, grantEndsMs INTEGER NOT NULL);
    `);
    this.talk = new TalkStore(this.#db);
  }

  #addColumn(table: string, column: string): void {
    const known = this.#db.pragma(`table_info(${table})`) as readonly { readonly name: string }[];
    if (!known.some(({ name }) => name === column.split(' ')[0])) this.#db.exec(`ALTER TABLE ${table} ADD COLUMN ${column}`);
  }

  close(): void {
    this.#db.close();
  }

  clockOffsetMs(): number {
    const row = this.#prepare("SELECT value FROM settings WHERE key = 'clock'").get() as { value: string } | undefined;
    return Number(row?.value ?? 0);
  }

  setClockOffsetMs(offsetMs: number): void {
    this.#prepare("INSERT INTO settings VALUES ('clock', ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value").run(String(offsetMs));
  }

  /** Opens an account, or gives an existing one a new token; the token is answered this once. */
  openAccount(account: Account & { readonly offers?: Offers }): string {
    const token = `${account.network}_${randomBytes(24).toString('base64url')}`;
    this
      .#prepare('INSERT INTO accounts (network, handle, name, kind, token_hash, offers) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (network, handle) DO UPDATE SET token_hash = excluded.token_hash, name = excluded.name, kind = excluded.kind, offers = excluded.offers')
      .run(account.network, account.handle, account.name, account.kind ?? usualKinds[account.network] ?? 'business', hashOf(token), JSON.stringify(account.offers ?? usualOffers[account.network] ?? {}));
    return token;
  }

  /** The account that a token opens at a moment; null when it opens none, or its time is over. */
  accountOf(network: string, token: string, nowMs: number): Account | null {
    const row = this
      .#prepare('SELECT network, handle, name, kind FROM accounts WHERE network = @network AND (token_hash = @hash OR handle = (SELECT handle FROM accesses WHERE network = @network AND token_hash = @hash AND endsMs > @nowMs))')
      .get({ network, hash: hashOf(token), nowMs });
    return (row as Account | undefined) ?? null;
  }

  lifeOf(network: string, handle: string): Life {
    const row = this.#prepare('SELECT life FROM accounts WHERE network = ? AND handle = ?').get(network, handle) as { life: string } | undefined;
    return { zone: 'UTC', sinceMs: null, ownPosts: false, ...(JSON.parse(row?.life ?? '{}') as Partial<Life>) };
  }

  setLife(network: string, handle: string, life: Life): void {
    this.#prepare('UPDATE accounts SET life = ? WHERE network = ? AND handle = ?').run(JSON.stringify(life), network, handle);
  }

  listAccounts(network: string): readonly Account[] {
    return this.#prepare('SELECT network, handle, name, kind FROM accounts WHERE network = ? ORDER BY handle LIMIT 200').all(network) as Account[];
  }

  keepConsent(consent: Consent, nowMs: number): string {
    const code = randomBytes(24).toString('base64url');
    this.#prepare('INSERT INTO consents VALUES (?, ?, ?)').run(hashOf(code), JSON.stringify(consent), nowMs + CODE_MS);
    return code;
  }

  /** What a code stands for; a code is good once. */
  takeConsent(code: string, nowMs: number): Consent | null {
    const row = this.#prepare('DELETE FROM consents WHERE code_hash = ? RETURNING consent, endsMs').get(hashOf(code)) as { consent: string; endsMs: number } | undefined;
    return row && row.endsMs > nowMs ? (JSON.parse(row.consent) as Consent) : null;
  }

  /** Grants a program access to an account. */
  grantAccess(network: string, handle: string, nowMs: number): Access {
    return this.#keepAccess(network, handle, nowMs, nowMs + GRANT_S * 1000);
  }

  #keepAccess(network: string, handle: string, nowMs: number, grantEndsMs: number): Access {
    const [access_token, refresh_token] = [`${network}_${randomBytes(24).toString('base64url')}`, randomBytes(24).toString('base64url')];
    this.#prepare('INSERT INTO accesses VALUES (?, ?, ?, ?, ?, ?)').run(hashOf(access_token), hashOf(refresh_token), network, handle, nowMs + ACCESS_S * 1000, grantEndsMs);
    return { access_token, refresh_token, expires_in: ACCESS_S, refresh_expires_in: Math.round((grantEndsMs - nowMs) / 1000) };
  }

  /** Renews an access within its grant; the old one ends. Null when there is nothing to renew. */
  renewAccess(network: string, refreshToken: string, nowMs: number): Access | null {
    return this.#db.transaction(() => {
      const row = this.#prepare('DELETE FROM accesses WHERE network = ? AND refresh_hash = ? RETURNING handle, grantEndsMs').get(network, hashOf(refreshToken)) as { handle: string; grantEndsMs: number } | undefined;
      return row && row.grantEndsMs > nowMs ? this.#keepAccess(network, row.handle, nowMs, row.grantEndsMs) : null;
    })();
  }

  /** Ends the tokens of a network before their time; programs can renew them. */
  endTokens(network: string): void {
    this.#prepare('UPDATE accesses SET endsMs = 0 WHERE network = ?').run(network);
  }

  /** Ends every access to an account, as its owner does in the network's settings. */
  endAccess(network: string, handle: string): void {
    this.#prepare('DELETE FROM accesses WHERE network = ? AND handle = ?').run(network, handle);
    this.#prepare('UPDATE accounts SET token_hash = ? WHERE network = ? AND handle = ?').run(hashOf(randomBytes(24).toString('base64url')), network, handle);
  }

  /** Ends the access that a token opens. */
  revokeAccess(network: string, token: string): void {
    this.#prepare('DELETE FROM accesses WHERE network = @network AND (token_hash = @hash OR refresh_hash = @hash)').run({ network, hash: hashOf(token) });
  }

  /** What an account has to choose from. */
  offersOf({ network, handle }: Pick<Account, 'network' | 'handle'>): Offers {
    const row = this.#prepare('SELECT offers FROM accounts WHERE network = ? AND handle = ?').get(network, handle) as { offers: string } | undefined;
    return JSON.parse(row?.offers ?? '{}') as Offers;
  }

  keepMedia(record: Omit<MediaRecord, 'id'>, bytes: Uint8Array): MediaRecord {
    const kept = { ...record, id: newId('m') };
    writeFileSync(join(this.#mediaFolder, kept.id), bytes);
    this.#prepare('INSERT INTO media (id, network, handle, mime, widthPx, heightPx, pages, seconds) VALUES (@id, @network, @handle, @mime, @widthPx, @heightPx, @pages, @seconds)').run(kept);
    return kept;
  }

  /** Begins an upload that comes in parts. */
  beginUpload(network: string, handle: string): string {
    const id = newId('u');
    writeFileSync(this.#uploadPath(network, handle, id), new Uint8Array());
    return id;
  }

  /** How much of an upload is there; null when there is none. */
  receivedOf(network: string, handle: string, id: string): number | null {
    const path = this.#uploadPath(network, handle, id);
    return existsSync(path) ? statSync(path).size : null;
  }

  appendUpload(network: string, handle: string, id: string, part: Uint8Array): number {
    appendFileSync(this.#uploadPath(network, handle, id), part);
    return this.receivedOf(network, handle, id) ?? 0;
  }

  /** The bytes of an upload that is complete; it is gone then. */
  takeUpload(network: string, handle: string, id: string): Uint8Array {
    const path = this.#uploadPath(network, handle, id);
    const bytes = new Uint8Array(readFileSync(path));
    rmSync(path);
    return bytes;
  }

  #uploadPath(network: string, handle: string, id: string): string {
    return join(this.#mediaFolder, `part-${hashOf(`${network} ${handle} ${id}`)}`);
  }

  /** Keeps a post from the public until its video is processed. */
  processUntil(id: string, readyMs: number): void {
    this.#prepare('UPDATE posts SET readyMs = ? WHERE id = ?').run(readyMs, id);
  }

  isReady(id: string, machineNowMs: number): boolean {
    const row = this.#prepare('SELECT readyMs FROM posts WHERE id = ?').get(id) as { readyMs: number } | undefined;
    return row !== undefined && row.readyMs <= machineNowMs;
  }

  findMedia(id: string): MediaRecord | null {
    return (this.#prepare('SELECT * FROM media WHERE id = ?').get(id) as MediaRecord | undefined) ?? null;
  }

  mediaPath(id: string): string {
    return join(this.#mediaFolder, id);
  }

  keepDraft(draft: Entry): Draft {
    const kept = { ...draft, id: newId('d'), postId: null };
    this.#prepare('INSERT INTO drafts (id, network, handle, mediaId, placement, text, altText, title, link, firstComment, more, along, details, shows, postId) VALUES (@id, @network, @handle, @mediaId, @placement, @text, @altText, @title, @link, @firstComment, @more, @along, @details, @shows, @postId)').run(kept);
    return kept;
  }

  findDraft(network: string, handle: string, id: string): Draft | null {
    return (this.#prepare('SELECT * FROM drafts WHERE network = ? AND handle = ? AND id = ?').get(network, handle, id) as Draft | undefined) ?? null;
  }

  /** Makes a draft public once; a second call answers the same post. */
  publishDraft(draft: Draft, publishedMs: number): string {
    return this.#db.transaction(() => {
      const current = this.findDraft(draft.network, draft.handle, draft.id);
      if (current?.postId) return current.postId;
      const id = this.#insertPost({ ...draft, publishedMs, idempotencyKey: null });
      this.#prepare('UPDATE drafts SET postId = ? WHERE id = ?').run(id, draft.id);
      return id;
    })();
  }

  /** Publishes under a key once; a second call with the key answers the same post. */
  publishOnce(post: Entry, idempotencyKey: string | null, publishedMs: number): string {
    return this.#db.transaction(() => {
      const known = idempotencyKey === null ? null : this.findPostByKey(post.network, post.handle, idempotencyKey);
      return known ?? this.#insertPost({ ...post, publishedMs, idempotencyKey });
    })();
  }

  findPostByKey(network: string, handle: string, key: string): string | null {
    const row = this.#prepare('SELECT id FROM posts WHERE network = ? AND handle = ? AND idempotencyKey = ?').get(network, handle, key) as { id: string } | undefined;
    return row?.id ?? null;
  }

  findPost(network: string, id: string): Post | null {
    return (this.#prepare('SELECT posts.*, accounts.name FROM posts JOIN accounts USING (network, handle) WHERE posts.network = ? AND id = ?').get(network, id) as Post | undefined) ?? null;
  }

  /** Removes a post; false when there is none of this account. */
  removePost(network: string, handle: string, id: string): boolean {
    return this.#prepare('DELETE FROM posts WHERE network = ? AND handle = ? AND id = ?').run(network, handle, id).changes > 0;
  }

  /** Gives a post other texts; false when there is none of this account. */
  rewritePost(network: string, handle: string, id: string, texts: { readonly text: string; readonly title?: string | undefined }): boolean {
    return this.#prepare('UPDATE posts SET text = ?, title = coalesce(?, title) WHERE network = ? AND handle = ? AND id = ?').run(texts.text, texts.title ?? null, network, handle, id).changes > 0;
  }

  /** Puts a part behind the posts of a thread. */
  addPart({ id, details }: Pick<Post, 'id' | 'details'>, part: Part): void {
    const kept = JSON.parse(details) as Details;
    this.#prepare('UPDATE posts SET details = ? WHERE id = ?').run(JSON.stringify({ ...kept, thread: [...(kept.thread ?? []), part] }), id);
  }

  addFirstComment({ id }: Pick<Post, 'id'>, text: string): void {
    this.#prepare('UPDATE posts SET firstComment = ? WHERE id = ?').run(text, id);
  }

  listPosts(network: string, handle: string): readonly Post[] {
    return this
      .#prepare('SELECT posts.*, accounts.name FROM posts JOIN accounts USING (network, handle) WHERE posts.network = ? AND handle = ? ORDER BY publishedMs DESC, posts.rowid DESC LIMIT 60')
      .all(network, handle) as Post[];
  }

  /** Posts of an account that are public by a moment, from another one on; the newest first. */
  listPostsSince(network: string, handle: string, sinceMs: number, nowMs: number): readonly Post[] {
    return this
      .#prepare('SELECT posts.*, accounts.name FROM posts JOIN accounts USING (network, handle) WHERE posts.network = ? AND handle = ? AND publishedMs > ? AND publishedMs <= ? ORDER BY publishedMs DESC LIMIT 2000')
      .all(network, handle, sinceMs, nowMs) as Post[];
  }

  #insertPost(post: Entry & { readonly publishedMs: number; readonly idempotencyKey: string | null }): string {
    const id = newId('p');
    this
      .#prepare('INSERT INTO posts (id, network, handle, mediaId, placement, text, altText, title, link, firstComment, more, along, details, shows, publishedMs, idempotencyKey) VALUES (@id, @network, @handle, @mediaId, @placement, @text, @altText, @title, @link, @firstComment, @more, @along, @details, @shows, @publishedMs, @idempotencyKey)')
      .run({ ...post, id });
    return id;
  }
}

function newId(prefix: string): string {
  return `${prefix}${randomBytes(9).toString('hex')}`;
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
