import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import fc from 'fast-check';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { importRecording } from '../../src/server/recording/import-recording.ts';
import { ProblemError } from '../../src/server/errors.ts';
import { importJob } from '../../src/server/imports/import-upload.ts';
import { lanes } from '../../src/server/jobs/lanes.ts';
import { MediaStore } from '../../src/server/media/media-store.ts';
import { UploadParts } from '../../src/server/media/upload-parts.ts';
import { hostileBytes } from '../fixtures/hostile.ts';
import { bars, H264, makeRecording, tone } from '../fixtures/recordings.ts';
import { startStack, type Stack } from './stack.ts';

let folder: string;
let store: MediaStore;
let stack: Stack;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-film-'));
  store = new MediaStore(join(folder, 'data'));
  stack = await startStack();
});
afterAll(async () => {
  await stack.close();
  rmSync(folder, { recursive: true });
});

interface Stream {
  readonly codec_name: string;
  readonly width?: number;
  readonly height?: number;
  readonly avg_frame_rate: string;
  readonly pix_fmt?: string;
  readonly color_space?: string;
  readonly channels?: number;
  readonly sample_rate?: string;
}
const streamsOf = (hash: string): readonly Stream[] => (JSON.parse(execFileSync('ffprobe', ['-loglevel', 'error', '-show_streams', '-of', 'json', store.pathOf(hash)]).toString()) as { streams: Stream[] }).streams;

describe('the working copy of a recording', () => {
  it('is upright, of an even rate and in stereo, whatever the source was', async () => {
    const flat = await makeRecording(folder, 'flat.mp4', [...bars('320x180', '24000/1001', 1), ...tone(1), ...H264, '-ac', '1', '-c:a', 'aac']);
    const turned = await makeRecording(folder, 'turned.mp4', ['-i', flat, '-c', 'copy', '-metadata:s:v:0', 'rotate=90']);
    const { recording, still, storedHash } = await importRecording(turned, 'turned.mp4', store);
    expect(recording).toMatchObject({ kind: 'clip', hasSound: true });
    expect(recording.durationMs).toBeGreaterThan(950);
    expect([still.widthPx, still.heightPx]).toEqual([180, 320]);
    const [video, sound] = streamsOf(storedHash);
    expect(video).toMatchObject({ codec_name: 'h264', width: 180, height: 320, avg_frame_rate: '30/1', pix_fmt: 'yuv420p', color_space: 'bt709' });
    expect(sound).toMatchObject({ codec_name: 'aac', channels: 2, sample_rate: '48000' });
  });

  it('is made of a clip without sound and of a variable rate', async () => {
    const uneven = await makeRecording(folder, 'uneven.mp4', [...bars('320x180', '30', 2), '-vf', "select='not(mod(n,3))+lt(n,20)'", '-vsync', 'vfr', ...H264]);
    const { recording, storedHash } = await importRecording(uneven, 'uneven.mp4', store);
    expect(recording.hasSound).toBe(false);
    expect(streamsOf(storedHash).map(({ codec_name, avg_frame_rate }) => `${codec_name} ${avg_frame_rate}`)).toEqual(['h264 30/1']);
  });

  it('of high dynamic range keeps its lights apart', async () => {
    const hdr = await makeRecording(folder, 'hdr.mp4', [...bars('320x180', '30', 0.5), '-vf', 'format=yuv420p10le', '-c:v', 'libx265', '-preset', 'ultrafast', '-color_primaries', 'bt2020', '-color_trc', 'smpte2084', '-colorspace', 'bt2020nc', '-x265-params', 'log-level=none:colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc']);
    const { storedHash, still } = await importRecording(hdr, 'hdr.mp4', store);
    expect(streamsOf(storedHash)[0]).toMatchObject({ pix_fmt: 'yuv420p', color_space: 'bt709' });
    const { channels } = await sharp(still.bytes).stats();
    expect(Math.max(...channels.map(({ stdev }) => stdev))).toBeGreaterThan(20);
  });

  it('of sound alone is stood for by its wave form', async () => {
    const surround = await makeRecording(folder, 'surround.m4a', ['-f', 'lavfi', '-i', 'sine=440:d=1', '-af', 'pan=5.1|FL=c0|FR=c0|FC=c0|LFE=c0|BL=c0|BR=c0', '-c:a', 'aac']);
    const { recording, still, storedHash } = await importRecording(surround, 'surround.m4a', store);
    expect(recording).toMatchObject({ kind: 'sound', hasSound: true });
    expect([still.widthPx, still.heightPx]).toEqual([1200, 400]);
    expect(streamsOf(storedHash)[0]).toMatchObject({ codec_name: 'aac', channels: 2 });
  });

  it('comes with scene changes, black and silence found in it', async () => {
    const cut = await makeRecording(folder, 'scenes.mp4', [
      '-f', 'lavfi', '-i', 'color=red:s=320x180:r=30:d=1', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=30:d=1', '-f', 'lavfi', '-i', 'color=black:s=320x180:r=30:d=1', '-f', 'lavfi', '-i', 'sine=440:d=1.5',
      '-filter_complex', '[0][1][2]concat=n=3[v];[3]apad=whole_dur=3[a]', '-map', '[v]', '-map', '[a]', ...H264, '-c:a', 'aac',
    ]);
    const { facts } = (await importRecording(cut, 'scenes.mp4', store)).recording;
    expect(facts.sceneChangesMs.some((ms) => Math.abs(ms - 1000) < 100)).toBe(true);
    expect(facts.black).toHaveLength(1);
    expect(facts.black[0]?.fromMs).toBeGreaterThan(1900);
    expect(Math.abs((facts.silent.at(-1)?.fromMs ?? 0) - 1500)).toBeLessThan(120);
    expect(facts.silent.at(-1)?.toMs).toBeGreaterThan(2900);
  });
});

