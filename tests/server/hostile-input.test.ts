import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startStack, type Answer, type Stack } from './stack.ts';

let stack: Stack;
let piece: string;
beforeAll(async () => {
  stack = await startStack();
  piece = String((await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body['id']);
  // Threads and programs start with the first file.
  await stack.wren.ask('POST', '/api/brand-sources', { files: [{ name: 'a.css', text: 'a{color:red}' }] });
  await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece}/preflight`);
});
afterAll(() => stack.close());

const files = (name: string, text: string) => stack.wren.ask('POST', '/api/brand-sources', { files: [{ name, text }] });
const sendBytes = async (path: string, bytes: Uint8Array): Promise<Answer> => {
  const response = await stack.wren.raw('POST', path, { body: bytes as Uint8Array<ArrayBuffer>, headers: { 'content-type': 'application/octet-stream' } });
  return { status: response.status, body: (await response.json()) as Answer['body'], headers: response.headers };
};
const mark = (text: string): Promise<Answer> => sendBytes('/api/brands/gullwick/marks?name=mark.svg', Buffer.from(text));

interface Timed {
  readonly answer: Answer;
  readonly tookMs: number;
  readonly othersMs: number;
}

const TRIES = 3;

/**
 * What an answer takes, and how long somebody else waits meanwhile, in milliseconds: the best of three, as what is slow because of the
 * request is slow each time, and a busy machine is so once.
 */
async function timed(attack: () => Promise<Answer>): Promise<Timed> {
  let best = await timedOnce(attack);
  for (let attempt = 1; attempt < TRIES && Math.max(best.tookMs, best.othersMs) > 900; attempt += 1) {
    const next = await timedOnce(attack);
    if (Math.max(next.tookMs, next.othersMs) < Math.max(best.tookMs, best.othersMs)) best = { ...next, answer: best.answer };
  }
  return best;
}

async function timedOnce(attack: () => Promise<Answer>): Promise<Timed> {
  const started = performance.now();
  const attacked = attack();
  const others = performance.now();
  await stack.wren.ask('GET', '/api/me');
  const othersMs = performance.now() - others;
  const answer = await attacked;
  return { answer, tookMs: performance.now() - started, othersMs };
}

/** What it takes to check plain words as long as a caption may be, in milliseconds. */
async function plainWordsMs(): Promise<number> {
  const address = `/api/brands/gullwick/pieces/${piece}`;
  const { revision } = (await stack.wren.ask('GET', address)).body as unknown as { revision: number };
  await stack.wren.ask('PATCH', address, { revision, patches: [{ op: 'add', path: '/words/shared/caption', value: 'kite '.repeat(20_000).trimEnd() }] });
  return (await timed(() => stack.wren.ask('GET', `${address}/preflight`))).tookMs;
}

const svg = (inner: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${inner}</svg>`;
const nestedUses = svg(`<defs><path id="l0" d="M0 0h1v1z"/>${Array.from({ length: 18 }, (_, level) => `<g id="l${level + 1}">${`<use href="#l${level}"/>`.repeat(10)}</g>`).join('')}</defs><use href="#l18"/>`);
const colours = Array.from({ length: 32_000 }, (_, index) => `#${(index * 511).toString(16).padStart(6, '0').slice(-6)}`).map((hex) => `a{color:${hex}}`).join('');

describe('one short request freezes nobody', () => {
  it.each<[string, () => Promise<Answer>, number]>([
    ['variables that fill one another', () => files('a.css', `a{--a:${'var(--a)'.repeat(8)};color:var(--a)}`), 200],
    ['a drawing that uses what uses what', () => mark(nestedUses), 422],
    ['a long style without a brace', () => mark(svg(`<style>${'a'.repeat(80_000)}</style><path d="M0 0h9v9z"/>`)), 200],
    ['many colours', () => files('a.css', colours), 200],
    ['a drawing nested two thousand deep', () => mark(svg(`${'<g>'.repeat(2_000)}<path d="M0 0h9v9z"/>${'</g>'.repeat(2_000)}`)), 422],
    ['a page nested five thousand deep', () => files('a.html', `<html>${'<div>'.repeat(5_000)}</html>`), 200],
    ['an entity that grows', () => mark(`<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]>${svg('<path d="M0 0h9v9z"/><text>&b;</text>')}`), 200],
    ['an entity from elsewhere', () => mark(`<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<path d="M0 0h9v9z"/><desc>&x;</desc>')}`), 422],
    ['spaces', () => files('a.gpl', `GIMP Palette\n${' '.repeat(100_000)}x`), 200],
    ['digits before no unit', () => files('a.css', `a{font:${'1.'.repeat(50_000)} x}`), 200],
  ])('%s', async (_, attack, status) => {
    const { answer, tookMs, othersMs } = await timed(attack);
    expect(answer.status).toBe(status);
    expect(tookMs).toBeLessThan(3_500);
    expect(othersMs).toBeLessThan(1_000);
  });

  it.each([
    ['an index without end', [{ op: 'add', path: '/frames/1000000000', value: {} }]],
    ['a large index', [{ op: 'add', path: '/frames/30000000', value: {} }]],
    ['a path without end', [{ op: 'add', path: '/a'.repeat(190), value: 1 }]],
    ['the prototype', [{ op: 'add', path: '/__proto__/polluted', value: 1 }]],
  ])('a change with %s', async (_, patches) => {
    const { answer, tookMs } = await timed(() => stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece}`, { revision: 1, patches }));
    expect([answer.status, answer.body['code']]).toEqual([422, 'bad-patch']);
    expect(tookMs).toBeLessThan(1_000);
  });

  it.each([['#', 100_000], ['@', 100_000], [' ', 99_998], ['#1', 50_000], ['https://', 12_500], ['{', 100_000], ['凧', 100_000], ['👩‍👩‍👧', 12_000]])('a caption of %j, with its preflight', async (unit, count) => {
    const { revision } = (await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece}`)).body as unknown as { revision: number };
    const caption = `a${unit.repeat(Math.floor(count))}`.slice(0, 99_999) + 'x';
    const saved = await timed(() => stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece}`, { revision, patches: [{ op: 'add', path: '/words/shared/caption', value: caption }] }));
    expect(saved.answer.status).toBe(200);
    const checked = await timed(() => stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece}/preflight`));
    expect(checked.answer.status).toBe(200);
    const tookMs = Math.max(saved.tookMs, checked.tookMs, checked.othersMs);
    // Where the whole machine is slow, plain words of that length say how slow.
    if (tookMs >= 1_500) expect(tookMs).toBeLessThan(4 * (await plainWordsMs()));
  });
});

