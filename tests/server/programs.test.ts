import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fontShelf } from '../../src/core/text/font-shelf.ts';
import { plainBook } from '../../src/core/brand/plain-book.ts';
import { Client } from './stack.ts';
import { freePort, until } from '../fixtures/programs.ts';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-programs-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const run = (script: string, args: readonly string[], environment: Record<string, string> = {}) => spawnSync(process.execPath, [`scripts/${script}.mjs`, ...args], { encoding: 'utf8', env: { ...process.env, ...environment }, timeout: 60_000 });
const isUp = (address: string): Promise<boolean> => fetch(address).then(() => true, () => false);

describe('npm run demo', () => {
  it('prints one line with everything, keeps its data for the next time, and Ctrl-C stops all of it', { tags: 'long', timeout: 400_000 }, async () => {
    const port = await freePort();
    const start = async () => {
      const child = spawn(process.execPath, ['scripts/demo.mjs', '--port', String(port), '--data', join(folder, 'demo'), '--draft-videos'], { stdio: ['ignore', 'pipe', 'inherit'] });
      let printed = '';
      child.stdout.on('data', (chunk: Buffer) => (printed += chunk.toString()));
      await until('the demo’s line', () => printed.includes('Confetti is at'), 300_000);
      return { child, printed };
    };
    const stop = async (child: Awaited<ReturnType<typeof start>>['child']): Promise<void> => {
      child.kill('SIGINT');
      const [code] = (await once(child, 'exit')) as [number];
      expect(code).toBe(0);
      for (const each of [port, port + 1]) expect(await isUp(`http://127.0.0.1:${each}/`)).toBe(false);
    };
    const first = await start();
    expect(first.printed).toContain('Seeding');
    const line = first.printed.trim().split('\n').at(-1) ?? '';
    expect(line).toMatch(new RegExp(`^Confetti is at http://127\\.0\\.0\\.1:${port} · sign in as Ottoline Brack, Wren Adeyemi-Holt.*token for scripts`));
    const token = /(cft_[\w-]{43})/.exec(line)?.[1] ?? '';
    expect((await new Client(`http://127.0.0.1:${port}`, token).ask('GET', '/api/me')).status).toBe(200);
    expect(run('demo', ['--port', String(port)])).toMatchObject({ status: 1, stderr: expect.stringContaining(`Port ${port} is in use`) as string });
    await stop(first.child);
    const second = await start();
    expect(second.printed).not.toContain('Seeding');
    await stop(second.child);
  });

  it('does not empty a folder that holds something else', () => {
    const result = run('demo', ['--fresh', '--data', folder, '--port', '4998']);
    expect([result.status, existsSync(folder)]).toEqual([1, true]);
    expect(result.stderr).toContain('does not look like a demo');
  });

  it.each([
    [['--colour', 'red'], "Unknown option '--colour'"],
    [['--port', 'eighty'], '--port needs a number'],
    [['--data'], '--data needs a folder'],
    [['--fresh=yes'], '--fresh takes no value'],
  ])('says what is wrong with %j', (args, sentence) => {
    const result = run('demo', args);
    expect([result.status, result.stderr]).toEqual([1, expect.stringContaining(sentence)]);
  });
});

