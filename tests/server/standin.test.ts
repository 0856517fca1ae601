import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startStandin, type RunningStandin } from '../../standin/start.ts';

let folder: string;
let standin: RunningStandin;
const tokens: Record<string, string> = {};

const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<{ status: number; body: Record<string, unknown> }> => {
  const network = path.split('/')[1] ?? '';
  const isBytes = body instanceof Uint8Array;
  const response = await fetch(`${standin.origin}${path}`, {
    method,
    headers: { authorization: `Bearer ${tokens[network] ?? ''}`, ...(isBytes || body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: isBytes ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body) }),
  });
  return { status: response.status, body: (await response.json().catch(() => ({}))) as Record<string, unknown> };
};
const upload = async (network: string, width: number, height: number): Promise<string> => {
  const bytes = await sharp({ create: { width, height, channels: 3, background: '#d7263d' } }).png().toBuffer();
  return String((await ask('POST', `/${network}/api/media`, new Uint8Array(bytes))).body['id']);
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-standin-'));
  standin = await startStandin({ dataFolder: folder, port: 0, slowMs: 10 });
  for (const network of ['petalry', 'quipline']) tokens[network] = standin.store.openAccount({ network, handle: '@kites', name: 'Kites & <b>Co</b>' });
});
afterAll(async () => {
  await standin.close();
  rmSync(folder, { recursive: true });
});

