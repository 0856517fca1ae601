import { unzipSync, zipSync, strFromU8, strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { recordKinds, recordSchemas, type RecordKind } from '../../src/contract/package-format.ts';
import { clearQueue, joinAs, signInAll, startStack, type Client, type Stack } from './stack.ts';
import { until } from '../fixtures/programs.ts';

/** Two installations: the demo's, and one that has the demo's people and none of its brands. */
let here: Stack;
let there: Stack;
let ottoline: Client;
let newcomer: Client;
const DEADLINE_MS = 240_000;

beforeAll(async () => {
  [here, there] = [await startStack(), await startStack()];
  await clearQueue(there);
  for (const table of ['posts', 'brands', 'sessions']) await there.services.db(table).delete();
  await there.services.db('people').update({ may_begin_brands: true });
  ottoline = (await signInAll(here.origin, ['ottoline'])).get('ottoline') as Client;
  newcomer = (await signInAll(there.origin, ['ottoline'])).get('ottoline') as Client;
}, DEADLINE_MS);
afterAll(async () => {
  await here.close();
  await there.close();
});

type Files = Readonly<Record<string, Uint8Array>>;
const zipped = (files: Files): Uint8Array => zipSync(files, { level: 1 });

async function exported(client: Client, query: string): Promise<Uint8Array> {
  const response = await client.raw('GET', `/api/brands/gullwick/package?${query}`);
  expect(response.status).toBe(200);
  return new Uint8Array(await response.arrayBuffer());
}

const recordsOf = (files: Files, kind: RecordKind, folder = 'gullwick'): readonly Record<string, unknown>[] => strFromU8(files[`${folder}/${kind}.jsonl`] ?? new Uint8Array()).split('\n').filter((line) => line !== '').map((line) => JSON.parse(line) as Record<string, unknown>);

interface PackageState {
  readonly id: string;
  readonly received: number;
  readonly look: { readonly state: string; readonly problem: string | null } | null;
  readonly found: { readonly brands: readonly { readonly target: { readonly kind: string; readonly sentence?: string }; readonly counts: Readonly<Record<string, number>> }[] } | null;
  readonly import: { readonly state: string; readonly progress: number; readonly problem: string | null } | null;
  readonly report: { readonly brands: readonly { readonly slug: string; readonly isNew: boolean; readonly counts: Readonly<Record<string, Readonly<Record<string, number>>>>; readonly notes: readonly string[] }[] } | null;
}

const stateOf = async (client: Client, id: string): Promise<PackageState> => (await client.ask('GET', `/api/packages/${id}`)).body as unknown as PackageState;
const hasEnded = (work: { readonly state: string } | null): boolean => work !== null && ['done', 'failed', 'cancelled'].includes(work.state);

/** Sends a package in parts and waits until it has been read through. */
async function brought(client: Client, bytes: Uint8Array): Promise<PackageState> {
  const started = await client.ask('POST', '/api/packages', { name: 'a.zip', bytes: bytes.length });
  expect(started.status).toBe(201);
  const id = String(started.body['id']);
  const part = 3 * 1024 * 1024;
  for (let at = 0; at < bytes.length; at += part) {
    const response = await client.raw('POST', `/api/packages/${id}/parts?at=${at}`, { body: bytes.slice(at, at + part), headers: { 'content-type': 'application/octet-stream' } });
    expect(response.status).toBe(200);
  }
  await until('reading the package', async () => hasEnded((await stateOf(client, id)).look), DEADLINE_MS);
  return stateOf(client, id);
}

/** Brings a package in to its end and removes it. */
async function imported(client: Client, bytes: Uint8Array): Promise<PackageState> {
  const { id, look } = await brought(client, bytes);
  expect(look).toMatchObject({ state: 'done', problem: null });
  expect((await client.ask('POST', `/api/packages/${id}/import`, {})).status).toBe(200);
  await until('the import', async () => hasEnded((await stateOf(client, id)).import), DEADLINE_MS);
  const state = await stateOf(client, id);
  await client.ask('DELETE', `/api/packages/${id}`);
  return state;
}

const rowsOf = async (stack: Stack, table: string): Promise<number> => Number((await stack.services.db(table).count({ count: '*' }).first())?.['count'] ?? 0);
const countedTables = ['brands', 'channels', 'media', 'pieces', 'plan_entries', 'publications', 'measurements', 'campaigns', 'queue_entries', 'ideas', 'saved_answers', 'short_links', 'feeds', 'boilerplates'];

describe('a brand as a package', { tags: 'long' }, () => {
  let whole: Uint8Array;

  it('has every kind of record, each by its schema, and no access to any channel', async () => {
    whole = await exported(ottoline, 'scope=brand');
    const files = unzipSync(whole);
    for (const kind of recordKinds) for (const record of recordsOf(files, kind)) expect(() => recordSchemas[kind].validateSync(record, { strict: true }), kind).not.toThrow();
    expect(recordsOf(files, 'pieces').length).toBe(Number((await here.services.db('pieces').join('brands', 'brands.id', 'pieces.brand_id').where({ slug: 'gullwick' }).count({ count: '*' }).first())?.['count']));
    const text = Object.entries(files).filter(([name]) => name.endsWith('.json') || name.endsWith('.jsonl')).map(([, bytes]) => strFromU8(bytes)).join('');
    const secrets: string[] = [...(await here.services.db('channels').pluck('token')), ...(await here.services.db('people').pluck('email')), ...(await here.services.db('people').pluck('password_hash'))];
    for (const secret of secrets) expect(text.includes(secret)).toBe(false);
    for (const { file } of recordsOf(files, 'media') as unknown as { file: string }[]) expect(files[`gullwick/${file}`]?.length ?? 0, file).toBeGreaterThan(0);
  }, DEADLINE_MS);

  it('comes to another installation under its ids, on hold, without access, and with what waits as drafts', async () => {
    const { import: work, report } = await imported(newcomer, whole);
    expect(work).toMatchObject({ state: 'done', problem: null });
    expect(report?.brands[0]).toMatchObject({ slug: 'gullwick', isNew: true, counts: { brand: { new: 1 } } });
    const ids = async (stack: Stack, table: string): Promise<readonly string[]> => stack.services.db(table).join('brands', 'brands.id', `${table}.brand_id`).where({ slug: 'gullwick' }).orderBy(`${table}.id`).pluck(`${table}.id`);
    for (const table of ['pieces', 'media', 'channels', 'publications', 'campaigns', 'boilerplates']) expect(await ids(there, table), table).toEqual(await ids(here, table));
    const hashes = (stack: Stack): Promise<string[]> => stack.services.db('pieces').join('brands', 'brands.id', 'pieces.brand_id').where({ slug: 'gullwick' }).orderBy('pieces.id').pluck('hash');
    expect(await hashes(there)).toEqual(await hashes(here));
    expect(new Set(await there.services.db('channels').pluck('state'))).toEqual(new Set(['ended']));
    expect((await there.services.db('plans').first('held_since_ms'))?.['held_since_ms']).not.toBeNull();
    const waiting: string[] = await here.services.db('posts').join('brands', 'brands.id', 'posts.brand_id').where({ slug: 'gullwick' }).whereIn('state', ['scheduled', 'in review', 'held']).pluck('posts.id');
    expect(waiting.length).toBeGreaterThan(0);
    const entries: string[] = await there.services.db('plan_entries').pluck('id');
    for (const id of waiting) expect(entries).toContain(id);
    expect(await rowsOf(there, 'deliveries')).toBe(0);
    expect(await there.services.db('measurements').sum({ sum: 'value' }).first()).toEqual(await here.services.db('measurements').join('publications', 'publications.id', 'publication_id').join('brands', 'brands.id', 'publications.brand_id').where({ slug: 'gullwick' }).sum({ sum: 'value' }).first());
  }, DEADLINE_MS);

  it('shows its pieces there as it does here', async () => {
    const id: string = await here.services.db('pieces').join('brands', 'brands.id', 'pieces.brand_id').where({ slug: 'gullwick', kind: 'graphic' }).whereExists(here.services.db('piece_media').whereRaw('piece_media.piece_id = pieces.id')).pluck('pieces.id').then((all: string[]) => all[0] ?? '');
    const piece = await ottoline.ask('GET', `/api/brands/gullwick/pieces/${id}`);
    const [cut] = (piece.body['document'] as unknown as { cuts: { channelId: string; placement: string }[] }).cuts;
    const picture = async (client: Client): Promise<Response> => client.raw('GET', `/api/brands/gullwick/pieces/${id}/cuts/${cut?.channelId}/${cut?.placement}?as=png`);
    const [first, second] = [await picture(ottoline), await picture(newcomer)];
    expect([first.status, second.status]).toEqual([200, 200]);
    const { default: sharp } = await import('sharp');
    const raw = async (response: Response) => sharp(Buffer.from(await response.arrayBuffer())).removeAlpha().raw().toBuffer();
    const [one, other] = [await raw(first), await raw(second)];
    expect(other.length).toBe(one.length);
    const apart = one.reduce((sum, value, at) => sum + Math.abs(value - (other[at] ?? 0)), 0) / one.length;
    expect(apart).toBeLessThan(1);
  }, DEADLINE_MS);

  it('doubles nothing when it comes twice', async () => {
    const before = await Promise.all(countedTables.map((table) => rowsOf(there, table)));
    const { report } = await imported(newcomer, whole);
    expect(report?.brands[0]?.isNew).toBe(false);
    for (const [kind, counts] of Object.entries(report?.brands[0]?.counts ?? {})) expect(Object.keys(counts).filter((outcome) => outcome === 'new' || outcome === 'updated' || outcome === 'both'), kind).toEqual([]);
    expect(await Promise.all(countedTables.map((table) => rowsOf(there, table)))).toEqual(before);
  }, DEADLINE_MS);
});

describe('a piece that goes and comes back', () => {
  /** A graphic that waits for its moment here. */
  const pieceId = async (): Promise<string> => ((await here.services.db('posts').join('brands', 'brands.id', 'posts.brand_id').where({ slug: 'gullwick', kind: 'graphic', state: 'scheduled' }).orderBy('posts.id').pluck('piece_id')) as string[])[0] ?? '';
  const titled = async (client: Client, id: string, title: string): Promise<void> => {
    const { body } = await client.ask('GET', `/api/brands/gullwick/pieces/${id}`);
    const answer = await client.ask('PATCH', `/api/brands/gullwick/pieces/${id}`, { revision: body['revision'], patches: [{ op: 'replace', path: '/title', value: title }] });
    expect(answer.status).toBe(200);
  };
  const titleOf = async (client: Client, id: string): Promise<unknown> => ((await client.ask('GET', `/api/brands/gullwick/pieces/${id}`)).body['document'] as unknown as { title: string }).title;

  it('takes the newer state, leaves the older one, and keeps its own where both have changed', { tags: 'long', timeout: DEADLINE_MS }, async () => {
    const id = await pieceId();
    const before = await exported(ottoline, `scope=piece&piece=${id}`);
    expect(recordsOf(unzipSync(before), 'pieces').map((record) => record['id'])).toEqual([id]);
    const entries = await rowsOf(here, 'plan_entries');
    await titled(newcomer, id, 'Changed there');
    const back = await imported(ottoline, await exported(newcomer, `scope=piece&piece=${id}`));
    expect(back.report?.brands[0]?.counts['pieces']).toEqual({ updated: 1 });
    expect(await titleOf(ottoline, id)).toBe('Changed there');
    const older = await imported(ottoline, before);
    expect(older.report?.brands[0]?.counts['pieces']).toEqual({ older: 1 });
    expect(await titleOf(ottoline, id)).toBe('Changed there');
    await titled(newcomer, id, 'Changed there again');
    await titled(ottoline, id, 'Changed here');
    const both = await imported(ottoline, await exported(newcomer, `scope=piece&piece=${id}`));
    expect(both.report?.brands[0]?.counts['pieces']).toEqual({ both: 1 });
    expect(both.report?.brands[0]?.notes.join(' ')).toContain('has changed here and there');
    expect(await titleOf(ottoline, id)).toBe('Changed here');
    // Its post here was a draft there, and is no second one here.
    expect(await rowsOf(here, 'plan_entries')).toBe(entries);
  });

  it('comes alone with what it shows, and what sends by itself stays away', async () => {
    const files = unzipSync(await exported(ottoline, `scope=piece&piece=${await pieceId()}`));
    expect(Object.keys(files).filter((name) => /queue|repeats|rotations|publications/.test(name))).toEqual([]);
    const shown: string[] = await here.services.db('piece_media').where({ piece_id: await pieceId() }).pluck('media_id');
    for (const id of shown) expect(recordsOf(files, 'media').map((record) => record['id'])).toContain(id);
  }, DEADLINE_MS);
});

it('a month has what stands in it, and media are files with their facts', async () => {
  const due: { due_ms: number; piece_id: string; zone: string }[] = await here.services.db('posts').join('brands', 'brands.id', 'posts.brand_id').where({ slug: 'gullwick' }).orderBy('due_ms', 'desc').select('due_ms', 'piece_id', 'posts.zone').limit(1);
  const month = new Date(Number(due[0]?.due_ms)).toISOString().slice(0, 7);
  const files = unzipSync(await exported(ottoline, `scope=month&month=${month}`));
  expect(recordsOf(files, 'pieces').map((record) => record['id'])).toContain(due[0]?.piece_id);
  for (const post of recordsOf(files, 'posts')) expect(String(post['wall']).slice(0, 7)).toBe(month);
  const media = unzipSync(await exported(ottoline, 'scope=media'));
  expect(media['gullwick/pieces.jsonl']).toBeUndefined();
  const items = recordsOf(media, 'media') as unknown as { file: string; altText: string }[];
  expect(items.length).toBeGreaterThan(5);
  expect(items.every(({ file }) => (media[`gullwick/${file}`]?.length ?? 0) > 0)).toBe(true);
}, DEADLINE_MS);

describe('who may', () => {
  it('takes a whole brand out as owner or designer alone, and brings it in nowhere but where they may change it', async () => {
    const writer = await joinAs(ottoline, 'gullwick', 'marlow@elsewhere.example', 'writer');
    expect((await writer.raw('GET', '/api/brands/gullwick/package?scope=brand')).status).toBe(403);
    expect((await writer.raw('GET', '/api/packages/all')).status).toBe(403);
    const bytes = await exported(ottoline, 'scope=media');
    const state = await brought(writer, bytes);
    expect(state.found?.brands[0]?.target).toMatchObject({ kind: 'not yours' });
    await writer.ask('POST', `/api/packages/${state.id}/import`, {});
    await until('the refusal', async () => hasEnded((await stateOf(writer, state.id)).import));
    expect((await stateOf(writer, state.id)).import).toMatchObject({ state: 'failed', problem: expect.stringContaining('may not change it') as string });
    expect((await ottoline.ask('GET', `/api/packages/${state.id}`)).status).toBe(404);
  }, DEADLINE_MS);

  it('takes all brands out at once', async () => {
    const response = await ottoline.raw('GET', '/api/packages/all');
    const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
    const manifest = JSON.parse(strFromU8(files['confetti.json'] ?? new Uint8Array())) as { scope: string; brands: { folder: string }[] };
    expect(manifest.scope).toBe('all');
    for (const { folder } of manifest.brands) expect(files[`${folder}/brand.jsonl`]).toBeDefined();
  }, DEADLINE_MS);
});

describe('a package at fault', { tags: 'long' }, () => {
  /** A package of a few pictures, and those that the book names. */
  const small = async (): Promise<Record<string, Uint8Array>> => {
    const files = unzipSync(await exported(ottoline, 'scope=media'));
    const book = strFromU8(files['gullwick/brand.jsonl'] ?? new Uint8Array());
    const items = recordsOf(files, 'media') as unknown as readonly { id: string; file: string; kind: string }[];
    const kept = items.filter(({ id, kind }, index) => book.includes(`"${id}"`) || (kind === 'picture' && index < 8));
    const names = new Set(kept.map(({ file }) => `gullwick/${file}`));
    return { ...Object.fromEntries(Object.entries(files).filter(([name]) => !name.startsWith('gullwick/media/') || names.has(name))), 'gullwick/media.jsonl': strToU8(kept.map((item) => `${JSON.stringify(item)}\n`).join('')) };
  };
  const problemOf = async (bytes: Uint8Array): Promise<string> => {
    const { look, id } = await brought(newcomer, bytes);
    await newcomer.ask('DELETE', `/api/packages/${id}`);
    expect(look?.state).toBe('failed');
    return look?.problem ?? '';
  };

  it('is refused with the place of its fault before anything comes in', async () => {
    const files = await small();
    const [picture = ''] = Object.keys(files).filter((name) => name.startsWith('gullwick/media/'));
    const media = strFromU8(files['gullwick/media.jsonl'] ?? new Uint8Array());
    const withFile = (name: string, text: string | null): Uint8Array => {
      const { [name]: _, ...rest } = files;
      return zipped(text === null ? rest : { ...rest, [name]: strToU8(text) });
    };
    expect(await problemOf(zipped(files).slice(0, 5_000))).toContain('no whole ZIP');
    expect(await problemOf(strToU8('PK, or so it says'))).toContain('no whole ZIP');
    expect(await problemOf(withFile('confetti.json', null))).toContain('no confetti.json');
    expect(await problemOf(withFile('confetti.json', '{"format":"confetti-package","version":9}'))).toContain('newer Confetti');
    expect(await problemOf(withFile('gullwick/media.jsonl', `${media.split('\n')[0]}\n{"id":`))).toContain('media.jsonl, line 2');
    expect(await problemOf(withFile('gullwick/media.jsonl', `{"id":${'['.repeat(200)}${']'.repeat(200)}}`))).toContain('nested');
    expect(await problemOf(withFile('gullwick/media.jsonl', media.replaceAll('"altText":"', '"altText":7,"x":"')))).toContain('line 1');
    expect(await problemOf(withFile('gullwick/media.jsonl', media.replace(/"file":"[^"]+"/, '"file":"media/../../../etc/passwd"')))).toContain('Not a file of this package');
    expect(await problemOf(withFile('gullwick/media.jsonl', `"${'a'.repeat(5_000_000)}"`))).toContain('media.jsonl');
    expect(await problemOf(withFile(picture, null))).toContain(picture.split('/').at(-1) ?? '?');
    expect(await problemOf(withFile('gullwick/brand.jsonl', null))).toContain('does not say what the brand');
  }, DEADLINE_MS);

  /** The same brand under other ids and in another folder, with its manifest entry: ids of the demo belong to the demo's brand. */
  const asOther = (files: Files, brandId: string, folder: string): { readonly files: Record<string, Uint8Array>; readonly entry: object } => {
    const prefixed = (kind: 'channels' | 'media') => strToU8(recordsOf(files, kind).map((record) => `${JSON.stringify({ ...record, id: `${folder}-${String(record['id'])}` })}\n`).join(''));
    const own = Object.fromEntries(Object.entries(files).filter(([name]) => name.startsWith('gullwick/')).map(([name, bytes]) => [name.replace('gullwick', folder), bytes]));
    const brand = strFromU8(files['gullwick/brand.jsonl'] ?? new Uint8Array()).replace(/"id":"[^"]+"/, `"id":"${brandId}"`).replaceAll('"mediaId":"', `"mediaId":"${folder}-`);
    return { files: { ...own, [`${folder}/brand.jsonl`]: strToU8(brand), [`${folder}/channels.jsonl`]: prefixed('channels'), [`${folder}/media.jsonl`]: prefixed('media') }, entry: { id: brandId, name: 'Another', folder } };
  };
  const packed = (...brands: readonly ReturnType<typeof asOther>[]): Record<string, Uint8Array> => Object.assign({ 'confetti.json': strToU8(JSON.stringify({ format: 'confetti-package', version: 1, scope: 'all', madeMs: 1, brands: brands.map(({ entry }) => entry) })) }, ...brands.map(({ files }) => files)) as Record<string, Uint8Array>;
  const withoutPicture = (files: Record<string, Uint8Array>, folder: string): Uint8Array => {
    const last = recordsOf(files, 'media', folder).at(-1) as unknown as { file: string };
    return zipped({ ...files, [`${folder}/${last.file}`]: strToU8('<html>no picture</html>') });
  };

  it('leaves nothing when a picture in it is none, and nothing when it is stopped', async () => {
    const renamed = packed(asOther(await small(), 'brought-by-a-test', 'another'));
    const before = await Promise.all(countedTables.map((table) => rowsOf(there, table)));
    const broken = await imported(newcomer, withoutPicture(renamed, 'another'));
    expect(broken.import).toMatchObject({ state: 'failed' });
    expect(await Promise.all(countedTables.map((table) => rowsOf(there, table)))).toEqual(before);

    const { id } = await brought(newcomer, zipped(renamed));
    await newcomer.ask('POST', `/api/packages/${id}/import`, {});
    await until('the first picture of the import', async () => (await rowsOf(there, 'media')) > (before[countedTables.indexOf('media')] ?? 0), DEADLINE_MS);
    expect((await newcomer.ask('DELETE', `/api/packages/${id}`)).status).toBe(204);
    await until('taking it back', async () => JSON.stringify(await Promise.all(countedTables.map((table) => rowsOf(there, table)))) === JSON.stringify(before));
    expect(await rowsOf(there, 'packages')).toBe(0);
  }, DEADLINE_MS);

  it('of two brands leaves the one that has come whole, and nothing of the other', async () => {
    const files = await small();
    const broken = await imported(newcomer, withoutPicture(packed(asOther(files, 'whole-brand', 'whole'), asOther(files, 'half-brand', 'half')), 'half'));
    expect(broken.import).toMatchObject({ state: 'failed' });
    const brands: string[] = await there.services.db('brands').whereIn('id', ['whole-brand', 'half-brand']).pluck('id');
    expect(brands).toEqual(['whole-brand']);
    expect(Number((await there.services.db('media').where({ brand_id: 'whole-brand' }).count({ count: '*' }).first())?.['count'])).toBe(recordsOf(files, 'media').length);
    expect(await there.services.db('media').where({ brand_id: 'half-brand' }).first('id')).toBeUndefined();
    expect((await newcomer.ask('GET', '/api/me')).body['brands']).toContainEqual(expect.objectContaining({ name: expect.any(String) as string, role: 'owner' }));
  }, DEADLINE_MS);
});
