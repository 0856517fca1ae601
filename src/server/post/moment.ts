import type { BodyOf } from '../../contract/contract.ts';
import type { schedulePiece } from '../../contract/send-contracts.ts';
import { formatMoment, resolveWallTime, wallTimeOf } from '../../core/time/wall-time.ts';
import { ProblemError } from '../errors.ts';

export type When = BodyOf<typeof schedulePiece>['when'];

/** A moment as a person has chosen it, and as an instant. */
export interface Moment {
  readonly dueMs: number;
  readonly wall: string;
}

/**
 * The instant of a chosen wall time in a zone.
 * @throws ProblemError 422 when it is past, does not exist, or exists twice and nobody has said which is meant
 */
export function resolveMoment(when: When, zone: string, nowMs: number): Moment {
  if (when.kind === 'now' || when.wall === undefined) return { dueMs: nowMs, wall: wallTimeOf(nowMs, zone) };
  const dueMs = instantOf(when.wall, when.repeated, zone);
  if (dueMs <= nowMs) {
    throw new ProblemError(422, 'past-moment', `${formatMoment(dueMs, zone)} has passed: it is now ${formatMoment(nowMs, zone)}. Choose a later moment.`);
  }
  return { dueMs, wall: when.wall };
}

function instantOf(wall: string, repeated: When['repeated'], zone: string): number {
  const resolution = readWallTime(wall, zone);
  switch (resolution.kind) {
    case 'exact':
      return resolution.atMs;
    case 'skipped':
      throw new ProblemError(422, 'skipped-time', `On that day clocks in this zone jump over ${wall.slice(11)}. The next moment is ${formatMoment(resolution.resumesAtMs, zone)}.`, { resumesAtMs: resolution.resumesAtMs });
    case 'repeated':
      if (repeated === undefined) {
        throw new ProblemError(422, 'repeated-time', `On that day clocks in this zone show ${wall.slice(11)} twice. Say which one is meant.`, { earlierMs: resolution.earlierMs, laterMs: resolution.laterMs });
      }
      return repeated === 'earlier' ? resolution.earlierMs : resolution.laterMs;
  }
}

function readWallTime(wall: string, zone: string) {
  try {
    return resolveWallTime(wall, zone);
  } catch (error) {
    if (error instanceof RangeError) throw new ProblemError(422, 'no-such-time', 'There is no such date and time. Choose one from the calendar.');
    throw error;
  }
}
