import { pieceName } from '../../core/piece/piece.ts';
import { getChannel } from '../db/brand-repository.ts';
import { claimVideoExport, moveVideoExport, noteVideoMeasures, noteVideoShare, restartVideoExports, snapshotOfVideoExport, type VideoExport } from '../db/video-export-repository.ts';
import type { Services } from '../services.ts';
import { makeVideoFile, type VideoFile } from './video-file.ts';
import { coverFile } from './video-cover.ts';
import { videoProblem } from './video-problem.ts';
import { videoSourceOf } from './video-source.ts';
import type { VideoFormat, VideoOptions } from './render-video.ts';

type QueueServices = Pick<Services, 'db' | 'clock' | 'media' | 'render' | 'log'>;

/** Progress is written down this often, in milliseconds. */
const NOTE_EVERY_MS = 500;

/** Makes cuts of videos into files, one after the other: two at once would take as long, and twice the memory. */
export class VideoQueue {
  #working = false;
  #current: { readonly id: string; readonly abort: AbortController } | null = null;
  #isClosed = false;

  constructor(readonly services: QueueServices) {}

  /** Goes on with what waits, and with what was being made when the process ended. */
  async resume(): Promise<void> {
    await restartVideoExports(this.services.db);
    this.wake();
  }

  /** Begins to work, where something waits and nothing is being made. */
  wake(): void {
    if (this.#working || this.#isClosed) return;
    this.#working = true;
    this.#work()
      .catch((error: unknown) => this.services.log.error({ error }, 'the queue of videos stopped'))
      .finally(() => (this.#working = false));
  }

  /** Stops an export, whether it waits or is being made; false when there is nothing to stop. */
  async stop(id: string): Promise<boolean> {
    const stopped = await moveVideoExport(this.services.db, id, 'stop');
    if (this.#current?.id === id) this.#current.abort.abort();
    return stopped;
  }

  close(): void {
    this.#isClosed = true;
    this.#current?.abort.abort();
  }

  async #work(): Promise<void> {
    for (let next = await this.#next(); next; next = await this.#next()) await this.#make(next);
  }

  #next(): Promise<VideoExport | null> {
    return this.#isClosed ? Promise.resolve(null) : claimVideoExport(this.services.db, this.services.clock.machineNowMs());
  }

  async #make(made: VideoExport): Promise<void> {
    const abort = new AbortController();
    this.#current = { id: made.id, abort };
    try {
      const { measures } = await videoFileOfExport(this.services, made, { signal: abort.signal, onProgress: this.#noter(made.id) });
      if (measures) await noteVideoMeasures(this.services.db, made.id, measures);
      await moveVideoExport(this.services.db, made.id, 'finish');
    } catch (error) {
      // Closing leaves it where it is: the next start makes it again. A person's stop is in the database already.
      if (abort.signal.aborted) return;
      this.services.log.error({ error, video: made.id }, 'a video could not be made');
      await moveVideoExport(this.services.db, made.id, 'fail', videoProblem(error));
    } finally {
      this.#current = null;
    }
  }

  #noter(id: string): (share: number) => void {
    let lastMs = 0;
    return (share) => {
      const nowMs = this.services.clock.machineNowMs();
      if (nowMs - lastMs < NOTE_EVERY_MS) return;
      lastMs = nowMs;
      noteVideoShare(this.services.db, id, share).catch((error: unknown) => this.services.log.warn({ error }, 'progress was not noted'));
    };
  }
}

/** The file of an export, made where it is not there. */
export async function videoFileOfExport(services: QueueServices, made: VideoExport, { signal, onProgress }: Pick<VideoOptions, 'signal' | 'onProgress'>): Promise<VideoFile> {
  const snapshot = await snapshotOfVideoExport(services.db, made.id);
  const { network } = await getChannel(services.db, made.channelId);
  const maxBytes = snapshot.sheets.find(({ key }) => key === network)?.files.maxVideoBytes ?? Infinity;
  const source = videoSourceOf(snapshot, network, made, services.media);
  const video = (format: VideoFormat): Promise<VideoFile> => makeVideoFile(services, source, { format, maxBytes, title: pieceName(snapshot.piece), signal, onProgress });
  return made.format === 'jpg' ? coverFile(services, snapshot, network, made, source, async () => (await video('mp4')).path) : video(made.format);
}
