import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { plainBook } from '../../src/core/brand/plain-book.ts';
import { Client, joinAs, PASSWORD, startStack, type Answer, type Stack } from './stack.ts';

let stack: Stack;
let ottoline: Client;
let wren: Client;
beforeAll(async () => {
  stack = await startStack();
  ottoline = new Client(stack.origin);
  await ottoline.ask('POST', '/api/session', { email: 'ottoline@gullwickkites.example', password: PASSWORD });
  wren = new Client(stack.origin);
  await wren.ask('POST', '/api/session', { email: 'wren@gullwickkites.example', password: PASSWORD });
});
afterAll(() => stack.close());

const sendBytes = async (path: string, bytes: Uint8Array): Promise<Answer> => {
  const response = await stack.wren.raw('POST', path, { body: bytes as Uint8Array<ArrayBuffer>, headers: { 'content-type': 'application/octet-stream' } });
  return { status: response.status, body: (await response.json()) as Answer['body'], headers: response.headers };
};
const gullwick = async () => (await stack.wren.ask('GET', '/api/brands/gullwick')).body as unknown as { revision: number; book: BrandBook };
const saveBook = (revision: number, book: BrandBook) => stack.wren.ask('POST', '/api/brands/gullwick/book', { revision, book });

describe('a typeface of one’s own', () => {
  it('is checked, kept, named by the book and served to the brand’s people only', async () => {
    const { status, body } = await sendBytes('/api/brands/gullwick/typefaces?name=house.ttf', readFileSync('fonts/lora/lora-700.ttf'));
    expect(status).toBe(201);
    expect(body).toMatchObject({ family: 'Lora', weight: 700, key: expect.stringMatching(/^own-[0-9a-f]{12}$/) as string });
    const { key, family, weight, hash } = body as unknown as BrandBook['typefaces'][number];
    const { revision, book } = await gullwick();
    const changed: BrandBook = { ...book, typefaces: [{ key, family, weight, hash, licence: 'OFL' }], type: { ...book.type, display: { ...book.type.display, font: key } } };
    expect((await saveBook(revision, changed)).status).toBe(200);
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'tally' })).body as unknown as { id: string };
    expect((await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/thumbnail`)).status).toBe(200);
    expect((await stack.wren.raw('GET', `/api/brands/gullwick/typefaces/${hash}`)).headers.get('content-type')).toBe('font/ttf');
    expect((await stack.wren.raw('GET', `/api/brands/lanternfall/typefaces/${hash}`)).status).toBe(404);
    expect((await saveBook(revision + 1, { ...changed, typefaces: [{ key, family, weight, hash: 'f'.repeat(64), licence: '' }] })).body).toMatchObject({ code: 'unknown-file' });
  });

  it.each([
    ['a text', Buffer.from('not a font at all'), 415],
    ['a font that breaks off', readFileSync('fonts/lora/lora-700.ttf').subarray(0, 900), 422],
    ['a WOFF2 that is none', Buffer.concat([Buffer.from('wOF2'), Buffer.alloc(200)]), 422],
  ])('is refused when it is %s', async (_, bytes, status) => {
    expect((await sendBytes('/api/brands/gullwick/typefaces?name=bad.ttf', bytes)).status).toBe(status);
  });
});

describe('an imported mark', () => {
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><script>alert(1)</script><path d="M0 0h9v9z" fill="#fafafa"/><path d="M0 0L5 5" stroke="red"/></svg>';

  it('as SVG is outlines and colours, and says what was left out', async () => {
    const { body } = await sendBytes('/api/brands/gullwick/marks?name=mark.svg', Buffer.from(svg));
    expect(body).toMatchObject({ mark: { kind: 'vector', for: 'dark', paths: [{ fill: '#fafafa' }, { fill: '#000000' }] }, notes: [expect.stringMatching(/turn them into outlines/)] });
    expect(JSON.stringify(body)).not.toContain('alert');
  });

  it('as PNG is a picture of the brand and shows in cuts', async () => {
    const png = await sharp({ create: { width: 80, height: 60, channels: 4, background: '#00000000' } }).composite([{ input: { create: { width: 40, height: 40, channels: 4, background: '#00ff00' } }, left: 20, top: 10 }]).png().toBuffer();
    const { body } = await sendBytes('/api/brands/gullwick/marks?name=mark.png', png);
    expect(body).toMatchObject({ mark: { kind: 'picture', mainColour: '#00ff00', viewBox: { width: 80, height: 60 } } });
    const { revision, book } = await gullwick();
    expect((await saveBook(revision, { ...book, marks: [(body as unknown as { mark: BrandBook['marks'][number] }).mark] })).status).toBe(200);
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as { id: string; document: { cuts: { channelId: string; placement: string }[] } };
    const [cut] = piece.document.cuts;
    const painted = Buffer.from(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${cut?.channelId}/${cut?.placement}`)).arrayBuffer());
    const { data } = await sharp(painted).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    let green = 0;
    for (let at = 0; at < data.length; at += 3) if (data[at] === 0 && data[at + 1] === 255 && data[at + 2] === 0) green += 1;
    expect(green).toBeGreaterThan(500);
    await saveBook(revision + 1, book);
  });

  it('is refused in a box, and when it is no drawing', async () => {
    const boxed = await sharp({ create: { width: 60, height: 60, channels: 3, background: '#ff0000' } }).png().toBuffer();
    expect((await sendBytes('/api/brands/gullwick/marks?name=boxed.png', boxed)).body).toMatchObject({ code: 'mark-in-a-box' });
    expect((await sendBytes('/api/brands/gullwick/marks?name=x.svg', Buffer.from('<html></html>'))).body).toMatchObject({ code: 'not-a-mark' });
  });
});

