import type { JobHandler } from '../jobs/job-handler.ts';
import { pictureDerivative, smallCopyPath } from '../media/derivatives.ts';
import type { Services } from '../services.ts';
import type { DerivedFile } from './derived-file.ts';

const KIND = 'small-copy';

/** A stored picture as WebP that fits into a square of `fitPx`. */
export function smallCopy({ media }: Pick<Services, 'media'>, storedHash: string, fitPx: number): DerivedFile {
  return { path: smallCopyPath(media, storedHash, fitPx), job: { key: `${KIND}:${storedHash}:${fitPx}`, kind: KIND, lane: 'picture', payload: { storedHash, fitPx }, maxAttempts: 3, priority: 1 } };
}

export function smallCopyHandler({ media }: Pick<Services, 'media'>): JobHandler {
  return {
    async run({ payload }) {
      await pictureDerivative(media, payload['storedHash'] as string, payload['fitPx'] as number);
      return { kind: 'done' };
    },
  };
}