describe('half a typeface', () => {
  const whole = readFileSync('fonts/lora/lora-700.ttf');
  const typeface = (bytes: Uint8Array): Promise<Answer> => sendBytes('/api/brands/gullwick/typefaces?name=half.ttf', bytes);

  it.each([20_074, Math.round(whole.length / 2), whole.length - 400, 12, 40])('is refused: its first %i bytes', async (length) => {
    expect((await typeface(whole.subarray(0, length))).status).toBe(422);
  });

  it('is refused where its tables are there and empty, or hold noise', async () => {
    expect((await typeface(Buffer.concat([whole.subarray(0, 20_074), Buffer.alloc(whole.length - 20_074)]))).status).toBe(422);
    for (let seed = 1; seed <= 30; seed += 1) {
      const noisy = Buffer.from(whole);
      for (let at = 0; at < 200; at += 1) noisy[(at * 7_919 * seed) % noisy.length] = (at * 31 * seed) % 256;
      const { status } = await typeface(noisy);
      expect([201, 415, 422]).toContain(status);
    }
  });

  it('is taken whole, a large one too', async () => {
    expect((await typeface(whole)).status).toBe(201);
    expect((await typeface(readFileSync('fonts/m-plus-1p/m-plus-1p-700.ttf'))).status).toBe(201);
  });
});