describe('a brand from what there is', () => {
  it('a web page gives its name, colours by weight, typefaces, icon and description', async () => {
    const { status, body } = await stack.wren.ask('POST', '/api/brand-sources', { address: `${stack.standin.origin}/sites/salt-and-rye/` });
    expect(status).toBe(200);
    expect(body).toMatchObject({ title: 'Salt & Rye', description: expect.stringMatching(/crust you can hear/) as string, marks: [{ kind: 'vector' }], notes: [] });
    expect((body['colours'] as unknown as { hex: string }[])[0]?.hex).toBe('#7a1f3d');
    expect(body['families']).toEqual(expect.arrayContaining([expect.objectContaining({ family: 'Fraunces', exact: true, forHeadings: true })]));
  });

  it('shows its pieces before it has a channel to send them to', async () => {
    await wren.ask('POST', '/api/brands', { name: 'No channels yet', zone: 'UTC', handle: '@nochannels', book: plainBook, networks: [] });
    for (const template of ['aside', 'strand', 'knot']) {
      const piece = (await wren.ask('POST', '/api/brands/no-channels-yet/pieces', { template })).body as unknown as { id: string; document: { cuts: unknown[] } };
      expect(piece.document.cuts).toEqual([]);
      const picture = await wren.raw('GET', `/api/brands/no-channels-yet/pieces/${piece.id}/thumbnail?fit=240`);
      const { format, width, height } = await sharp(Buffer.from(await picture.arrayBuffer())).metadata();
      expect([format, width, height]).toEqual(['webp', 240, 240]);
    }
  });

  it('begins with its owner, its accounts and a cut for every placement', async () => {
    const made = await wren.ask('POST', '/api/brands', { name: 'Salt & Rye', zone: 'Europe/Paris', handle: '@saltrye', book: plainBook, networks: ['petalry', 'tackboard'] });
    expect(made).toMatchObject({ status: 201, body: { slug: 'salt-rye' } });
    const piece = (await wren.ask('POST', '/api/brands/salt-rye/pieces', { template: 'aside' })).body as unknown as { document: { cuts: unknown[] } };
    expect(piece.document.cuts).toHaveLength(4);
    expect((await ottoline.ask('GET', '/api/brands/salt-rye')).status).toBe(404);
    expect((await wren.ask('POST', '/api/brands', { name: 'Salt & Rye', zone: 'Europe/Paris', handle: '@saltrye2', book: plainBook, networks: [] })).body).toMatchObject({ slug: 'salt-rye-2' });
    expect((await wren.ask('POST', '/api/brands', { name: 'Elsewhere', zone: 'Mars/Olympus', handle: '@elsewhere', book: plainBook, networks: [] })).body).toMatchObject({ code: 'unknown-zone' });
  });

  it('is not left by half where a network does not answer, or there is none such', async () => {
    const before = await stack.services.db('brands').count({ count: '*' });
    expect(await wren.ask('POST', '/api/brands', { name: 'Half', zone: 'UTC', handle: '@half', book: plainBook, networks: ['petalry', 'nowhere'] })).toMatchObject({ status: 422, body: { code: 'unknown-network' } });
    await stack.standin.close();
    expect(await wren.ask('POST', '/api/brands', { name: 'Half', zone: 'UTC', handle: '@half', book: plainBook, networks: ['petalry'] })).toMatchObject({ status: 503, body: { code: 'network-silent', title: 'Petalry does not answer. Nothing was changed; try again in a while.' } });
    expect(await stack.services.db('brands').count({ count: '*' })).toEqual(before);
  });

  it('goes out and comes in again without loss', async () => {
    const { book } = await gullwick();
    const text = await (await stack.wren.raw('GET', '/api/brands/gullwick/book/tokens')).text();
    const { body } = await stack.wren.ask('POST', '/api/brand-sources', { files: [{ name: 'tokens.json', text }] });
    expect(body['book']).toEqual(book);
    const palette = await (await stack.wren.raw('GET', '/api/brands/gullwick/book/palette')).text();
    const read = (await stack.wren.ask('POST', '/api/brand-sources', { files: [{ name: 'p.gpl', text: palette }] })).body['colours'] as unknown as { name: string; hex: string }[];
    expect(read.map(({ name, hex }) => ({ name, hex }))).toEqual(book.colours.map((colour) => ({ name: colour.name, hex: colour.hex.toLowerCase() })));
    const css = await stack.wren.raw('GET', '/api/brands/gullwick/book/css');
    expect(css.headers.get('content-disposition')).toBe('attachment; filename="gullwick-brand.css"');
    const styled = (await stack.wren.ask('POST', '/api/brand-sources', { files: [{ name: 'brand.css', text: await css.text() }] })).body['colours'] as unknown as { name: string; hex: string }[];
    expect(styled.map(({ name, hex }) => ({ name, hex }))).toEqual(book.colours.map((colour) => ({ name: colour.name, hex: colour.hex.toLowerCase() })));
  });

  it.each([
    ['no page', { address: 'http://127.0.0.1:1/' }, 'not-public'],
    ['a file that is no JSON', { files: [{ name: 'x.json', text: '{' }] }, 'not-json'],
    ['JSON without tokens', { files: [{ name: 'x.json', text: '{"a":1}' }] }, 'not-tokens'],
    ['files with nothing of a brand', { files: [{ name: 'x.txt', text: 'hello' }] }, 'nothing-found'],
    ['nothing at all', {}, 'no-source'],
  ])('says what is wrong with %s', async (_, body, code) => {
    expect(await stack.wren.ask('POST', '/api/brand-sources', body)).toMatchObject({ status: 422, body: { code } });
  });
});

