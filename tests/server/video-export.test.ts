import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import { transitionKinds } from '../../src/core/piece/shot.ts';
import { findBrandFor, type Brand } from '../../src/server/db/brand-repository.ts';
import { claimJob, enqueueJob, getJob } from '../../src/server/db/job-repository.ts';
import { findVideoExport, insertVideoExport, type VideoExport } from '../../src/server/db/video-export-repository.ts';
import { makeVideoFile } from '../../src/server/video/video-file.ts';
import { videoSourceOf } from '../../src/server/video/video-source.ts';
import { videoProblem } from '../../src/server/video/video-problem.ts';
import { pinSnapshot } from '../../src/server/documents/pins.ts';
import { TooHeavyError } from '../../src/server/render/errors.ts';
import { deliveryJobKey } from '../../src/server/dispatch/delivery-handler.ts';
import { exportJob, exportJobKey, videoFileOfExport } from '../../src/server/video/export-handler.ts';
import { FfmpegError } from '../../src/server/ffmpeg/run-ffmpeg.ts';
import { makeSnapshot } from '../../src/server/pieces/make-snapshot.ts';
import { bars, H264, makeRecording, tone } from '../fixtures/recordings.ts';
import { clearQueue, deliveryRows, sendDue, startStack, type Stack } from './stack.ts';
import { endProgram, startProgram, until } from '../fixtures/programs.ts';

let folder: string;
let stack: Stack;
let clipId: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-export-'));
  stack = await startStack();
  const clip = await stack.wren.upload('gullwick', 'bars.mp4', readFileSync(await makeRecording(folder, 'bars.mp4', [...bars('640x360', '30', 3), ...tone(3), ...H264, '-c:a', 'aac'])));
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

