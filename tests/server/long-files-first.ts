import { basename } from 'node:path';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files that take longest: begun last, they would leave the other worker with nothing to do. */
const LONG = ['video-export', 'corpus', 'exchange', 'programs', 'recording', 'month', 'render', 'delivery', 'faults', 'carousel'];

const rank = ({ moduleId }: TestSpecification): number => {
  const at = LONG.indexOf(basename(moduleId, '.test.ts'));
  return at < 0 ? LONG.length : at;
};

/** Begins with the longest files, on a fresh clone too, where no earlier run has measured them. */
export class LongFilesFirst extends BaseSequencer {
  override sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return Promise.resolve([...files].sort((a, b) => rank(a) - rank(b)));
  }
}
