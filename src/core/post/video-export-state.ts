/**
 * The life of one cut of a video on its way to being a file.
 *
 * - `waiting`: in the queue; a restart brings what was being made back here.
 * - `making`: being painted and encoded.
 * - `made`: the file is there. Final.
 * - `failed`: it could not be made, and says why. Final: it is asked for anew.
 * - `stopped`: a person has stopped it. Final.
 */
export const videoExportStates = ['waiting', 'making', 'made', 'failed', 'stopped'] as const;
export type VideoExportState = (typeof videoExportStates)[number];

export type VideoExportEvent = 'begin' | 'finish' | 'fail' | 'stop' | 'restart';

/** Which states an event is allowed in, and where it leads. */
export const videoExportEvents: Readonly<Record<VideoExportEvent, { readonly from: readonly VideoExportState[]; readonly to: VideoExportState }>> = {
  begin: { from: ['waiting'], to: 'making' },
  finish: { from: ['making'], to: 'made' },
  fail: { from: ['making'], to: 'failed' },
  stop: { from: ['waiting', 'making'], to: 'stopped' },
  restart: { from: ['making'], to: 'waiting' },
};