let videos = 0;
/** A video of a clip and a closing card, each of a length, unlike all before it. A random word in it might be too wide for a cut. */
async function makeVideo(lengthMs = 1_200): Promise<Made> {
  videos += 1;
  const created = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'gust' })).body as unknown as Made;
  const text = (value: string) => ({ kind: 'text', text: value });
  const frames = [
    { id: 'a', slots: { film: { kind: 'picture', mediaId: clipId }, headline: text(`Kites ${videos}`) }, shot: { lengthMs } },
    { id: 'b', slide: 'closing', slots: { headline: text('Come by'), call: text('Book') }, shot: { lengthMs, into: { kind: 'fade', ms: 400 } } },
  ];
  const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${created.id}`, { revision: created.revision, patches: [{ op: 'replace', path: '/frames', value: frames }, { op: 'replace', path: '/words/shared/caption', value: `Kites ${videos}` }] });
  expect(changed.status).toBe(200);
  return changed.body as unknown as Made;
}

interface Listed {
  readonly id: string;
  readonly state: string;
  readonly share: number;
}
const exportsOf = async (piece: Made): Promise<readonly Listed[]> => (((await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}/video-exports`)).body as unknown as { exports: Listed[] }).exports);
/** Keeps an export of a video's first cut behind the server's back: nobody works on it. */
async function keepExport(id: string, piece: Made): Promise<VideoExport> {
  const [{ db }, brand, [cut]] = [stack.services, await gullwick(), piece.document.cuts];
  if (!cut) throw new Error('The video has no cut');
  const { pin } = await pinSnapshot(db, await makeSnapshot(stack.services, brand, piece.document), 1);
  await insertVideoExport(db, { id, brandId: brand.id, pieceId: piece.id, ...cut, format: 'mp4', pin, createdMs: 1 });
  const kept = await findVideoExport(db, piece.id, id);
  if (!kept) throw new Error('The export was not kept');
  return kept;
}
const start = (piece: Made, cuts: Piece['cuts'], format = 'mp4') => stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/video-exports`, { cuts, format });
/** How many sounds of videos have been made. */
const soundFiles = (): number => readdirSync(stack.dataFolder, { recursive: true }).filter((file) => String(file).endsWith('-sound.mp4')).length;
const incoming = (): string => execFileSync('find', [join(stack.dataFolder, 'incoming'), '-mindepth', '1']).toString();
const probe = (bytes: ArrayBuffer): { streams: Record<string, unknown>[]; format: { duration: string } } => {
  const path = join(folder, 'out');
  writeFileSync(path, new Uint8Array(bytes));
  return JSON.parse(execFileSync('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', path]).toString());
};
const loudness = (): number => Number(/I:\s+(-?[\d.]+) LUFS/.exec(execFileSync('sh', ['-c', `ffmpeg -hide_banner -i '${join(folder, 'out')}' -af ebur128 -f null - 2>&1 | tail -12`]).toString())?.[1]);

describe('files of a video', () => {
  it('are made one after the other, in the size of each place, with their sound at its loudness', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const cuts = piece.document.cuts.filter(({ placement }) => placement === 'story' || placement === 'post-wide').slice(0, 2);
    expect(await start(piece, cuts)).toMatchObject({ status: 201 });
    await until('both videos', async () => (await exportsOf(piece)).every(({ state }) => state === 'done' || state === 'failed'));
    expect((await exportsOf(piece)).map(({ state }) => state)).toEqual(['done', 'done']);
    const sizes: string[] = [];
    for (const { id } of await exportsOf(piece)) {
      const { streams, format } = probe(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/video-exports/${id}/file`)).arrayBuffer());
      sizes.push(`${streams[0]?.['width']}x${streams[0]?.['height']}`);
      expect(streams.map(({ codec_name }) => codec_name)).toEqual(['h264', 'aac']);
      expect(Number(format.duration)).toBeCloseTo(2, 1);
      expect(Math.abs(loudness() + 14)).toBeLessThan(1.5);
    }
    expect(sizes.toSorted()).toEqual(['1080x1920', '1600x900']);
    expect(incoming()).toBe('');
  });

  it('have every frame of their shots, whatever takes over from what, and one sound for all of them', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const shots = [...transitionKinds, 'fade' as const].map((kind, index) => ({
      id: `s${index}`,
      ...(index === 0 ? {} : { slide: 'moment' }),
      slots: { film: { kind: 'picture', mediaId: clipId } },
      shot: { lengthMs: 500, fromMs: index * 200, ...(index === 0 ? {} : { into: { kind, ms: 133 } }) },
    }));
    const changed = (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/frames', value: shots }] })).body as unknown as Made;
    const before = soundFiles();
    await start(changed, changed.document.cuts.filter(({ placement }) => ['feed-square', 'post-wide'].includes(placement)).slice(0, 2));
    await until('both videos', async () => (await exportsOf(piece)).every(({ state }) => state === 'done' || state === 'failed'));
    const made = await exportsOf(piece);
    expect(made.map(({ state }) => state)).toEqual(['done', 'done']);
    const moving = shots.filter(({ shot }) => shot.into && shot.into.kind !== 'cut').length;
    for (const { id } of made) {
      const { streams } = probe(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/video-exports/${id}/file`)).arrayBuffer());
      expect(Number(streams[0]?.['nb_frames'])).toBe(shots.length * 15 - moving * 4);
      expect(Math.abs(Number(streams[1]?.['duration']) - Number(streams[0]?.['duration']))).toBeLessThan(0.05);
      expect(Math.abs(Number(streams[1]?.['start_time']) - Number(streams[0]?.['start_time']))).toBeLessThan(0.03);
    }
    expect(soundFiles() - before).toBe(1);
  });

  it('come as WebM, too, and a graphic has none', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    await start(piece, piece.document.cuts.slice(0, 1), 'webm');
    await until('the video', async () => ['done', 'failed'].includes((await exportsOf(piece))[0]?.state ?? ''));
    const file = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/video-exports/${(await exportsOf(piece))[0]?.id}/file`);
    expect([file.headers.get('content-type'), file.headers.get('content-disposition')]).toEqual(['video/webm', expect.stringMatching(/attachment; filename="kites-.*\.webm"/)]);
    expect(probe(await file.arrayBuffer()).streams.map(({ codec_name }) => codec_name)).toEqual(['vp9', 'opus']);
    const graphic = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'headland' })).body as unknown as Made;
    expect(await start(graphic, graphic.document.cuts.slice(0, 1))).toMatchObject({ status: 422, body: { code: 'no-video' } });
    expect(await start(piece, [{ channelId: 'nobody', placement: 'story' }])).toMatchObject({ status: 404 });
  });

  it('come as a few seconds of moving pictures, and as the cover alone once one is chosen', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const [square] = piece.document.cuts.filter(({ placement }) => placement === 'feed-square');
    const made = async (format: string): Promise<{ readonly state: string; readonly problem: string | null; readonly mime: string | null; readonly bytes: ArrayBuffer }> => {
      await start(piece, square ? [square] : [], format);
      await until(`the ${format}`, async () => ['done', 'failed'].includes((await exportsOf(piece))[0]?.state ?? ''));
      const [video] = (await exportsOf(piece)) as (Listed & { readonly problem: string | null })[];
      const file = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/video-exports/${video?.id}/file`);
      return { state: video?.state ?? '', problem: video?.problem ?? null, mime: file.headers.get('content-type'), bytes: await file.arrayBuffer() };
    };
    for (const format of ['gif', 'webp']) {
      const { mime, bytes } = await made(format);
      expect(mime).toBe(`image/${format}`);
      const { pages, width, pageHeight, delay } = await sharp(Buffer.from(bytes), { animated: true }).metadata();
      expect([width, pageHeight]).toEqual([540, 540]);
      // Two seconds at fifteen frames; frames that are alike may be one.
      expect((delay ?? []).reduce((sum, ms) => sum + ms, 0)).toBeGreaterThan(1_700);
      expect(pages).toBeGreaterThan(10);
    }
    expect(await made('jpg')).toMatchObject({ state: 'failed', problem: 'No cover is chosen for this place. Choose one, and export again.' });
    await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: '/cover', value: { kind: 'frame', atMs: 600 } }] });
    const cover = await made('jpg');
    expect([cover.state, cover.mime]).toEqual(['done', 'image/jpeg']);
    expect(await sharp(Buffer.from(cover.bytes)).metadata()).toMatchObject({ width: 1080, height: 1080, format: 'jpeg' });
  });

  it('are measured when they are made: their loudness, their peak, and whether they flash', { tags: 'long' }, async () => {
    const flashing = await stack.wren.upload('gullwick', 'flashing.mp4', readFileSync(await makeRecording(folder, 'flashing.mp4', [...bars('640x360', '30', 3), '-vf', "geq=lum='if(mod(floor(N/3),2),235,16)':cb=128:cr=128", ...H264])));
    const piece = await makeVideo();
    const frames = [{ id: 'a', slots: { film: { kind: 'picture', mediaId: (flashing.body as unknown as { id: string }).id } }, slide: 'moment', shot: { lengthMs: 2_000 } }];
    const changed = (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/frames', value: frames }] })).body as unknown as Made;
    await start(changed, changed.document.cuts.slice(0, 1));
    await until('the video', async () => ['done', 'failed'].includes((await exportsOf(piece))[0]?.state ?? ''));
    const [video] = (await exportsOf(piece)) as (Listed & { readonly measures: { readonly flashesASecond: number; readonly loudnessLufs: number | null } })[];
    expect(video?.measures.flashesASecond).toBeGreaterThan(3);
    expect(video?.measures.loudnessLufs).toBeNull();
    const calm = await makeVideo();
    await start(calm, calm.document.cuts.slice(0, 1));
    await until('the calm video', async () => ['done', 'failed'].includes((await exportsOf(calm))[0]?.state ?? ''));
    const [other] = (await exportsOf(calm)) as (Listed & { readonly measures: { readonly flashesASecond: number; readonly loudnessLufs: number; readonly truePeakDb: number } })[];
    expect(other?.measures.flashesASecond).toBeLessThanOrEqual(3);
    expect(Math.abs((other?.measures.loudnessLufs ?? 0) + 14)).toBeLessThan(1.5);
    expect(other?.measures.truePeakDb).toBeLessThan(-1);
  });

  it('are made in two passes to stay below what a network takes, and refused where no quality does', { tags: 'long' }, async () => {
    // Two passes over every frame: a second of moving pictures shows what a minute would.
    const piece = await makeVideo(700);
    const [brand, cut] = [await gullwick(), piece.document.cuts.find(({ placement }) => placement === 'feed-square')];
    if (!cut) throw new Error('The video has no cut');
    const source = videoSourceOf(await makeSnapshot(stack.services, brand, piece.document), 'petalry', cut, stack.services.media);
    const sizeOf = async (format: 'mp4' | 'webm', maxBytes: number): Promise<number> => {
      const { path } = await makeVideoFile(stack.services, source, { format, maxBytes, title: 'Small', signal: new AbortController().signal, onProgress: () => undefined });
      return readFileSync(path).length;
    };
    for (const format of ['mp4', 'webm'] as const) {
      const free = await sizeOf(format, Infinity);
      const most = Math.max(190_000, Math.round(free * 0.6));
      expect(free).toBeGreaterThan(most);
      expect(await sizeOf(format, most)).toBeLessThanOrEqual(most);
    }
    await expect(sizeOf('mp4', 60_000)).rejects.toMatchObject({ code: 'too-heavy' });
    expect(incoming()).toBe('');
  });

  it('are made once where two ask for the same one at once', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const [one, other] = [await keepExport(`one-${piece.id}`, piece), await keepExport(`other-${piece.id}`, piece)];
    const shares: number[] = [];
    const [first, second] = await Promise.all([one, other].map((each, index) => videoFileOfExport(stack.services, each, { signal: new AbortController().signal, onProgress: () => void shares.push(index) })));
    expect(second?.path).toBe(first?.path);
    expect(new Set(shares).size).toBe(1);
  });

  it('are stopped, whether they wait or are being made, and nothing is left of them', async () => {
    const piece = await makeVideo();
    await start(piece, piece.document.cuts.slice(0, 3));
    for (const { id } of await exportsOf(piece)) expect((await stack.wren.ask('DELETE', `/api/brands/gullwick/pieces/${piece.id}/video-exports/${id}`)).status).toBe(204);
    expect((await exportsOf(piece)).map(({ state }) => state)).toEqual(['cancelled', 'cancelled', 'cancelled']);
    await until('the files to be gone', () => incoming() === '');
  });

  it('are made by another worker when the first one ends in the middle', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const { services } = stack;
    await keepExport('left-behind', piece);
    await enqueueJob(services.db, { ...exportJob('left-behind'), lane: 'nobody' }, 1);
    expect(await claimJob(services.db, { lease: 'first', lanes: ['nobody'], fullGroups: [], nowMs: 1, machineNowMs: 1, leaseMs: 1_000 })).toMatchObject({ attempt: 1, state: 'running' });
    // The first worker has ended; its lease runs out, and the job is taken over.
    await services.db('jobs').where({ key: exportJobKey('left-behind') }).update({ lane: 'export' });
    await until('the video', async () => (await getJob(services.db, exportJobKey('left-behind'))).state === 'done');
    expect(await getJob(services.db, exportJobKey('left-behind'))).toMatchObject({ state: 'done', attempt: 2 });
  });

  it('are made again when the cache was emptied', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    await start(piece, piece.document.cuts.slice(0, 1));
    await until('the video', async () => (await exportsOf(piece))[0]?.state === 'done');
    const id = (await exportsOf(piece))[0]?.id ?? '';
    const file = `/api/brands/gullwick/pieces/${piece.id}/video-exports/${id}/file`;
    rmSync(String((await getJob(stack.services.db, exportJobKey(id))).result?.['path']));
    const missing = await stack.wren.raw('GET', file);
    expect([missing.status, missing.headers.get('retry-after')]).toEqual([503, '5']);
    await until('the file again', async () => (await stack.wren.raw('GET', file)).status === 200);
  });

  it('whose program is stopped in the middle leave nothing behind', async () => {
    const piece = await makeVideo();
    const made = await keepExport('broken-off', piece);
    const abort = new AbortController();
    await expect(videoFileOfExport(stack.services, made, { signal: abort.signal, onProgress: () => abort.abort() })).rejects.toThrow('ffmpeg ended');
    expect(incoming()).toBe('');
  });

  it('take their cover and their subtitles along, as each place has them', { tags: 'long' }, async () => {
    const piece = await makeVideo();
    const channelOf = (placement: string): string => piece.document.cuts.find((cut) => cut.placement === placement)?.channelId ?? '';
    const brand = await gullwick();
    const photo = (await stack.services.db('media').where({ brand_id: brand.id, name: 'windsocks.jpg' }).first('id')) as { id: string };
    const changes = [
      { op: 'add', path: '/cover', value: { kind: 'picture', mediaId: photo.id } },
      { op: 'add', path: '/track', value: { subtitles: [{ fromMs: 200, toMs: 1_400, text: 'Hold on tight' }], subtitleFile: true } },
      { op: 'replace', path: '/frames/0/shot/lengthMs', value: 2_900 },
      {
        op: 'replace',
        path: '/words/own',
        value: {
          [channelOf('clip')]: { comments: 'off' },
          [channelOf('film')]: { title: 'Hold on', tags: 'kites, sled kites', visibility: 'unlisted', playlist: 'How to build', audience: 'age: 18+' },
        },
      },
    ];
    const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: changes });
    expect(changed.status).toBe(200);
    const { revision, document } = changed.body as unknown as Made;
    const cuts = document.cuts.filter(({ placement }) => placement === 'page-square' || placement === 'clip' || placement === 'film');
    expect(cuts).toHaveLength(3);
    await clearQueue(stack);
    const posted = await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision, cuts, when: { kind: 'now' } });
    expect([posted.status, posted.body['title']]).toEqual([201, undefined]);
    expect(await sendDue(stack)).toBe(3);
    const { items } = (await stack.wren.ask('GET', `/api/brands/gullwick/deliveries?piece=${piece.id}`)).body as unknown as { items: { placement: string; state: string; address: string | null; problem: string | null }[] };
    expect(items.map(({ state, problem }) => [state, problem])).toEqual([['sent', null], ['sent', null], ['sent', null]]);
    const pageOf = async (placement: string): Promise<string> => (await fetch(items.find((item) => item.placement === placement)?.address ?? '')).text();
    // What each network has beside the text goes along as well.
    expect(await pageOf('clip')).toContain('Comments: off');
    const film = await pageOf('film');
    for (const line of ['<h1>Hold on</h1>', 'Tags: kites, sled kites', 'Visibility: unlisted', 'Playlist: How to build', 'Seen by: from 18 years']) expect(film).toContain(line);
    const own = await pageOf('page-square');
    const [, poster = ''] = /poster="([^"]+)"/.exec(own) ?? [];
    expect(await sharp(Buffer.from(await (await fetch(`${stack.environment['CONFETTI_STANDIN'] ?? ''}${poster}`)).arrayBuffer())).metadata()).toMatchObject({ width: 1080, height: 1080 });
    const [, subtitles = ''] = /<track [^>]*src="([^"]+)"/.exec(own) ?? [];
    expect(await (await fetch(`${stack.environment['CONFETTI_STANDIN'] ?? ''}${subtitles}`)).text()).toContain('00:00:00.200 --> 00:00:01.400\nHold on tight');
    // Where only a moment is taken the nearest goes: the opening, as the picture is nowhere in it.
    const moment = await pageOf('clip');
    expect(moment).toMatch(/src="[^"]+#t=1\.\d\d"/);
    expect(moment).not.toContain('<track');
  });

  it('go out to the networks that take them, and to no other place', { tags: 'long' }, async () => {
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
    await clearQueue(stack);
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts: [story], when: { kind: 'now' } })).status).toBe(201);
    expect(await sendDue(stack)).toBe(1);
    const { items } = (await stack.wren.ask('GET', `/api/brands/gullwick/deliveries?piece=${piece.id}`)).body as unknown as { items: { state: string; address: string | null; problem: string | null }[] };
    expect(items.map(({ state, problem }) => [state, problem])).toEqual([['sent', null]]);
    expect(await (await fetch(items[0]?.address ?? '')).text()).toContain('data-seconds="2.0"');
  });
});

it('a worker that stops while it makes a video to send gives it back at once, and the next one sends it', { tags: 'long' }, async () => {
  const piece = await makeVideo(20_000);
  await clearQueue(stack);
  const [story] = piece.document.cuts.filter(({ placement }) => placement === 'story');
  expect((await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts: [story], when: { kind: 'now' } })).status).toBe(201);
  const delivery = async () => (await deliveryRows(stack, piece.id))[0];
  const worker = (): ReturnType<typeof startProgram> => startProgram('worker.mjs', { ...stack.environment, CONFETTI_LANES: 'send,send-video' });
  const first = worker();
  await until('the video to be made', async () => (await delivery())?.step === 'render' && incoming() !== '');
  await endProgram(first);
  const left = await delivery();
  expect([left?.step, incoming(), await getJob(stack.services.db, deliveryJobKey(left?.id ?? ''))]).toMatchObject(['render', '', { state: 'waiting', attempt: 0 }]);
  const second = worker();
  // Who sends gives way to everybody else: on a full machine that takes its time.
  await until('the post', async () => (await delivery())?.state === 'sent', 240_000);
  await endProgram(second);
  expect(await delivery()).toMatchObject({ state: 'sent', attempt: 1 });
});

describe('what an error means for a video', () => {
  const full = 'The disk of the server is full. Nothing was lost. Export again when there is room.';
  it.each([
    [new FfmpegError('ffmpeg', 'av_interleaved_write_frame(): No space left on device', 1), { kind: 'failed', problem: full }],
    [Object.assign(new Error('write'), { code: 'ENOSPC' }), { kind: 'failed', problem: full }],
    [new TooHeavyError(1), { kind: 'failed', problem: 'No quality of this video stays below what the network takes. Make it shorter.' }],
  ])('%s', (error, outcome) => {
    expect(videoProblem(error, false)).toEqual(outcome);
  });

  it('what nobody knows is tried again, until it was the last attempt', () => {
    const error = new FfmpegError('ffmpeg', 'Invalid data', 1);
    expect([videoProblem(error, false).kind, videoProblem(error, true)]).toMatchObject(['retry', { kind: 'failed', problem: expect.stringContaining('check that each of its clips plays') as string }]);
  });
});
