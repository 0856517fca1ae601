import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Shot } from '../src/core/piece/shot.ts';
import type { DemoPiece } from './pieces.ts';

/** A shot as its maker would enter it; the first one opens the video. */
export interface DemoShot {
  readonly slide?: string;
  /** A clip or photograph. */
  readonly recording?: string;
  readonly texts: Readonly<Record<string, string>>;
  readonly shot?: Shot;
}

/** A video of the demo. */
export interface DemoVideo extends Pick<DemoPiece, 'template' | 'caption' | 'own' | 'out'> {
  readonly shots: readonly [DemoShot, ...DemoShot[]];
  readonly music?: string;
  readonly musicVolume?: number;
  readonly voice?: string;
  readonly subtitles?: string;
  /** Subtitles go along as a file where a network takes one. */
  readonly subtitleFile?: true;
  /** What stands for it: a moment, a picture, or one of its shots by its place. */
  readonly cover: { readonly atMs: number } | { readonly picture: string } | { readonly shot: number };
}

/** The script of the demo's voice-over. */
const spoken = readFileSync(join('demo', 'media', 'voice-over.srt'), 'utf8');
const fade = { kind: 'fade', ms: 400 } as const;

/** Three of different construction: clips with a voice, photographs with music, and cards around a clip. */
export const gullwickVideos: readonly DemoVideo[] = [
  {
    template: 'gust',
    shots: [
      { recording: 'clip-figure-of-eight.mp4', texts: { label: 'This Saturday', headline: 'Build your own kite' }, shot: { lengthMs: 4_600 } },
      { slide: 'moment', recording: 'clip-reel-spinning.mp4', texts: { heading: 'You pick the colours', text: 'We cut, you choose.' }, shot: { lengthMs: 4_000, into: fade, volume: 0.35 } },
      { slide: 'moment', recording: 'clip-turntable.mp4', texts: { heading: 'Dry by three o’clock' }, shot: { lengthMs: 4_000, into: { kind: 'push', ms: 400 } } },
      { slide: 'moment', recording: 'clip-festival-pan.mp4', texts: { heading: 'Bring a friend', text: 'And a sandwich.' }, shot: { lengthMs: 6_000, into: fade, volume: 0.35 } },
      { slide: 'closing', texts: { headline: 'Come and catch some wind', call: 'Book an afternoon' }, shot: { lengthMs: 5_000, into: { kind: 'wipe', ms: 500 } } },
    ],
    music: 'audio-tune-loop.m4a',
    musicVolume: 0.5,
    voice: 'voice-over.m4a',
    subtitles: spoken,
    subtitleFile: true,
    cover: { atMs: 2_400 },
    caption: 'Saturday, 2 pm, the Old Net Loft: you bring the afternoon, we bring the spars. {booking} #BuildAKite',
    own: {},
    out: { kind: 'now' },
  },
  {
    template: 'knot',
    shots: [
      { texts: { label: 'Before you fly', headline: 'Three things to look at first' }, shot: { lengthMs: 3_000 } },
      { slide: 'tip', recording: 'line-reel-close-up.jpg', texts: { heading: 'The line', text: 'No frays, no old knots.' }, shot: { lengthMs: 3_600, into: { kind: 'push', ms: 400 } } },
      { slide: 'tip', recording: 'workbench-flat-lay.jpg', texts: { heading: 'The spars', text: 'Straight, and all the way in.' }, shot: { lengthMs: 3_600, into: { kind: 'push', ms: 400 } } },
      { slide: 'tip', recording: 'windsocks.jpg', texts: { heading: 'The wind', text: 'Sock half up? Go.' }, shot: { lengthMs: 3_600, into: { kind: 'push', ms: 400 } } },
      { slide: 'closing', texts: { headline: 'Then let go', call: 'All our kites' }, shot: { lengthMs: 3_200, into: { kind: 'wipe', ms: 500 } } },
    ],
    music: 'audio-tune-loop.m4a',
    musicVolume: 0.8,
    cover: { picture: 'windsocks.jpg' },
    caption: 'Two minutes before the first launch save you an hour of untangling. #GullwickKites',
    own: {},
    out: { kind: 'now' },
  },
  {
    template: 'pier',
    shots: [
      { texts: { date: 'Sat 12 Sept', headline: 'Kite day on the quay', where: 'Old Net Loft, from 2 pm' }, shot: { lengthMs: 4_800 } },
      { slide: 'act', recording: 'workbench-flat-lay.jpg', texts: { time: '2 pm', heading: 'Cut your sail', text: 'Ripstop in nine colours.' }, shot: { lengthMs: 4_200, into: { kind: 'push', ms: 400 } } },
      { slide: 'act', recording: 'clip-tail-ribbons.mp4', texts: { time: '4 pm', heading: 'First flights', text: 'If the wind is willing.' }, shot: { lengthMs: 4_200, into: { kind: 'push', ms: 400 } } },
      { slide: 'plan', texts: { heading: 'The afternoon', plan: '2 pm: Sails cut\n3 pm: Glue dries, tea\n4 pm: First flights' }, shot: { lengthMs: 5_800, into: fade } },
      { slide: 'closing', texts: { headline: 'Bring a friend and a sandwich', call: 'Keep a place' }, shot: { lengthMs: 4_200, into: { kind: 'wipe', ms: 500 } } },
    ],
    music: 'audio-tune-loop.m4a',
    musicVolume: 0.7,
    cover: { shot: 0 },
    caption: 'One afternoon, one bench, as many kites as will fit on it. {booking} #GullwickKites',
    own: {},
    out: { kind: 'now' },
  },
];
