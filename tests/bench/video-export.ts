import { readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { getPlacement } from '../../src/core/network/network-sheet.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import type { Frame, SlotValue } from '../../src/core/piece/piece.ts';
import type { Shot } from '../../src/core/piece/shot.ts';
import { ALONE, filledSlide, placesOf } from '../../src/core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { slideTemplate } from '../../src/core/template/slide-template.ts';
import { COVER } from '../../src/core/template/template.ts';
import type { Recording } from '../../src/core/video/recording.ts';
import { VIDEO_FPS } from '../../src/core/video/shot-times.ts';
import { timelineOf } from '../../src/core/video/timeline.ts';
import type { VideoSource } from '../../src/server/video/video-source.ts';
import type { ClipFile } from '../../src/server/video/picture-graph.ts';
import { importRecording } from '../../src/server/recording/import-recording.ts';
import { renderVideo } from '../../src/server/video/render-video.ts';
import { runFfmpeg } from '../../src/server/ffmpeg/run-ffmpeg.ts';
import { MediaStore } from '../../src/server/media/media-store.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { runRenderJob, type CutSource } from '../../src/server/render/render-cut.ts';
import type { RenderPool } from '../../src/server/render/render-pool.ts';
import { median, timed } from './figure.ts';

const ROUNDS = 2;
const MAX_MS = 300_000;
const CLIPS = ['clip-figure-of-eight', 'clip-reel-spinning', 'clip-festival-pan', 'clip-tail-ribbons', 'clip-cloud-timelapse'] as const;
const SHOT_MS = 3_240;

/** What exporting a video costs against ffmpeg alone: decoding, cropping, scaling and encoding the same shots with the same encoder. */
export interface VideoRatios {
  /** One cut of 1080 × 1920, 15 seconds in five shots with texts, subtitles, music and transitions. */
  readonly one: number;
  /** The same against ffmpeg decoding and encoding one clip of that size and length, without cropping and scaling. */
  readonly bare: number;
  /** Four cuts of it against the sum of their floors. */
  readonly four: number;
  /** The most memory that this program and the video program held together, in megabytes. */
  readonly megabytes: number;
}

export async function videoRatios(): Promise<VideoRatios> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-bench-film-'));
  try {
    const store = new MediaStore(folder);
    const recordings = new Map<string, Recording>();
    const clips = new Map<string, ClipFile>();
    const pictures: CutSource['pictures'][number][] = [];
    for (const id of CLIPS) {
      const { recording, still, storedHash } = await importRecording(join('demo', 'media', `${id}.mp4`), id, store);
      recordings.set(id, recording);
      clips.set(id, { path: store.pathOf(storedHash), widthPx: still.widthPx, heightPx: still.heightPx });
      pictures.push({ filePath: store.pathOf(await store.keep(still.bytes)), picture: { id, widthPx: still.widthPx, heightPx: still.heightPx, facts: still.facts, focal: still.facts.focal, focalBy: 'proposal' } });
    }
    const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
    const render = { layers: async (job: Parameters<RenderPool['layers']>[0]) => runRenderJob(job, engines) } as unknown as RenderPool;
    const frames = benchShots();
    const timeline = timelineOf(frames, recordings);
    const sourceOf = ([network, placement]: readonly [string, string]): VideoSource => ({
      cut: cutOf(frames, network, placement, pictures),
      timeline,
      hasCover: true,
      track: { musicVolume: 0.5, subtitles: [{ fromMs: 400, toMs: 4_000, text: 'Come to the workshop this Saturday and build your own kite.' }, { fromMs: 4_600, toMs: 8_800, text: 'We cut the sails, you pick the colours.' }] },
      clips,
      recordings,
      musicPath: join('demo', 'media', 'audio-tune-loop.m4a'),
      voicePath: null,
    });
    const out = join(folder, 'out.mp4');
    const video = (place: readonly [string, string]): Promise<number> => timed(() => renderVideo(sourceOf(place), out, { render, media: store }, { format: 'mp4', maxBytes: Infinity, title: 'Bench', signal: new AbortController().signal, onProgress: () => undefined }));
    const floor = (place: readonly [string, string]): Promise<number> => timed(() => runFfmpeg(floorArgs(sourceOf(place), out), { mostMs: MAX_MS }));
    const memory = watchMemory();
    await video(story);
    const times = { video: [] as number[], floor: [] as number[], bare: [] as number[] };
    // The sound that all cuts share is made again: it is part of what the first one costs.
    const forget = (): Promise<void> => rm(join(folder, 'derived'), { recursive: true });
    for (let round = 0; round < ROUNDS; round += 1) {
      times.floor.push(await floor(story));
      await forget();
      times.video.push(await video(story));
      times.bare.push(await timed(() => runFfmpeg(bareArgs(clips, out), { mostMs: MAX_MS })));
    }
    const sums = { video: 0, floor: 0 };
    await forget();
    for (const place of [story, ['petalry', 'feed-portrait'], ['petalry', 'feed-square'], ['quipline', 'post-wide']] as const) {
      sums.floor += await floor(place);
      sums.video += await video(place);
    }
    return { one: median(times.video) / median(times.floor), bare: median(times.video) / median(times.bare), four: sums.video / sums.floor, megabytes: memory.mostMegabytes() };
  } finally {
    await rm(folder, { recursive: true });
  }
}