describe('a file that is no recording to work with', () => {
  const whole = (): Promise<string> => makeRecording(folder, 'whole.mp4', [...bars('320x180', '30', 4), ...tone(4), ...H264, '-c:a', 'aac', '-movflags', '+faststart']);

  it.each([
    ['cut off before its index', async () => writeCut('no-index.mp4', await makeRecording(folder, 'late.mp4', [...bars('320x180', '30', 2), ...H264]), 0.5), /damaged or cut off/],
    ['cut off in the middle', async () => writeCut('half.mp4', await whole(), 0.4), /breaks off after|damaged or cut off/],
    ['8K', () => makeRecording(folder, 'huge.mp4', [...bars('7680x4320', '30', 0.1), ...H264]), /7680 × 4320; the most is 4096/],
    ['hours long', () => makeRecording(folder, 'long.mp4', ['-f', 'lavfi', '-i', 'color=red:s=64x64:r=1:d=14400', ...H264]), /4 hours long; the most is 30 minutes/],
    ['without a picture', () => makeRecording(folder, 'none.mp4', [...bars('320x180', '30', 0.01), '-frames:v', '0', ...H264]), /damaged|neither|no length/],
  ])('%s is refused, and nothing is left of it', async (_, make, sentence) => {
    await expect(importRecording(await make(), 'film.mp4', store)).rejects.toThrow(sentence);
    expect(execFileSync('find', [join(folder, 'data', 'incoming'), '-type', 'f']).toString()).toBe('');
  });

  it('is not what is at fault where no program can read it', async () => {
    const path = await whole();
    const { PATH } = process.env;
    process.env['PATH'] = '/nowhere';
    try {
      await expect(importRecording(path, 'whole.mp4', store)).rejects.toMatchObject({ status: 503, code: 'program-missing', message: expect.stringContaining('is not installed') as string });
    } finally {
      process.env['PATH'] = PATH;
    }
  });

  function writeCut(name: string, source: string, share: number): string {
    const bytes = readFileSync(source);
    const path = join(folder, name);
    writeFileSync(path, bytes.subarray(0, Math.floor(bytes.length * share)));
    return path;
  }
});

