import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import { findBrandFor, type Brand } from '../../src/server/db/brand-repository.ts';
import { claimFilmExport, findFilmExport, insertFilmExport, moveFilmExport, type FilmExport } from '../../src/server/db/film-export-repository.ts';
import { filmOfExport } from '../../src/server/film/film-queue.ts';
import { makeSnapshot } from '../../src/server/pieces/make-snapshot.ts';
import { standinConnector } from '../../src/server/connectors/standin-connector.ts';
import { dispatchDue } from '../../src/server/dispatch/dispatcher.ts';
import { bars, H264, makeFilm, tone } from '../fixtures/films.ts';
import { startStack, until, type Stack } from './stack.ts';

let folder: string;
let stack: Stack;
let clipId: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-export-'));
  stack = await startStack();
  const clip = await stack.wren.upload('gullwick', 'bars.mp4', readFileSync(makeFilm(folder, 'bars.mp4', [...bars('640x360', '30', 3), ...tone(3), ...H264, '-c:a', 'aac'])));
  clipId = (clip.body as unknown as { id: string }).id;
});
afterAll(async () => {
  await stack.close();
  rmSync(folder, { recursive: true });
});

async function gullwick(): Promise<Brand> {
  const wren = await stack.services.db('people').where({ email: 'wren@gullwickkites.example' }).first('id');
  const found = await findBrandFor(stack.services.db, 'gullwick', wren.id);
  if (!found) throw new Error('The brand is not there');
  return found.brand;
}

interface Made {
  readonly id: string;
  readonly revision: number;
  readonly document: Piece;
}

