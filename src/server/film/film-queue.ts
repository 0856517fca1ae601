import { pieceName } from '../../core/piece/piece.ts';
import { getChannel } from '../db/brand-repository.ts';
import { claimFilmExport, moveFilmExport, noteFilmMeasures, noteFilmShare, restartFilmExports, snapshotOfFilmExport, type FilmExport } from '../db/film-export-repository.ts';
import type { Services } from '../services.ts';
import { cutFilm, type MadeFilm } from './cut-film.ts';
import { coverFile } from './film-cover.ts';
import { filmProblem } from './film-problem.ts';
import { filmSourceOf } from './film-source.ts';
import type { FilmFormat, FilmOptions } from './render-film.ts';

type QueueServices = Pick<Services, 'db' | 'clock' | 'media' | 'render' | 'log'>;

/** Progress is written down this often, in milliseconds. */
const NOTE_EVERY_MS = 500;

/** Makes cuts of videos into files, one after the other: two at once would take as long, and twice the memory. */
export class FilmQueue {
  #working = false;
  #current: { readonly id: string; readonly abort: AbortController } | null = null;
  #isClosed = false;

  constructor(readonly services: QueueServices) {}

  /** Goes on with what waits, and with what was being made when the process ended. */
  async resume(): Promise<void> {
    await restartFilmExports(this.services.db);
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
    const stopped = await moveFilmExport(this.services.db, id, 'stop');
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

  #next(): Promise<FilmExport | null> {
    return this.#isClosed ? Promise.resolve(null) : claimFilmExport(this.services.db, this.services.clock.machineNowMs());
  }

  async #make(made: FilmExport): Promise<void> {
    const abort = new AbortController();
    this.#current = { id: made.id, abort };
    try {
      const { measures } = await filmOfExport(this.services, made, { signal: abort.signal, onProgress: this.#noter(made.id) });
      if (measures) await noteFilmMeasures(this.services.db, made.id, measures);
      await moveFilmExport(this.services.db, made.id, 'finish');
    } catch (error) {
      // Closing leaves it where it is: the next start makes it again. A person's stop is in the database already.
      if (abort.signal.aborted) return;
      this.services.log.error({ error, film: made.id }, 'a video could not be made');
      await moveFilmExport(this.services.db, made.id, 'fail', filmProblem(error));
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
      noteFilmShare(this.services.db, id, share).catch((error: unknown) => this.services.log.warn({ error }, 'progress was not noted'));
    };
  }
}

/** The file of an export, made where it is not there. */
export async function filmOfExport(services: QueueServices, made: FilmExport, { signal, onProgress }: Pick<FilmOptions, 'signal' | 'onProgress'>): Promise<MadeFilm> {
  const snapshot = await snapshotOfFilmExport(services.db, made.id);
  const { network } = await getChannel(services.db, made.channelId);
  const maxBytes = snapshot.sheets.find(({ key }) => key === network)?.files.maxVideoBytes ?? Infinity;
  const source = filmSourceOf(snapshot, network, made, services.media);
  const film = (format: FilmFormat): Promise<MadeFilm> => cutFilm(services, source, { format, maxBytes, title: pieceName(snapshot.piece), signal, onProgress });
  return made.format === 'jpg' ? coverFile(services, snapshot, network, made, source, async () => (await film('mp4')).path) : film(made.format);
}
