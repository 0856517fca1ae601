import { boolean, number, object, string } from 'yup';
import type { Checked } from '../document/schema.ts';

/** How a shot takes over from the one before: at once, blending, pushing it out to the left, wiping over it from the right, or behind a band of the brand's scraps that sweeps over it. */
export type TransitionKind = 'cut' | 'fade' | 'push' | 'wipe' | 'sweep';
export const transitionKinds: readonly TransitionKind[] = ['cut', 'fade', 'push', 'wipe', 'sweep'];

/** How a photograph moves while it is shown: towards its subject, away from it, along it, or not at all. */
export type SlowMove = 'closer' | 'away' | 'left' | 'right' | 'still';
export const slowMoves: readonly SlowMove[] = ['closer', 'away', 'left', 'right', 'still'];

export const MIN_SHOT_MS = 500;
export const MAX_SHOT_MS = 120_000;
export const MIN_TRANSITION_MS = 100;
export const MAX_TRANSITION_MS = 2_000;

const milliseconds = (least: number, most: number) => number().integer().min(least).max(most);

export const shotLength = () => milliseconds(MIN_SHOT_MS, MAX_SHOT_MS);
export const clipStart = () => milliseconds(0, 24 * 3_600_000);

/** What makes a frame a shot. What is missing follows from what it shows. */
export const shotSchema = object({
  /** How long it lasts, its way in included. */
  lengthMs: shotLength(),
  /** Where its clip begins. */
  fromMs: clipStart(),
  into: object({ kind: string<TransitionKind>().oneOf([...transitionKinds]).required(), ms: milliseconds(0, MAX_TRANSITION_MS).required() }).noUnknown().optional().default(undefined),
  /** Of its clip's own sound: 0 is silent, 1 as it was recorded. */
  volume: number().min(0).max(1),
  /** It is there to be the cover, and not played. */
  onlyCover: boolean<true>().oneOf([true]),
  /** Of a photograph; missing: `closer`. */
  move: string<SlowMove>().oneOf([...slowMoves]),
}).noUnknown();

export type Shot = Checked<typeof shotSchema>;