describe('a stand-in network', () => {
  it('publishes once under one idempotency key', async () => {
    const mediaId = await upload('quipline', 1600, 900);
    const post = { placement: 'post-wide', text: 'Once', altText: '', mediaId };
    const first = await ask('POST', '/quipline/api/posts', post, { 'idempotency-key': 'k1' });
    const second = await ask('POST', '/quipline/api/posts', post, { 'idempotency-key': 'k1' });
    expect([first.status, second.body['id']]).toEqual([201, first.body['id']]);
    expect((await ask('GET', '/quipline/api/posts/by-key/k1')).body).toMatchObject({ published: true, id: first.body['id'] });
    expect((await ask('GET', '/quipline/api/posts/by-key/k2')).body).toEqual({ published: false });
  });

  it('publishes a draft once and refuses a second time', async () => {
    const mediaId = await upload('petalry', 1080, 1080);
    const draft = await ask('POST', '/petalry/api/drafts', { placement: 'feed-square', text: 'Draft', altText: '', mediaId });
    const path = `/petalry/api/drafts/${String(draft.body['id'])}`;
    expect((await ask('GET', path)).body).toEqual({ published: false });
    expect((await ask('POST', `${path}/publish`)).status).toBe(201);
    expect((await ask('POST', `${path}/publish`)).status).toBe(422);
    expect((await ask('GET', path)).body['published']).toBe(true);
  });

  it('takes a file in parts, each once and in its place', async () => {
    const bytes = new Uint8Array(await sharp({ create: { width: 1080, height: 1080, channels: 3, background: '#155e75' } }).png().toBuffer());
    const begun = await ask('POST', '/petalry/api/uploads');
    const path = `/petalry/api/uploads/${String(begun.body['id'])}`;
    const half = Math.floor(bytes.length / 2);
    expect((await ask('POST', `${path}?offset=0`, bytes.slice(0, half))).body).toEqual({ received: half });
    expect(await ask('POST', `${path}?offset=0`, bytes.slice(0, half))).toMatchObject({ status: 422, body: { received: half } });
    expect((await ask('GET', path)).body).toEqual({ received: half });
    expect((await ask('POST', `${path}?offset=${half}`, bytes.slice(half))).body).toEqual({ received: bytes.length });
    const mediaId = String((await ask('POST', `${path}/finish`)).body['id']);
    expect((await ask('POST', '/petalry/api/drafts', { placement: 'feed-square', text: 'In parts', altText: '', mediaId })).status).toBe(201);
    expect((await ask('POST', `${path}/finish`)).status).toBe(404);
    expect((await ask('GET', `/quipline/api/uploads/${String(begun.body['id'])}`)).status).toBe(404);
  });

  it('measures the bytes itself, whatever the request claims', async () => {
    const mediaId = await upload('petalry', 1080, 1080);
    const refused = await ask('POST', '/petalry/api/drafts', { placement: 'story', text: '', altText: '', mediaId, widthPx: 1080, heightPx: 1920 });
    expect(refused).toMatchObject({ status: 422, body: { reason: expect.stringMatching(/1080 × 1080/) as string } });
    expect((await ask('POST', '/petalry/api/media', new TextEncoder().encode('GIF89a, they said'))).status).toBe(422);
    const heavy = await sharp(randomBytes(1_500 * 1_500 * 3), { raw: { width: 1_500, height: 1_500, channels: 3 } }).png().toBuffer();
    expect((await ask('POST', '/quipline/api/media', heavy)).status).toBe(413);
    expect((await ask('POST', '/quipline/api/media', new Uint8Array([0, 0, 0, 24, 102, 116, 121, 112, 105, 115, 111, 109]))).status).toBe(422);
  });

  it('knows its own accounts only', async () => {
    const mediaId = await upload('petalry', 1080, 1080);
    expect((await ask('GET', '/petalry/api/drafts/x', undefined, { authorization: 'Bearer wrong' })).status).toBe(401);
    const other = standin.store.openAccount({ network: 'petalry', handle: '@others', name: 'Others' });
    expect((await ask('POST', '/petalry/api/drafts', { placement: 'feed-square', text: '', altText: '', mediaId }, { authorization: `Bearer ${other}` })).status).toBe(422);
  });

  it('shows words as words on its public page, never as markup', async () => {
    const mediaId = await upload('quipline', 1600, 900);
    const { body } = await ask('POST', '/quipline/api/posts', { placement: 'post-wide', text: '<script>alert(1)</script>', altText: '"><img src=x>', mediaId });
    const page = await (await fetch(String(body['url']))).text();
    expect(page).toContain('&lt;script&gt;alert(1)&lt;/script&gt;');
    expect(page).toContain('Kites &amp; &lt;b&gt;Co&lt;/b&gt;');
    expect(page).not.toContain('<script>alert');
    expect(await (await fetch(`${standin.origin}/quipline/@kites`)).text()).toContain(String(body['id']));
  });

  it('gives its media out in parts, as players ask for them', async () => {
    const mediaId = await upload('petalry', 1080, 1080);
    const address = `${standin.origin}/petalry/media/${mediaId}`;
    const whole = await fetch(address);
    const bytes = Buffer.from(await whole.arrayBuffer());
    expect([whole.status, whole.headers.get('content-type')]).toEqual([200, 'image/png']);
    const part = await fetch(address, { headers: { range: 'bytes=4-9' } });
    expect([part.status, part.headers.get('content-type'), part.headers.get('content-range')]).toEqual([206, 'image/png', `bytes 4-9/${bytes.length}`]);
    expect(Buffer.from(await part.arrayBuffer())).toEqual(bytes.subarray(4, 10));
    expect((await fetch(`${standin.origin}/quipline/media/${mediaId}`)).status).toBe(404);
  });

  it('misbehaves as often as the switchboard says, and then behaves', async () => {
    const set = (kind: string, times: number) => ask('POST', '/switchboard/faults', { network: 'quipline', kind, times });
    await set('busy', 2);
    const statuses = [];
    for (let count = 0; count < 3; count += 1) statuses.push((await ask('GET', '/quipline/api/posts/by-key/none')).status);
    expect(statuses).toEqual([429, 429, 200]);
    await set('down', 1);
    await expect(ask('GET', '/quipline/api/posts/by-key/none')).rejects.toThrow();
    expect((await ask('GET', '/quipline/api/posts/by-key/none')).status).toBe(200);
    expect((await set('flood', 1)).status).toBe(400);
  });

  it('dates posts by the clock it is given', async () => {
    await ask('POST', '/switchboard/clock', { offsetMs: 86_400_000 });
    const mediaId = await upload('quipline', 1600, 900);
    const { body } = await ask('POST', '/quipline/api/posts', { placement: 'post-wide', text: 'Tomorrow', altText: '', mediaId });
    const post = standin.store.findPost('quipline', String(body['id']));
    expect(Math.abs((post?.publishedMs ?? 0) - Date.now() - 86_400_000)).toBeLessThan(10_000);
    await ask('POST', '/switchboard/clock', { offsetMs: 0 });
  });
});
