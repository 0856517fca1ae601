import { undisturbed } from '../../src/server/jobs/job-handler.ts';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '../../src/server/db/job-repository.ts';
import { keepOutline, listOutlinesDue } from '../../src/server/db/outline-repository.ts';
import { outlinesHandler } from '../../src/server/media/take-outlines.ts';
import { startStack, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const photo = (file: string): Buffer => readFileSync(join('demo/media', file));
const gradient = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#3377aa' } });

function pngChunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const chunk = Buffer.alloc(body.length + 8);
  chunk.writeUInt32BE(data.length, 0);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(body), body.length + 4);
  return chunk;
}

function crc32(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit += 1) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

/** A real bilevel PNG: 900 megapixels in a few hundred kilobytes. */
function hugePng(side: number): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([1, 0, 0, 0, 0], 8);
  const rows = deflateSync(Buffer.alloc(side * (Math.ceil(side / 8) + 1)), { level: 1 });
  return Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), pngChunk('IHDR', header), pngChunk('IDAT', rows), pngChunk('IEND', Buffer.alloc(0))]);
}

const mediaCount = async (): Promise<number> => (await stack.services.db('media')).length;

describe('bringing in a picture', () => {
  it('turns it upright, leaves location and all other metadata behind, and keeps the pixels', async () => {
    const original = await gradient(300, 200)
      .composite([{ input: { create: { width: 40, height: 40, channels: 3, background: '#ff0000' } }, left: 0, top: 0 }])
      .jpeg({ quality: 95 })
      .withExif({ IFD0: { Artist: 'Somebody', Orientation: '6' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    expect((await sharp(original).metadata()).exif).toBeDefined();
    const { status, body } = await stack.wren.upload('gullwick', 'phone.jpg', original);
    expect(status).toBe(201);
    expect(body).toMatchObject({ widthPx: 200, heightPx: 300, mime: 'image/jpeg', name: 'phone.jpg' });
    const row = await stack.services.db('media').where({ id: body['id'] as unknown as string }).first();
    const stored = readFileSync(stack.services.media.pathOf(row.stored_hash));
    const seen = await sharp(stored).metadata();
    expect([seen.width, seen.height, seen.exif, seen.xmp, seen.orientation]).toEqual([200, 300, undefined, undefined, undefined]);
    // Orientation 6 turns the upper left corner to the upper right.
    const { data } = await sharp(stored).extract({ left: 180, top: 10, width: 1, height: 1 }).raw().toBuffer({ resolveWithObject: true });
    expect(data[0]).toBeGreaterThan(200);
  });

  it('knows a file again by its bytes', async () => {
    const first = await stack.wren.upload('gullwick', 'one.jpg', photo('kite-kits.jpg'));
    const before = await mediaCount();
    const second = await stack.wren.upload('gullwick', 'two.jpg', photo('kite-kits.jpg'));
    expect(second.body['id']).toBe(first.body['id']);
    expect(await mediaCount()).toBe(before);
  });

  it('keeps the transparency of a PNG and takes WebP', async () => {
    const png = await sharp({ create: { width: 64, height: 64, channels: 4, background: { r: 255, g: 0, b: 0, alpha: 0 } } }).png().toBuffer();
    expect((await stack.wren.upload('gullwick', 'clear.png', png)).body).toMatchObject({ mime: 'image/png' });
    expect((await stack.wren.upload('gullwick', 'a.webp', await gradient(60, 60).webp().toBuffer())).body).toMatchObject({ mime: 'image/webp' });
  });

  it('proposes the focal point near the subject of most demo photographs', async () => {
    const manifest = JSON.parse(readFileSync('demo/media/manifest.json', 'utf8')) as { file: string; subject: { x: number; y: number }; tags: string[] }[];
    // A sky full of kites and a row of stalls have no one subject.
    const photographs = manifest.filter(({ file, tags }) => file.endsWith('.jpg') && !tags.includes('busy'));
    const near = await Promise.all(
      photographs.map(async ({ file, subject }) => {
        const row = await stack.services.db('media').where({ name: file }).first();
        const { focal } = JSON.parse(row.facts) as { focal: { x: number; y: number } };
        return Math.hypot(focal.x - subject.x, focal.y - subject.y) < 0.15;
      }),
    );
    expect(near.filter(Boolean).length).toBeGreaterThanOrEqual(photographs.length - 2);
  });

  it('finds what stands before its ground in a photograph and in a cut-out, and none in a pattern', async () => {
    const outlineOf = async (name: string): Promise<unknown> => (JSON.parse((await stack.services.db('media').where({ name }).first()).facts) as { outline?: unknown }).outline;
    expect(await outlineOf('kite-kits.jpg')).toEqual([expect.arrayContaining([expect.any(Number)])]);
    expect(((await outlineOf('cutout-sled-kite.png')) as unknown[]).length).toBeGreaterThan(0);
    expect(await outlineOf('noodle-bowl.jpg')).toBeNull();
    // What stands before a ground in one frame of a clip does not in the next.
    expect(await outlineOf('clip-turntable.mp4')).toBeUndefined();
  });
});

describe('pictures that came in before subjects were outlined', () => {
  it('get their outlines when there is time, but for a file that is gone, and keep what else is known of them', async () => {
    const { db } = stack.services;
    const factsOf = async (name: string): Promise<Record<string, unknown>> => JSON.parse((await db('media').where({ name }).first()).facts) as Record<string, unknown>;
    const names = ['kite-kits.jpg', 'noodle-bowl.jpg', 'misty-day.jpg'];
    const before = new Map<string, Record<string, unknown>>();
    for (const name of names) {
      const { outline, things, ...facts } = await factsOf(name);
      before.set(name, { ...facts, outline, things });
      await db('media').where({ name }).update({ facts: JSON.stringify({ ...facts, own: 'kept' }), outline_due: 1 });
    }
    const gone = await db('media').where({ name: 'misty-day.jpg' }).first();
    await db('media').where({ name: 'misty-day.jpg' }).update({ stored_hash: 'f'.repeat(64) });
    const outcome = await outlinesHandler(stack.services).run({} as Job, undisturbed);
    expect(outcome).toEqual({ kind: 'done' });
    for (const name of names.slice(0, 2)) expect(await factsOf(name)).toEqual({ ...before.get(name), own: 'kept' });
    expect(await factsOf('misty-day.jpg')).toMatchObject({ outline: null, things: [] });
    expect(await listOutlinesDue(db, 10)).toEqual([]);
    for (const name of names) await db('media').where({ name }).update({ facts: JSON.stringify(before.get(name)) });
    await db('media').where({ name: 'misty-day.jpg' }).update({ stored_hash: gone.stored_hash });
  });

  it('leave another file alone that has taken their place meanwhile', async () => {
    const { db, clock } = stack.services;
    await db('media').where({ name: 'kite-kits.jpg' }).update({ outline_due: 1 });
    const [due] = await listOutlinesDue(db, 1);
    if (!due) throw new Error('One is due');
    await keepOutline(db, { ...due, storedHash: 'e'.repeat(64) }, { outline: null, things: [] }, clock.machineNowMs());
    const row = await db('media').where({ name: 'kite-kits.jpg' }).first();
    expect([row.outline_due, JSON.parse(row.facts)]).toEqual([0, due.facts]);
  });
});

describe('bad files', () => {
  const cases: readonly (readonly [string, string, () => Promise<Buffer> | Buffer, number, string, RegExp])[] = [
    ['a text file named .jpg', 'notes.jpg', () => Buffer.from('Dear diary, no wind again.'), 415, 'not-a-picture', /“notes\.jpg” is not a JPEG, PNG or WebP/],
    ['a truncated JPEG', 'half.jpg', () => photo('misty-day.jpg').subarray(0, 200_000), 422, 'damaged-picture', /damaged or cut off/],
    ['a JPEG cut off in its header', 'stub.jpg', () => photo('misty-day.jpg').subarray(0, 60), 422, 'damaged-picture', /damaged/],
    ['a 30,000 x 30,000 PNG', 'wall.png', () => hugePng(30_000), 422, 'too-many-pixels', /30000 × 30000, 900 megapixels/],
    ['a picture of a few pixels', 'dot.png', () => gradient(4, 4).png().toBuffer(), 422, 'too-small', /only 4 × 4/],
    ['a PDF', 'flyer.pdf', () => Buffer.from('%PDF-1.7\n1 0 obj\n<<>>\nendobj\n'), 415, 'not-a-picture', /inside it is a file of the kind PDF/],
    ['a mark of a brand', 'wordmark.SVG', () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), 415, 'not-a-picture', /A mark is added in the brand book, under Marks\./],
    ['subtitles', 'voice.srt', () => Buffer.from('1\n00:00:01,000 --> 00:00:02,000\nHello\n'), 415, 'not-a-picture', /Subtitles are imported in a video/],
    ['an empty file', 'empty.jpg', () => Buffer.alloc(0), 400, 'empty-upload', /empty/],
  ];
  it.each(cases)('%s is refused with a sentence, and nothing stays behind', async (_, name, make, status, code, sentence) => {
    const before = await mediaCount();
    const answer = await stack.wren.upload('gullwick', name, await make());
    expect([answer.status, answer.body['code']]).toEqual([status, code]);
    expect(answer.body['title']).toMatch(sentence);
    expect(await mediaCount()).toBe(before);
    const incoming = join(stack.dataFolder, 'incoming');
    expect(existsSync(incoming) ? readdirSync(incoming) : []).toEqual([]);
  });

  it('a 200 MB upload is refused while it comes in, and is not kept', async () => {
    const block = new Uint8Array(1024 * 1024).fill(7);
    let sent = 0;
    const body = new ReadableStream<Uint8Array>({
      pull(controller) {
        if (sent >= 200) return controller.close();
        sent += 1;
        controller.enqueue(block);
      },
    });
    const answer = await stack.wren.raw('POST', '/api/brands/gullwick/media?name=recording.jpg', { body, headers: { 'content-type': 'application/octet-stream' }, duplex: 'half' } as RequestInit).then(
      async (response) => ({ status: response.status, body: (await response.json()) as Record<string, unknown> }),
      () => null,
    );
    // The server may close the line before the client has read its answer.
    if (answer) expect([answer.status, answer.body['code']]).toEqual([413, 'too-large']);
    expect(sent).toBeLessThan(200);
    expect(readdirSync(join(stack.dataFolder, 'incoming'))).toEqual([]);
  });

  it('a declared length over the limit is refused before a byte is read', async () => {
    const answer = await stack.wren.upload('gullwick', 'film.jpg', new Uint8Array(51 * 1024 * 1024));
    expect([answer.status, answer.body['code']]).toEqual([413, 'too-large']);
  });
});

describe('the focal point', () => {
  it('can be moved, goes back to the proposal, and does not overwrite somebody else’s change', async () => {
    const { body } = await stack.wren.upload('gullwick', 'reel.jpg', photo('line-reel-close-up.jpg'));
    const path = `/api/brands/gullwick/media/${String(body['id'])}`;
    const moved = await stack.wren.ask('PATCH', path, { revision: body['revision'], focal: { x: 0.1, y: 0.9 } });
    expect(moved.body).toMatchObject({ focal: { x: 0.1, y: 0.9 }, focalBy: 'person' });
    const stale = await stack.wren.ask('PATCH', path, { revision: body['revision'], focal: { x: 0.5, y: 0.5 } });
    expect([stale.status, (stale.body['current'] as unknown as { focal: unknown }).focal]).toEqual([409, { x: 0.1, y: 0.9 }]);
    const back = await stack.wren.ask('PATCH', path, { revision: moved.body['revision'], focal: null });
    expect(back.body).toMatchObject({ focal: body['focal'], focalBy: 'proposal' });
    expect((await stack.wren.ask('PATCH', path, { revision: back.body['revision'], focal: { x: 1.2, y: 0 } })).status).toBe(422);
  });
});

describe('pages of media and their files', () => {
  it('come in pages that do not overlap and end', async () => {
    const seen: string[] = [];
    let next: string | null = null;
    do {
      const { body } = await stack.wren.ask('GET', `/api/brands/gullwick/media?limit=4${next ? `&before=${next}` : ''}`);
      seen.push(...(body['items'] as unknown as { id: string }[]).map((item) => item.id));
      next = body['next'] as unknown as string | null;
    } while (next);
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBe((await stack.services.db('media').join('brands', 'brands.id', 'media.brand_id').where({ slug: 'gullwick' })).length);
  });

  it('come in offered sizes only, to the brand’s people only', async () => {
    const { body } = await stack.wren.upload('gullwick', 'kits.jpg', photo('kite-kits.jpg'));
    const path = `/api/brands/gullwick/media/${String(body['id'])}/file`;
    const small = await stack.wren.raw('GET', `${path}?fit=240`);
    const meta = await sharp(Buffer.from(await small.arrayBuffer())).metadata();
    expect([meta.format, Math.max(meta.width, meta.height)]).toEqual(['webp', 240]);
    expect((await stack.wren.raw('GET', `${path}?fit=99999`)).status).toBe(422);
    expect((await stack.wren.raw('GET', path.replace('gullwick', 'lanternfall') + '?fit=240')).status).toBe(404);
  });
});
