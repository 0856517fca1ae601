import { join } from 'node:path';
import pLimit, { type LimitFunction } from 'p-limit';
import { Piscina } from 'piscina';
import type { CutReport } from '../../core/compose/report.ts';
import { TooHeavyError } from './errors.ts';
import type { PaintedLayers, RenderedPicture, RenderJob, RenderResult } from './render-cut.ts';

/** At most this many renders wait; further calls are refused and may retry. */
const MAX_QUEUE = 200;
const MEMORY_LIMIT_MB = 1024;
const IDLE_MS = 60_000;

/** Renders in worker threads, so that requests are answered while pictures are painted. */
export class RenderPool {
  #pool: Piscina | null = null;
  /** Work that somebody can wait for leaves a thread to those who look at a page. */
  readonly #patient: LimitFunction;

  constructor(
    readonly buildFolder: string,
    readonly threads: number,
  ) {
    this.#patient = pLimit(Math.max(1, threads - 1));
  }

  /** Runs work that others may overtake: archives of many cuts. */
  afterOthers<Result>(work: () => Promise<Result>): Promise<Result> {
    return this.#patient(work);
  }

  /** Every slide's picture, or the one document they make. @throws TooHeavyError when even the lowest quality is over the limit */
  async pictures(job: Extract<RenderJob, { kind: 'full' | 'small' | 'as' }>): Promise<readonly RenderedPicture[]> {
    const result = await this.#run(job);
    if (result.kind !== 'pictures') throw new TypeError('A render job was answered with another kind of result');
    return result.pictures;
  }

  /** The first picture of a job: a graphic's only one, or a carousel's cover. */
  async picture(job: Extract<RenderJob, { kind: 'full' | 'small' | 'as' }>): Promise<RenderedPicture> {
    const [first] = await this.pictures(job);
    if (!first) throw new RangeError('A cut without slides has no picture');
    return first;
  }

  async reports(job: Extract<RenderJob, { kind: 'report' }>): Promise<readonly (readonly CutReport[])[]> {
    const result = await this.#run(job);
    if (result.kind !== 'reports') throw new TypeError('A report job was answered with another kind of result');
    return result.reports;
  }

  async layers(job: Extract<RenderJob, { kind: 'layers' }>): Promise<PaintedLayers> {
    const result = await this.#run(job);
    if (result.kind !== 'layers') throw new TypeError('A job for layers was answered with another kind of result');
    return result;
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
    this.#pool = null;
  }

  /** @throws TooHeavyError when even the lowest quality is over the limit */
  async #run(job: RenderJob): Promise<Exclude<RenderResult, { kind: 'too-heavy' }>> {
    // Threads start with the first job: typefaces and engines take a moment that start-up need not wait for.
    this.#pool ??= new Piscina({
      filename: join(this.buildFolder, 'render-worker.mjs'),
      minThreads: 0,
      maxThreads: this.threads,
      maxQueue: MAX_QUEUE,
      idleTimeout: IDLE_MS,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB },
    });
    const result = (await this.#pool.run(job)) as RenderResult;
    if (result.kind === 'too-heavy') throw new TooHeavyError(result.maxBytes);
    return result;
  }
}