describe('npm start and npm run person', () => {
  it('bring up an installation with a first owner, without any of the demo’s helpers', async () => {
    const port = await freePort();
    const environment = { CONFETTI_DATA: folder, PORT: String(port), CONFETTI_LOG: 'silent', CONFETTI_PASSWORD: 'a long enough one' };
    const person = run('person', ['--email', 'ada@works.example', '--name', 'Ada Quill', '--brand', 'Quill & Sons', '--zone', 'Europe/Paris'], environment);
    expect(person.stdout).toContain('Ada Quill can sign in as ada@works.example. Owner of Quill & Sons (quill-sons).');
    const server = spawn(process.execPath, ['scripts/start.mjs'], { env: { ...process.env, ...environment }, stdio: ['ignore', 'ignore', 'inherit'] });
    const origin = `http://127.0.0.1:${port}`;
    await until('the server', () => isUp(`${origin}/sign-in`));
    const client = new Client(origin);
    const signedIn = await client.ask('POST', '/api/session', { email: 'ada@works.example', password: 'a long enough one' });
    expect(signedIn.body).toMatchObject({ demo: false, brands: [{ slug: 'quill-sons', role: 'owner', zone: 'Europe/Paris' }] });
    expect((await client.ask('POST', '/api/demo/session', { personId: 'x' })).status).toBe(404);
    expect((await client.ask('POST', '/api/demo/clock', { forwardMs: 1000 })).status).toBe(404);
    expect(await (await client.raw('GET', '/sign-in')).text()).not.toContain('come in as');
    // A used brand name gets a slug of its own; a known person keeps the password, and gets a new one by a link alone.
    const again = run('person', ['--email', 'ada@works.example', '--brand', 'Quill & Sons'], environment);
    expect(again.stdout).toContain('Ada Quill (ada@works.example) is known; the password stays as it is. Owner of Quill & Sons (quill-sons-2).');
    const link = run('person', ['--email', 'ada@works.example', '--new-password'], environment);
    const secret = /new-password#(\S+)/.exec(link.stdout)?.[1];
    expect((await new Client(origin).ask('POST', '/api/password-links', { secret, newPassword: 'entirely new words' })).status).toBe(204);
    expect((await new Client(origin).ask('POST', '/api/password-links', { secret, newPassword: 'entirely new words' })).body['code']).toBe('link-ended');
    expect((await client.ask('GET', '/api/me')).status).toBe(401);
    expect((await new Client(origin).ask('POST', '/api/session', { email: 'ada@works.example', password: 'entirely new words' })).status).toBe(201);
    // Who may begin brands is said by whoever runs Confetti.
    run('person', ['--email', 'bo@works.example', '--name', 'Bo Quill'], environment);
    const bo = new Client(origin);
    expect((await bo.ask('POST', '/api/session', { email: 'bo@works.example', password: 'a long enough one' })).body).toMatchObject({ mayBeginBrands: false });
    const begin = (): ReturnType<Client['ask']> => bo.ask('POST', '/api/brands', { name: 'Bo alone', zone: 'UTC', handle: '@bo', book: plainBook, networks: [] });
    expect((await begin()).body['code']).toBe('may-not-begin');
    run('person', ['--email', 'bo@works.example', '--may-begin-brands', 'yes'], environment);
    expect((await begin()).status).toBe(201);
    server.kill('SIGTERM');
    await once(server, 'exit');
    expect(await isUp(`${origin}/sign-in`)).toBe(false);
  });

  it.each([
    [['--name', 'No Address'], 'a long enough one', 'Usage:'],
    [['--email', 'a@b.example', '--name', 'A', '--role', 'king'], 'a long enough one', "There is no role 'king'"],
    [['--email', 'a@b.example', '--name', 'A'], 'short', 'at least 12 characters'],
    [['--email', 'notanemail', '--name', 'A'], 'a long enough one', "'notanemail' is not an email address."],
    [['--email', 'a@b.example', '--name', 'A', '--brand', 'B', '--zone', 'Mars/Olympus'], 'a long enough one', "There is no time zone 'Mars/Olympus'"],
    [['--email', 'a@b.example', '--join', 'nowhere', '--name', 'A'], 'a long enough one', "There is no brand 'nowhere'"],
    [['--email', 'nobody@b.example', '--new-password'], '', 'Nobody signs in as nobody@b.example.'],
    [['--mail', 'a@b.example'], '', "Unknown option '--mail'"],
  ])('a person is not added from %j with password %j', (args, password, sentence) => {
    const result = run('person', args, { CONFETTI_DATA: folder, CONFETTI_PASSWORD: password });
    expect(result.status).not.toBe(0);
    expect(result.stdout).toContain(sentence);
  });
});

describe('the project', () => {
  it('names no registry host in its lock file', () => {
    expect(readFileSync('package-lock.json', 'utf8')).not.toMatch(/"resolved"/);
  });

  it('ships a licence beside every typeface', () => {
    expect(fontShelf.length).toBeGreaterThan(20);
    const missing = fontShelf.flatMap(({ file }) => [file, `${file.split('/')[0] ?? ''}/OFL.txt`]).filter((file) => !existsSync(join('fonts', file)));
    expect(missing).toEqual([]);
  });
});
