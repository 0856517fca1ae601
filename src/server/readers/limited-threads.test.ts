import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LimitedThreads } from './limited-threads.ts';

type Task = { readonly kind: 'work'; readonly forMs: number } | { readonly kind: 'wait'; readonly forMs: number } | { readonly kind: 'for-ever' };

/** Long beside what a busy machine can hold a thread up for. */
const LIMIT_MS = 1_200;
let folder: string;
let threads: LimitedThreads<Task, { readonly work: string; readonly wait: string; readonly 'for-ever': never }>;

/** Works or waits for a given time, measured by the real clock of threads. */
const source = `
  import { workOn } from ${JSON.stringify(join(import.meta.dirname, 'thread-job.ts'))};
  export default (job) => workOn(job, async ({ kind, forMs = Infinity }) => {
    if (kind === 'wait') await new Promise((resolve) => setTimeout(resolve, forMs));
    else for (const begun = performance.now(); performance.now() - begun < forMs; );
    return kind;
  });
`;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-threads-'));
  const built = await build({ stdin: { contents: source, resolveDir: import.meta.dirname, loader: 'ts' }, bundle: true, platform: 'node', format: 'esm', write: false });
  writeFileSync(join(folder, 'thread.mjs'), built.outputFiles[0]?.text ?? '');
  threads = new LimitedThreads(folder, { warn: () => undefined }, { file: 'thread.mjs', withinMs: { work: LIMIT_MS, wait: LIMIT_MS, 'for-ever': LIMIT_MS }, tooHeavy: 'Too heavy.' });
});
afterAll(async () => {
  await threads.close();
  rmSync(folder, { recursive: true });
});

describe('threads with limits', () => {
  it('count the time they work, not the time that goes by', async () => {
    expect(await threads.run({ kind: 'wait', forMs: 2 * LIMIT_MS })).toBe('wait');
  });

  it('count each task anew', async () => {
    for (let time = 0; time < 6; time += 1) expect(await threads.run({ kind: 'work', forMs: LIMIT_MS / 4 })).toBe('work');
  });

  it('end work that takes too long, and go on with the next', async () => {
    await expect(threads.run({ kind: 'for-ever' })).rejects.toMatchObject({ status: 422, code: 'too-heavy', sentence: 'Too heavy.' });
    expect(await threads.run({ kind: 'work', forMs: 10 })).toBe('work');
  });
});