/** A video of a clip and a closing card, two seconds long. */
async function makeVideo(): Promise<Made> {
  const created = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'gust' })).body as unknown as Made;
  const text = (value: string) => ({ kind: 'text', text: value });
  const frames = [
    { id: 'a', slots: { film: { kind: 'picture', mediaId: clipId }, headline: text(`Kites ${created.id}`) }, shot: { lengthMs: 1_200 } },
    { id: 'b', slide: 'closing', slots: { headline: text('Come by'), call: text('Book') }, shot: { lengthMs: 1_200, into: { kind: 'fade', ms: 400 } } },
  ];
  const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${created.id}`, { revision: created.revision, patches: [{ op: 'replace', path: ['frames'], value: frames }, { op: 'replace', path: ['words', 'shared', 'caption'], value: `Kites ${created.id}` }] });
  expect(changed.status).toBe(200);
  return changed.body as unknown as Made;
}

interface Listed {
  readonly id: string;
  readonly state: string;
  readonly share: number;
}
const filmsOf = async (piece: Made): Promise<readonly Listed[]> => (((await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}/films`)).body as unknown as { exports: Listed[] }).exports);
/** Puts the first cut of a video into the queue behind the server's back: nobody is woken. */
async function keepExport(id: string, piece: Made): Promise<FilmExport> {
  const [{ db }, brand, [cut]] = [stack.services, await gullwick(), piece.document.cuts];
  if (!cut) throw new Error('The video has no cut');
  await insertFilmExport(db, { id, brandId: brand.id, pieceId: piece.id, ...cut, format: 'mp4', createdMs: 1 }, await makeSnapshot(stack.services, brand, piece.document));
  const kept = await findFilmExport(db, piece.id, id);
  if (!kept) throw new Error('The export was not kept');
  return kept;
}
const start = (piece: Made, cuts: Piece['cuts'], format = 'mp4') => stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/films`, { cuts, format });
const incoming = (): string => execFileSync('find', [join(stack.dataFolder, 'incoming'), '-mindepth', '1']).toString();
const probe = (bytes: ArrayBuffer): { streams: Record<string, unknown>[]; format: { duration: string } } => {
  const path = join(folder, 'out');
  writeFileSync(path, new Uint8Array(bytes));
  return JSON.parse(execFileSync('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', path]).toString());
};
const loudness = (): number => Number(/I:\s+(-?[\d.]+) LUFS/.exec(execFileSync('sh', ['-c', `ffmpeg -hide_banner -i '${join(folder, 'out')}' -af ebur128 -f null - 2>&1 | tail -12`]).toString())?.[1]);

describe('files of a video', () => {
  it('are made one after the other, in the size of each place, with their sound at its loudness', async () => {
    const piece = await makeVideo();
    const cuts = piece.document.cuts.filter(({ placement }) => placement === 'story' || placement === 'post-wide').slice(0, 2);
    expect(await start(piece, cuts)).toMatchObject({ status: 201 });
    await until('both videos', async () => (await filmsOf(piece)).every(({ state }) => state === 'made' || state === 'failed'));
    expect((await filmsOf(piece)).map(({ state }) => state)).toEqual(['made', 'made']);
    const sizes: string[] = [];
    for (const { id } of await filmsOf(piece)) {
      const { streams, format } = probe(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/films/${id}/file`)).arrayBuffer());
      sizes.push(`${streams[0]?.['width']}x${streams[0]?.['height']}`);
      expect(streams.map(({ codec_name }) => codec_name)).toEqual(['h264', 'aac']);
      expect(Number(format.duration)).toBeCloseTo(2, 1);
      expect(Math.abs(loudness() + 14)).toBeLessThan(1.5);
    }
    expect(sizes.toSorted()).toEqual(['1080x1920', '1600x900']);
    expect(incoming()).toBe('');
  });

  it('come as WebM, too, and a graphic has none', async () => {
    const piece = await makeVideo();
    await start(piece, piece.document.cuts.slice(0, 1), 'webm');
    await until('the video', async () => ['made', 'failed'].includes((await filmsOf(piece))[0]?.state ?? ''));
    const file = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/films/${(await filmsOf(piece))[0]?.id}/file`);
    expect([file.headers.get('content-type'), file.headers.get('content-disposition')]).toEqual(['video/webm', expect.stringMatching(/attachment; filename="kites-.*\.webm"/)]);
    expect(probe(await file.arrayBuffer()).streams.map(({ codec_name }) => codec_name)).toEqual(['vp9', 'opus']);
    const graphic = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'headland' })).body as unknown as Made;
    expect(await start(graphic, graphic.document.cuts.slice(0, 1))).toMatchObject({ status: 422, body: { code: 'no-video' } });
    expect(await start(piece, [{ channelId: 'nobody', placement: 'story' }])).toMatchObject({ status: 404 });
  });

  it('are stopped, whether they wait or are being made, and nothing is left of them', async () => {
    const piece = await makeVideo();
    await start(piece, piece.document.cuts.slice(0, 3));
    for (const { id } of await filmsOf(piece)) expect((await stack.wren.ask('DELETE', `/api/brands/gullwick/pieces/${piece.id}/films/${id}`)).status).toBe(204);
    expect((await filmsOf(piece)).map(({ state }) => state)).toEqual(['stopped', 'stopped', 'stopped']);
    await until('the files to be gone', () => incoming() === '');
  });

  it('are gone on with after a restart, from where nothing is lost', async () => {
    const piece = await makeVideo();
    const { services } = stack;
    await keepExport('restarted', piece);
    const claimed = await claimFilmExport(services.db, 2);
    expect(claimed).toMatchObject({ id: 'restarted', state: 'making' });
    expect(await moveFilmExport(services.db, 'restarted', 'begin')).toBe(false);
    // The process ends here, and another one starts.
    await services.films.resume();
    await until('the video', async () => ['made', 'failed'].includes((await findFilmExport(services.db, piece.id, 'restarted'))?.state ?? ''));
    expect((await findFilmExport(services.db, piece.id, 'restarted'))?.state).toBe('made');
  });

  it('whose program is stopped in the middle leave nothing behind', async () => {
    const piece = await makeVideo();
    const made = await keepExport('broken-off', piece);
    const abort = new AbortController();
    await expect(filmOfExport(stack.services, made, { signal: abort.signal, onProgress: () => abort.abort() })).rejects.toThrow('ffmpeg ended');
    expect(incoming()).toBe('');
  });

  it('go out to the networks that take them, and to no other place', async () => {
    const piece = await makeVideo();
    const places = piece.document.cuts.map(({ placement }) => placement);
    expect(places).not.toContain('update');
    expect(places).not.toContain('document');
    const [cut] = piece.document.cuts.filter(({ placement }) => placement === 'feed-square');
    const scheduled = await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts: [cut], when: { kind: 'now' } });
    expect(scheduled.status).toBe(422);
    // It would be too short: the place takes three seconds at least.
    expect(JSON.stringify(scheduled.body)).toContain('Petalry Square takes 3 to 90 seconds; the video lasts 2.0.');
    const [story] = piece.document.cuts.filter(({ placement }) => placement === 'story');
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts: [story], when: { kind: 'now' } })).status).toBe(201);
    await stack.services.db('deliveries').where({ state: 'scheduled' }).whereNot({ piece_id: piece.id }).update({ state: 'cancelled' });
    expect(await dispatchDue(stack.services, standinConnector)).toBe(1);
    const { items } = (await stack.wren.ask('GET', `/api/brands/gullwick/deliveries?piece=${piece.id}`)).body as unknown as { items: { state: string; address: string | null; problem: string | null }[] };
    expect(items.map(({ state, problem }) => [state, problem])).toEqual([['sent', null]]);
    expect(await (await fetch(items[0]?.address ?? '')).text()).toContain('data-seconds="2.0"');
  });
});
