import { test as base } from '@playwright/test';
import Database from 'better-sqlite3';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { SEED_FOLDER } from '../fixtures/seed-folder.ts';
import { endProgram, freePort, startProgram, until } from '../fixtures/programs.ts';

/** The programs of a whole Confetti on data of its own. */
export interface BrowserStack {
  readonly origin: string;
  readonly standinOrigin: string;
}

async function withStack(use: (stack: BrowserStack) => Promise<void>): Promise<void> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'confetti-browser-'));
  cpSync(SEED_FOLDER, dataFolder, { recursive: true });
  const [port, standinPort, mailPort] = [await freePort(), await freePort(), await freePort()];
  const [origin, standinOrigin] = [`http://127.0.0.1:${port}`, `http://127.0.0.1:${standinPort}`];
  // The copy knows the stand-ins that it was seeded with.
  const db = new Database(join(dataFolder, 'confetti.db'));
  db.prepare('update channels set origin = ?').run(standinOrigin);
  db.close();
  const environment = { CONFETTI_DATA: dataFolder, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standinOrigin, CONFETTI_LOG: 'error', HOST: '127.0.0.1', PORT: String(port), NODE_ENV: 'production', STANDIN_DATA: join(dataFolder, 'standin'), STANDIN_PORT: String(standinPort), STANDIN_MAIL_PORT: String(mailPort), CONFETTI_SMTP: `smtp://127.0.0.1:${mailPort}` };
  const programs = ['standin.mjs', 'web.mjs', 'worker.mjs'].map((file) => startProgram(file, environment));
  const answers = (address: string) => () => fetch(address).then((response) => response.ok, () => false);
  try {
    await until('the stand-ins', answers(standinOrigin));
    await until('the web server', answers(`${origin}/sign-in`));
    await use({ origin, standinOrigin });
  } finally {
    await Promise.all(programs.map((program) => endProgram(program)));
    rmSync(dataFolder, { recursive: true, force: true });
  }
}

interface WorkerFixtures {
  /** The test file: another file is another worker, with fresh data. */
  readonly dataOf: string;
  readonly stack: BrowserStack;
}

export const test = base.extend<object, WorkerFixtures>({
  dataOf: ['', { scope: 'worker', option: true }],
  stack: [async ({ dataOf: _ }, use) => withStack(use), { scope: 'worker', timeout: 120_000 }],
  baseURL: async ({ stack }, use) => use(stack.origin),
});

/** Says that a file begins with fresh data; its own address is its name. */
export function freshData(fileUrl: string): { readonly dataOf: string } {
  return { dataOf: basename(fileUrl) };
}

export { expect, type Page } from '@playwright/test';
