import pino, { type Logger } from 'pino';
import { productClock, type Clock } from './clock.ts';
import { openDatabase, type Db } from './db/connection.ts';
import { VideoQueue } from './video/video-queue.ts';
import { MediaStore } from './media/media-store.ts';
import { RenderPool } from './render/render-pool.ts';
import { readSettings, type Settings } from './settings.ts';

/** What the server's parts are handed: nothing below reads the environment or a clock on its own. */
export interface Services {
  readonly settings: Settings;
  readonly db: Db;
  readonly clock: Clock;
  readonly media: MediaStore;
  readonly render: RenderPool;
  readonly recordings: VideoQueue;
  readonly log: Logger;
}

/** Opens everything for one process; `threads` is how many cuts it may paint at once. */
export async function openServices(settings: Settings, threads: number): Promise<Services> {
  const db = await openDatabase(settings.dataFolder);
  const parts = {
    settings,
    db,
    clock: productClock(db),
    media: new MediaStore(settings.dataFolder),
    render: new RenderPool(settings.buildFolder, threads),
    log: pino({ level: process.env['CONFETTI_LOG'] ?? 'info', redact: ['token', 'password', '*.token', '*.password'] }),
  };
  return { ...parts, recordings: new VideoQueue(parts) };
}

export async function closeServices(services: Services): Promise<void> {
  services.recordings.close();
  await services.render.close();
  await services.db.destroy();
}

const WEB_THREADS = 2;
const holder = globalThis as { confettiServices?: Promise<Services> };

/** The web process's services, opened with the first request. Kept on globalThis so that a dev reload does not open twice. */
export function webServices(): Promise<Services> {
  holder.confettiServices ??= openServices(readSettings(process.env), WEB_THREADS).then(async (services) => {
    await services.recordings.resume();
    return services;
  });
  return holder.confettiServices;
}
