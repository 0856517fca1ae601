import { spawnSync } from 'node:child_process';
import { createServer, type Server } from 'node:http';
import { rmSync, statfsSync, writeFileSync } from 'node:fs';
import { request as plainRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { guardedFetch } from '../../src/server/outside/guarded-fetch.ts';
import { requireRoom } from '../../src/server/media/receive-upload.ts';
import { keepReserve, releaseReserve } from '../../src/server/upkeep/disk-reserve.ts';
import { sweepIncoming } from '../../src/server/media/sweep-incoming.ts';
import { mkdirSync, mkdtempSync, readdirSync, utimesSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { startStack, type Answer, type Stack } from './stack.ts';
import { endProgram, startProgram, until } from '../fixtures/programs.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const at = '/api/brands/gullwick';
const newPiece = async (): Promise<{ id: string; revision: number }> => (await stack.wren.ask('POST', `${at}/pieces`, { template: 'aside' })).body as unknown as { id: string; revision: number };
const caption = (piece: { id: string; revision: number }, text: string): Promise<Answer> => stack.wren.ask('PATCH', `${at}/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: '/words/shared/caption', value: text }] });

describe('an answer that was lost', () => {
  it('a save repeated is no conflict with oneself', async () => {
    const piece = await newPiece();
    expect((await caption(piece, 'Once.')).status).toBe(200);
    expect((await caption(piece, 'Once.')).status).toBe(200);
  });

  it('the last part of an upload sent again answers the picture', async () => {
    const bytes = await sharp({ create: { width: 50, height: 40, channels: 3, background: '#a35' } }).png().toBuffer();
    const { id } = (await stack.wren.ask('POST', `${at}/uploads`, { name: 'late.png', bytes: bytes.length })).body as unknown as { id: string };
    const send = async (): Promise<{ status: number; body: { item: { id: string } | null } }> => {
      const response = await stack.wren.raw('POST', `${at}/uploads/${id}?at=0`, { body: bytes as Uint8Array<ArrayBuffer>, headers: { 'content-type': 'application/octet-stream' } });
      return { status: response.status, body: (await response.json()) as { item: { id: string } | null } };
    };
    await send();
    await until('the import', async () => (await send()).body.item !== null);
    expect(await send()).toMatchObject({ status: 200, body: { item: { id: expect.any(String) as string } } });
  });
});

describe('an upload', () => {
  it('takes one part at a time: four writers at once do not mix their bytes', async () => {
    const bytes = Buffer.alloc(2_000_000, 7);
    const { id } = (await stack.wren.ask('POST', `${at}/uploads`, { name: 'four.bin', bytes: bytes.length * 2 })).body as unknown as { id: string };
    const token = stack.wren.token ?? '';
    const { hostname, port } = new URL(stack.origin);
    const begun: Promise<void>[] = [];
    const send = (): Promise<number> =>
      new Promise((resolve, reject) => {
        const request = plainRequest({ hostname, port, method: 'POST', path: `${at}/uploads/${id}?at=0`, headers: { authorization: `Bearer ${token}`, 'content-type': 'application/octet-stream', 'content-length': bytes.length } }, (response) => {
          response.resume();
          response.once('end', () => resolve(response.statusCode ?? 0));
        }).once('error', reject);
        const first = new Promise<void>((written) => request.write(bytes.subarray(0, 1_000_000), () => written()));
        begun.push(first);
        // The rest comes once all four are under way.
        void first.then(() => Promise.all(begun)).then(() => request.end(bytes.subarray(1_000_000)));
      });
    const statuses = await Promise.all([send(), send(), send(), send()].map((each) => each.catch(() => 0)));
    expect(statuses.filter((status) => status === 200)).toHaveLength(1);
    expect(((await stack.wren.ask('GET', `${at}/uploads/${id}`)).body as unknown as { received: number }).received).toBe(bytes.length);
  });

  it('is refused where its brand has no more room, or a person too many under way', async () => {
    const { db } = stack.services;
    const [row] = await db('media').join('brands', 'brands.id', 'media.brand_id').where({ slug: 'gullwick' }).limit(1).select('media.id', 'media.kept_bytes');
    await db('media').where({ id: row.id }).update({ kept_bytes: 200 * 1024 ** 3 });
    expect(await stack.wren.ask('POST', `${at}/uploads`, { name: 'a.jpg', bytes: 9 })).toMatchObject({ status: 507, body: { code: 'brand-full' } });
    await db('media').where({ id: row.id }).update({ kept_bytes: row.kept_bytes });
    expect((await stack.wren.ask('POST', `${at}/uploads`, { name: 'a.jpg', bytes: 9 })).status).toBe(201);
  });

  it('that broke off leaves nothing for long', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'confetti-incoming-'));
    mkdirSync(join(folder, 'incoming'));
    for (const name of ['old', 'young', 'part-1']) writeFileSync(join(folder, 'incoming', name), 'x');
    for (const name of ['old', 'part-1']) utimesSync(join(folder, 'incoming', name), 1, 1);
    expect(await sweepIncoming(folder, Date.now() - 60_000)).toBe(1);
    expect(readdirSync(join(folder, 'incoming')).sort()).toEqual(['part-1', 'young']);
    rmSync(folder, { recursive: true });
  });
});

describe('a picture whose file is gone', () => {
  it('stops the piece before the network does', async () => {
    const bytes = await sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#5a3' } }).png().toBuffer();
    const { id } = (await stack.wren.upload('gullwick', 'gone.png', bytes)).body as unknown as { id: string };
    const piece = (await stack.wren.ask('POST', `${at}/pieces`, { template: 'headland', media: [id] })).body as unknown as { id: string };
    const { stored_hash } = await stack.services.db('media').where({ id }).first('stored_hash');
    rmSync(stack.services.media.pathOf(stored_hash));
    const { body } = await stack.wren.ask('GET', `${at}/pieces/${piece.id}/preflight`);
    expect(JSON.stringify(body)).toContain('The file of “gone.png” is gone from the disk.');
  });
});

describe('archives', () => {
  it('of one person are two at once, and leave a painter to others', async () => {
    const piece = await newPiece();
    const get = (): Promise<Response> => stack.wren.raw('GET', `${at}/pieces/${piece.id}/archive?as=avif&scale=2`);
    const open = [await get(), await get()];
    expect(open.map(({ status }) => status)).toEqual([200, 200]);
    expect((await get()).status).toBe(429);
    const started = performance.now();
    expect((await stack.wren.ask('GET', `${at}/pieces/${piece.id}/preflight`)).status).toBe(200);
    expect(performance.now() - started).toBeLessThan(8_000);
    await Promise.all(open.map((response) => response.body?.cancel()));
    await until('a free place', async () => {
      const again = await get();
      await again.body?.cancel();
      return again.status === 200;
    });
  });
});

describe('what comes from another server', () => {
  let server: Server;
  let address: string;
  let answer: (write: (head: Record<string, string>, body: string, isBroken: boolean) => void) => void;
  beforeAll(async () => {
    server = createServer((_, response) => {
      answer((head, body, isBroken) => {
        response.writeHead(200, head);
        response.write(body, () => void (isBroken ? response.socket?.destroy() : response.end()));
      });
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    address = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => void server.close());
  const fetched = () => guardedFetch(`http://${address}/`, { mostBytes: 9_000, trustedHosts: [address], accept: '*/*' });

  it('is taken whole or not at all', async () => {
    answer = (write) => write({ 'content-type': 'text/html' }, 'whole', false);
    expect((await fetched()).bytes.toString()).toBe('whole');
    answer = (write) => write({ 'content-type': 'text/html' }, 'half', true);
    await expect(fetched()).rejects.toMatchObject({ status: 422 });
    answer = (write) => write({ 'content-length': '500' }, 'half', true);
    await expect(fetched()).rejects.toMatchObject({ status: 422 });
  });

  it.each(['[::127.0.0.1]', '[::ffff:127.0.0.1]', '[::1]', '127.1', '0x7f000001', '[64:ff9b::7f00:1]', '[fe80::1]', '169.254.169.254'])('is never asked for at %s', async (host) => {
    await expect(guardedFetch(`http://${host}/`, { mostBytes: 9, trustedHosts: [], accept: '*/*' })).rejects.toMatchObject({ code: 'not-public' });
  });
});

describe('a lock that another program holds', () => {
  it('keeps nobody from looking, and is answered with a sentence when it lasts', { tags: 'long' }, async () => {
    const piece = await newPiece();
    const other = new Database(join(stack.dataFolder, 'confetti.db'));
    other.pragma('busy_timeout = 5000');
    other.exec('BEGIN IMMEDIATE');
    try {
      const saving = caption(piece, 'Waits.');
      const started = performance.now();
      expect((await stack.wren.ask('GET', `${at}/pieces/${piece.id}`)).status).toBe(200);
      expect(performance.now() - started).toBeLessThan(1_500);
      expect(await saving).toMatchObject({ status: 503, body: { code: 'database-busy' } });
    } finally {
      other.exec('ROLLBACK');
      other.close();
    }
    expect((await caption(piece, 'Goes on.')).status).toBe(200);
  });
});

describe('a full disk', () => {
  const folder = mkdtempSync(join(tmpdir(), 'confetti-disk-'));
  const isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=48m', 'tmpfs', folder]).status === 0;
  afterAll(() => {
    if (isMounted) spawnSync('umount', ['-l', folder]);
    rmSync(folder, { recursive: true, force: true });
  });

  it('keeps a reserve, and takes in no file without room for it', () => {
    keepReserve(folder);
    expect(readdirSync(folder)).toContain('reserve');
    const { bavail, bsize } = statfsSync(folder);
    expect(() => requireRoom(folder, bavail * bsize)).toThrow(/no room/);
    expect([releaseReserve(join(folder, 'confetti.db')), releaseReserve(join(folder, 'confetti.db'))]).toEqual([true, false]);
  });

  it('lets people sign in and look, refuses pictures with a sentence, and is done with once there is room', async () => {
    // Only root makes disks; elsewhere the parts above are looked at alone.
    if (!isMounted) return expect(process.getuid?.()).not.toBe(0);
    const environment = { ...stack.environment, CONFETTI_DATA: join(folder, 'data'), CONFETTI_DEMO: '0', CONFETTI_STANDIN: '', CONFETTI_PASSWORD: 'a long enough one' };
    spawnSync(process.execPath, ['dist/person.mjs', '--email', 'ada@x.example', '--name', 'Ada Quill', '--brand', 'Quill'], { env: { ...process.env, ...environment } });
    const port = new URL(stack.origin).port;
    const own = { ...environment, PORT: String(Number(port) + 1_000 > 65_000 ? Number(port) - 1_000 : Number(port) + 1_000) };
    const web = startProgram('web.mjs', own);
    const { Client } = await import('./stack.ts');
    const client = new Client(`http://127.0.0.1:${own.PORT}`);
    try {
      await until('the server', () => client.raw('GET', '/sign-in').then(({ ok }) => ok, () => false));
      const signIn = (): Promise<Answer> => client.ask('POST', '/api/session', { email: 'ada@x.example', password: 'a long enough one' });
      expect((await signIn()).status).toBe(201);
      try {
        const { bavail, bsize } = statfsSync(folder);
        writeFileSync(join(folder, 'filler'), Buffer.alloc(bavail * bsize, 1));
      } catch {
        // Full is what it has to be.
      }
      expect((await signIn()).status).toBe(201);
      expect((await client.ask('GET', '/api/brands/quill')).status).toBe(200);
      expect(await client.upload('quill', 'a.png', Buffer.alloc(9))).toMatchObject({ status: 507, body: { code: 'disk-full' } });
      expect(await (await client.raw('GET', '/b/quill/make/pieces')).text()).toContain('nearly full');
      rmSync(join(folder, 'filler'));
      expect((await client.ask('POST', '/api/brands/quill/pieces', { template: 'aside' })).status).toBe(201);
    } finally {
      await endProgram(web);
    }
  });
});