/** Looks at the resident memory of this process and its children, several times a second, by files alone: a program for it would be measured too. */
function watchMemory(): { readonly mostMegabytes: () => number } {
  let most = 0;
  const look = setInterval(() => {
    const children = readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8').split(' ').filter(Boolean);
    most = Math.max(most, ['self', ...children].reduce((sum, pid) => sum + residentKilobytes(pid), 0) / 1024);
  }, 200);
  return {
    mostMegabytes: () => {
      clearInterval(look);
      return most;
    },
  };
}

/** Nothing for a process that has ended meanwhile. */
function residentKilobytes(pid: string): number {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0);
  } catch {
    return 0;
  }
}

const story = ['petalry', 'story'] as const;
const encoder = ['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high', '-crf', '20', '-pix_fmt', 'yuv420p', '-an'];

function benchShots(): readonly [Frame, ...Frame[]] {
  const shot = (index: number, mediaId: string, texts: Readonly<Record<string, string>>, into?: Shot['into']): Frame => ({
    id: `s${index}`,
    ...(index === 0 ? {} : { slide: 'moment' }),
    shot: { lengthMs: SHOT_MS, ...(into ? { into } : {}) },
    slots: { film: { kind: 'picture', mediaId }, ...Object.fromEntries(Object.entries(texts).map(([slot, text]): [string, SlotValue] => [slot, { kind: 'text', text }])) },
  });
  const moment = (index: number, heading: string, into: Shot['into']): Frame => shot(index, CLIPS[index] ?? CLIPS[0], { heading }, into);
  return [
    shot(0, CLIPS[0], { label: 'This Saturday', headline: 'Build your own kite' }),
    moment(1, 'You pick the colours', { kind: 'fade', ms: 300 }),
    moment(2, 'Bring a friend', { kind: 'push', ms: 300 }),
    moment(3, 'Dry by three', { kind: 'wipe', ms: 300 }),
    moment(4, 'Then let go', { kind: 'fade', ms: 300 }),
  ];
}

function cutOf(frames: readonly [Frame, ...Frame[]], network: string, placementKey: string, pictures: CutSource['pictures']): CutSource {
  const template = getShippedTemplate('gust');
  const sheet = shippedSheets.find(({ key }) => key === network);
  if (!sheet) throw new RangeError(`There is no sheet '${network}'`);
  const places = placesOf(frames, template);
  const slides = frames.map((frame, index) => {
    const place = places[index] ?? ALONE;
    return { template: slideTemplate(template, frame.slide), frame: filledSlide(frame, frames[0], template, place), adjustment: linkedCut, place, family: frame.slide ?? COVER };
  });
  return { slides, book: gullwickBook, placement: getPlacement(sheet, placementKey), pictures, typefaceFiles: {} };
}

/** The shots alone: decoded, cropped, scaled, one after the other, encoded. */
function floorArgs({ cut, timeline, clips }: VideoSource, out: string): readonly string[] {
  const { width, height } = cut.placement.exportPx;
  const files = CLIPS.flatMap((id) => clips.get(id) ?? []);
  const each = timeline.lengthFrames / VIDEO_FPS / CLIPS.length;
  const chains = files.map(({ widthPx, heightPx }, index) => {
    const scale = Math.min(widthPx / width, heightPx / height);
    return `[${index}:v]crop=${Math.floor(width * scale)}:${Math.floor(height * scale)},scale=${width}:${height}:flags=bicubic,setsar=1,fps=30[v${index}]`;
  });
  return [...files.flatMap(({ path }) => ['-t', String(each), '-i', path]), '-filter_complex', `${chains.join(';')};${files.map((_, index) => `[v${index}]`).join('')}concat=n=${files.length}:v=1:a=0[v]`, '-map', '[v]', ...encoder, out];
}

/** One clip of the size, over and over, decoded and encoded. */
function bareArgs(clips: ReadonlyMap<string, ClipFile>, out: string): readonly string[] {
  return ['-stream_loop', '-1', '-t', '15', '-i', clips.get('clip-tail-ribbons')?.path ?? '', ...encoder, out];
}