describe('clips among the media', () => {
  const base = '/api/brands/gullwick/media';

  it('come in, are told apart from pictures, and play from any byte', async () => {
    const clip = readFileSync(await makeRecording(folder, 'clip.mp4', [...bars('320x180', '30', 1), ...tone(1), ...H264, '-c:a', 'aac']));
    const made = await stack.wren.upload('gullwick', 'clip.mp4', clip);
    expect(made).toMatchObject({ status: 201, body: { name: 'clip.mp4', widthPx: 320, heightPx: 180, recording: { kind: 'clip', hasSound: true } } });
    const { id } = made.body as unknown as { id: string };
    const sound = readFileSync(await makeRecording(folder, 'voice.m4a', [...tone(1), '-c:a', 'aac']));
    expect(await stack.wren.upload('gullwick', 'voice.m4a', sound)).toMatchObject({ status: 201, body: { recording: { kind: 'sound' } } });
    const names = async (kind: string): Promise<readonly string[]> => ((await stack.wren.ask('GET', `${base}?kind=${kind}&limit=5`)).body as unknown as { items: { name: string }[] }).items.map(({ name }) => name);
    expect(await names('seen')).toContain('clip.mp4');
    expect(await names('seen')).not.toContain('voice.m4a');
    expect(await names('sound')).toContain('voice.m4a');
    expect(await names('sound')).not.toContain('clip.mp4');
    const recording = await stack.wren.raw('GET', `${base}/${id}/recording`, { headers: { range: 'bytes=4-7' } });
    expect([recording.status, recording.headers.get('content-range')?.split('/')[0], await recording.text()]).toEqual([206, 'bytes 4-7', 'ftyp']);
    expect((await stack.wren.raw('GET', `${base}/${id}/recording`, { headers: { range: 'bytes=99999999-' } })).status).toBe(416);
    const whole = await stack.wren.raw('GET', `${base}/${id}/recording`);
    expect([whole.status, (await whole.arrayBuffer()).byteLength]).toEqual([200, Number(recording.headers.get('content-range')?.split('/')[1])]);
  });

  it.each([
    ['a clip', 'ffmpeg', () => makeRecording(folder, 'lane.mp4', [...bars('320x180', '30', 1), ...H264])],
    ['a sound', 'ffmpeg', () => makeRecording(folder, 'lane.m4a', [...tone(1), '-c:a', 'aac'])],
    ['a photograph', null, () => Promise.resolve('demo/media/beach-hut-shop.jpg')],
  ])('%s takes a place of %s', async (_, takes, file) => {
    const parts = new UploadParts(store);
    const path = parts.pathOf('lane');
    mkdirSync(dirname(path), { recursive: true });
    copyFileSync(await file(), path);
    const { lane } = await importJob(parts, 'lane');
    expect(lanes.find(({ name }) => name === lane)?.takes).toBe(takes);
  });

  it('a program that calls itself a recording is refused by its bytes', async () => {
    const answer = await stack.wren.upload('gullwick', 'kites.mp4', Buffer.from(`MZ${'\0'.repeat(200)}`));
    expect(answer).toMatchObject({ status: 415, body: { code: 'not-a-picture', title: expect.stringMatching(/inside it is a program/) } });
  });
});

