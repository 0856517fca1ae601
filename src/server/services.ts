import type { Logger } from 'pino';
import { ChangeFeed } from './changes/change-feed.ts';
import { productClock, type Clock } from './clock.ts';
import { openDatabase, type Db } from './db/connection.ts';
import { openLog } from './log.ts';
import { MediaStore } from './media/media-store.ts';
import { ReaderPool } from './readers/reader-pool.ts';
import { RenderPool } from './render/render-pool.ts';
import { sealTokens } from './secrets/seal-tokens.ts';
import { readKeyFile, sealerOf, type Sealer } from './secrets/sealer.ts';
import { readSettings, type Settings } from './settings.ts';
import { openWordPool, type WordPool } from './words/word-pool.ts';
import { keepReserve } from './upkeep/disk-reserve.ts';

/** What the server's parts are handed: nothing below reads the environment or a clock on its own. */
export interface Services {
  readonly settings: Settings;
  readonly db: Db;
  readonly clock: Clock;
  readonly media: MediaStore;
  readonly render: RenderPool;
  readonly readers: ReaderPool;
  readonly words: WordPool;
  readonly sealer: Sealer;
  readonly changes: ChangeFeed;
  readonly log: Logger;
}

/** Opens everything for one process; `threads` is how many cuts it may paint at once. */
export async function openServices(settings: Settings, threads: number): Promise<Services> {
  const db = await openDatabase(settings.dataFolder);
  keepReserve(settings.dataFolder);
  const sealer = sealerOf(readKeyFile(settings.keyFile));
  await sealTokens(db, sealer);
  const log = openLog(settings.logLevel);
  return {
    settings,
    db,
    clock: productClock(db),
    media: new MediaStore(settings.dataFolder),
    render: new RenderPool(settings.buildFolder, threads),
    readers: new ReaderPool(settings.buildFolder, log),
    words: openWordPool(settings.buildFolder, log),
    sealer,
    changes: new ChangeFeed(db, log),
    log,
  };
}

export async function closeServices(services: Services): Promise<void> {
  services.changes.close();
  await services.render.close();
  await services.readers.close();
  await services.words.close();
  await services.db.destroy();
}

const WEB_THREADS = 2;
const holder = globalThis as { confettiServices?: Promise<Services> };

/** The web process's services, opened with the first request. Kept on globalThis so that a dev reload does not open twice. */
export function webServices(): Promise<Services> {
  holder.confettiServices ??= openServices(readSettings(process.env), WEB_THREADS).catch((error: unknown) => {
    // What cannot be opened now may be there with the next request.
    delete holder.confettiServices;
    throw error;
  });
  return holder.confettiServices;
}