describe('the people of a brand', () => {
  const people = '/api/brands/gullwick/people';
  interface Member {
    readonly id: string;
    readonly name: string;
    readonly role: string;
  }
  const list = async (): Promise<readonly Member[]> => (await ottoline.ask('GET', people)).body['people'] as unknown as Member[];

  it('join by invitation, may do what their role allows, and are removed', async () => {
    const piet = await joinAs(ottoline, 'gullwick', 'piet@gullwickkites.example', 'writer');
    const person = (await list()).find(({ name }) => name === 'piet') ?? { id: '' };
    expect((await piet.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).status).toBe(201);
    expect((await piet.ask('POST', '/api/brands/gullwick/invitations', { email: 'a@b.example', role: 'owner' })).status).toBe(403);
    expect((await ottoline.ask('PATCH', `${people}/${person.id}`, { role: 'viewer' })).body).toMatchObject({ role: 'viewer' });
    expect((await piet.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).status).toBe(403);
    expect((await ottoline.ask('DELETE', `${people}/${person.id}`)).status).toBe(204);
    expect((await piet.ask('GET', '/api/brands/gullwick')).status).toBe(404);
  });

  it('always include an owner', async () => {
    const me = (await list()).find((member) => member.role === 'owner');
    expect((await ottoline.ask('PATCH', `${people}/${me?.id}`, { role: 'viewer' })).body).toMatchObject({ code: 'last-owner' });
    expect((await ottoline.ask('DELETE', `${people}/${me?.id}`)).body).toMatchObject({ code: 'last-owner' });
    expect((await list()).some((member) => member.role === 'owner')).toBe(true);
  });

  it('are changed by owners only', async () => {
    const [first] = await list();
    for (const [method, path, body] of [['POST', '/api/brands/gullwick/invitations', { email: 'a@b.example', role: 'viewer' }], ['PATCH', `${people}/${first?.id}`, { role: 'viewer' }], ['DELETE', `${people}/${first?.id}`, undefined]] as const) {
      expect((await stack.wren.ask(method, path, body)).status).toBe(403);
    }
  });
});
