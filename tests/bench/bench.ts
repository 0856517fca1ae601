import { documentMegabytes } from './carousel-document.ts';
import { percentile, printFigure } from './figure.ts';
import { keystrokeTimes, type TypedIn } from './keystroke.ts';
import { measureIdeas } from './ideas.ts';
import { measureLearn } from './learn.ts';
import { measureScale } from './scale/scale.ts';
import { laneFrames } from './lanes.ts';
import { forecastTimes, laneTimes } from './plan.ts';
import { serverCutRatio } from './server-cut.ts';
import { serverSetRatio } from './server-set.ts';
import { videoRatios } from './video-export.ts';
import { sendingTimes } from './send.ts';
import { previewTimes } from './video-preview.ts';
import { deskTimes, proposalTimes, sheetTimes } from './words.ts';

async function measureCuts(): Promise<void> {
  printFigure('server-cut-against-decode-resize-encode', await serverCutRatio(), 1.15);
  for (const format of ['png', 'jpeg'] as const) printFigure(`twelve-cuts-of-24-megapixels-as-${format}`, await serverSetRatio(format), 1.15);
  printFigure('document-of-ten-slides-in-megabytes', await documentMegabytes(), 8);
}

async function measureVideos(): Promise<void> {
  const ratios = await videoRatios();
  printFigure('video-of-five-shots-against-ffmpeg-alone', ratios.one, 1.35);
  process.stdout.write(`the same against a bare transcode: ${ratios.bare.toFixed(2)}\n`);
  printFigure('four-cuts-of-a-video-against-the-sum-of-their-floors', ratios.four, 1.2);
  printFigure('memory-of-exporting-videos-in-megabytes', ratios.megabytes, 1024);
}

async function measurePreview(): Promise<void> {
  const preview = await previewTimes();
  printFigure('video-plays-after-milliseconds-p95', percentile(preview.starts, 0.95), 500);
  printFigure('scrub-to-a-painted-frame-in-milliseconds-p95', percentile(preview.scrubs, 0.95), 80);
}

const typing: readonly (readonly [string, TypedIn, number])[] = [
  ['keystroke-to-twelve-cuts-p95-against-ready-bitmaps', { piece: 'Build your own kite', cuts: 12, slides: 1, field: 'Headline', slide: null }, 2],
  ['keystroke-on-one-of-ten-slides-in-five-cuts-p95-against-ready-bitmaps', { piece: 'Five winds', cuts: 5, slides: 10, field: 'Text', slide: /^3 / }, 2],
];

async function measureTyping(): Promise<void> {
  for (const [name, typedIn, target] of typing) {
    const { keystrokes, floor } = await keystrokeTimes(typedIn);
    const words = (times: readonly number[]): string => `median ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms`;
    process.stdout.write(`${keystrokes.length} keystrokes: ${words(keystrokes)}; floor: ${words(floor)}\n`);
    printFigure(name, percentile(keystrokes, 0.95) / percentile(floor, 0.95), target);
  }
}

async function measureWords(): Promise<void> {
  const sheet = await sheetTimes();
  process.stdout.write(`a wording sheet of ${sheet.channels} channels and ${sheet.fields} fields, ${sheet.keystrokes.length} keystrokes: median ${percentile(sheet.keystrokes, 0.5).toFixed(1)} ms\n`);
  printFigure('keystroke-in-the-wording-sheet-in-milliseconds-p95', percentile(sheet.keystrokes, 0.95), 16);
  printFigure('opening-the-wording-sheet-in-milliseconds-p95', percentile(sheet.openings, 0.95), 400);
  printFigure('hashtags-out-of-5000-pieces-in-milliseconds-p95', percentile(await proposalTimes(), 0.95), 50);
  printFigure('five-versions-of-the-desk-in-milliseconds-p95', percentile(await deskTimes(), 0.95), 500);
}

async function measurePlan(): Promise<void> {
  printFigure('forecast-of-a-year-on-60-channels-in-milliseconds-p95', percentile(forecastTimes(), 0.95), 1_000);
  const [small, large] = [percentile(await laneTimes(10_000), 0.95), percentile(await laneTimes(100_000), 0.95)];
  printFigure('lanes-of-four-weeks-with-10000-posts-in-milliseconds-p95', small, 300);
  printFigure('lanes-of-four-weeks-with-100000-posts-against-10000', large / small, 1.5);
}

async function measureLanes(): Promise<void> {
  const { frames, floor, drops } = await laneFrames();
  const slow = frames.filter((ms) => ms > LONG_FRAME_MS).length;
  process.stdout.write(`${frames.length} frames of scrolling lanes: median ${percentile(frames, 0.5).toFixed(1)} ms, p95 ${percentile(frames, 0.95).toFixed(1)} ms, ${slow} over ${LONG_FRAME_MS} ms; a bare table p95 ${percentile(floor, 0.95).toFixed(1)} ms; ${drops.length} drops: median ${percentile(drops, 0.5).toFixed(1)} ms\n`);
  printFigure('frame-while-scrolling-lanes-p95-against-a-bare-table', percentile(frames, 0.95) / percentile(floor, 0.95), 2);
  printFigure('drop-in-the-lanes-to-its-new-place-in-milliseconds-p95', percentile(drops, 0.95), LONG_FRAME_MS);
}

async function measureSend(): Promise<void> {
  const { deliveries, dispatcher, requests } = await sendingTimes();
  process.stdout.write(`${deliveries} deliveries: ${(deliveries / dispatcher).toFixed(1)} a second; the networks alone take ${(deliveries / requests).toFixed(1)}\n`);
  printFigure('sending-against-its-requests-alone', dispatcher / requests, 2);
}

/** A frame that is longer is seen as a jerk. */
const LONG_FRAME_MS = 50;

const parts = { cuts: measureCuts, videos: measureVideos, preview: measurePreview, typing: measureTyping, words: measureWords, plan: measurePlan, lanes: measureLanes, send: measureSend, learn: measureLearn, ideas: measureIdeas, scale: measureScale } as const;
type Part = keyof typeof parts;
/** Without a name everything is measured but what needs a brand of its own size. */
const usual: readonly Part[] = ['cuts', 'videos', 'preview', 'typing', 'words', 'plan'];

const isPart = (name: string): name is Part => Object.hasOwn(parts, name);
const asked = process.argv.slice(2);
const unknown = asked.find((name) => !isPart(name));
if (unknown !== undefined) throw new Error(`There is no part '${unknown}'. There are: ${Object.keys(parts).join(', ')}.`);
for (const name of asked.length === 0 ? usual : asked.filter(isPart)) await parts[name]();
