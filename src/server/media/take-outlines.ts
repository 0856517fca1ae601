import { keepOutline, listOutlinesDue } from '../db/outline-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';
import { readSubjectFacts, type SubjectFacts } from './picture-facts-of-file.ts';

const KIND = 'outlines';
/** Pictures between which other upkeep gets its turn. */
const BATCH = 10;
const PAUSE_MS = 1_000;

export const outlinesJob: NewJob = { key: KIND, kind: KIND, lane: 'upkeep', payload: {}, maxAttempts: 8 };

/** Looks for the subjects of pictures that came in before anybody did. A picture whose file cannot be read has none. */
export function outlinesHandler({ db, clock, media, log }: Pick<Services, 'db' | 'clock' | 'media' | 'log'>): JobHandler {
  return {
    async run() {
      const due = await listOutlinesDue(db, BATCH);
      for (const picture of due) {
        const found = await readSubjectFacts(media.pathOf(picture.storedHash), picture.facts.focal).catch((error: unknown): SubjectFacts => {
          log.warn({ err: error, media: picture.id }, 'no subject was looked for: the file cannot be read');
          return { outline: null, things: [] };
        });
        await keepOutline(db, picture, found, clock.machineNowMs());
      }
      return due.length < BATCH ? { kind: 'done' } : { kind: 'again', afterMs: PAUSE_MS };
    },
  };
}