describe('what is found in a clip', () => {
  it('is where its subject goes, which a person may place anew', async () => {
    const moving = readFileSync(await makeRecording(folder, 'moving.mp4', ['-f', 'lavfi', '-i', 'color=c=0x88aacc:s=640x360:r=30:d=3', '-f', 'lavfi', '-i', 'color=c=red:s=60x60:r=30:d=3', '-filter_complex', "[0][1]overlay=x='40+t*170':y=150:shortest=1", ...H264]));
    const kept = (await stack.wren.upload('gullwick', 'moving.mp4', moving)).body as unknown as { id: string; revision: number; recording: { facts: { subject: { atMs: number; x: number }[] } } };
    const [first, last] = [kept.recording.facts.subject[0], kept.recording.facts.subject.at(-1)];
    expect((last?.x ?? 0) - (first?.x ?? 1)).toBeGreaterThan(0.4);
    const address = `/api/brands/gullwick/media/${kept.id}`;
    const placed = await stack.wren.ask('PATCH', address, { revision: kept.revision, subject: [{ atMs: 2_000, x: 0.9, y: 0.5 }, { atMs: 0, x: 0.1, y: 0.5 }] });
    expect(placed.body).toMatchObject({ recording: { subject: [{ atMs: 0, x: 0.1, y: 0.5 }, { atMs: 2_000, x: 0.9, y: 0.5 }] } });
    expect(await stack.wren.ask('PATCH', address, { revision: kept.revision + 1, subject: [{ atMs: 60_000, x: 0.5, y: 0.5 }] })).toMatchObject({ status: 422, body: { code: 'beyond-clip' } });
    const back = await stack.wren.ask('PATCH', address, { revision: kept.revision + 1, subject: null });
    expect((back.body as unknown as { recording: object }).recording).not.toHaveProperty('subject');
    const strip = await stack.wren.raw('GET', `${address}/strip`);
    expect(await sharp(Buffer.from(await strip.arrayBuffer())).metadata()).toMatchObject({ format: 'jpeg', width: 12 * 48, height: 96 });
    expect((await stack.wren.ask('GET', `${address}/wave`)).status).toBe(404);
  });

  it('is how loud it is, and the beats of music', async () => {
    const beating = readFileSync(await makeRecording(folder, 'beating.m4a', ['-f', 'lavfi', '-i', "aevalsrc='0.8*exp(-12*mod(t,0.5))*sin(2*PI*440*t)':s=44100:d=4", '-c:a', 'aac']));
    const kept = (await stack.wren.upload('gullwick', 'beating.m4a', beating)).body as unknown as { id: string; revision: number; recording: { facts: { beatsMs: number[] } } };
    expect(kept.recording.facts.beatsMs.length).toBeGreaterThanOrEqual(7);
    const { peaks } = (await stack.wren.ask('GET', `/api/brands/gullwick/media/${kept.id}/wave`)).body as unknown as { peaks: number[] };
    expect(peaks.length).toBeGreaterThanOrEqual(99);
    expect(Math.max(...peaks.slice(0, 10))).toBeGreaterThan(4 * Math.max(...peaks.slice(9, 12)));
    expect(await stack.wren.ask('PATCH', `/api/brands/gullwick/media/${kept.id}`, { revision: kept.revision, subject: [] })).toMatchObject({ status: 422, body: { code: 'no-clip' } });
  });
});

describe('damaged recordings', { tags: 'long' }, () => {
  const SEED = 20261128;
  const TRIES = 24;
  /** A good one of this length is imported in under a second; a damaged one may be tried in more than one way. */
  const WITHIN_MS = 20_000;

  it.each([
    ['clips', 'hurt.mp4', [...bars('160x90', '30', 0.6), ...tone(0.6), ...H264, '-c:a', 'aac']],
    ['sounds', 'hurt.wav', tone(0.6)],
    ['sounds of another kind', 'hurt.mp3', tone(0.6)],
  ] as const)('(%s) are imported as far as they go, or refused with a sentence, in time', async (_, name, args) => {
    const good = readFileSync(await makeRecording(folder, `good-${name}`, args));
    for (const bytes of fc.sample(hostileBytes(good), { seed: SEED, numRuns: TRIES })) {
      const path = join(folder, name);
      writeFileSync(path, bytes);
      const started = performance.now();
      try {
        const { recording } = await importRecording(path, name, store);
        expect(recording.durationMs).toBeGreaterThan(0);
        expect(recording.durationMs).toBeLessThan(60_000);
      } catch (error) {
        expect(error, String(error)).toBeInstanceOf(ProblemError);
        expect((error as ProblemError).sentence).not.toMatch(/ffmpeg|ffprobe|0x[0-9a-f]+|\/tmp/i);
      }
      expect(performance.now() - started).toBeLessThan(WITHIN_MS);
    }
  });
});
