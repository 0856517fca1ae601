import Database from 'better-sqlite3';
import { cp, mkdir, readdir, rename, stat, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';

/** What is there for good; copies, files in the making and locks are made anew. */
const KEPT_FOLDERS = ['media'] as const;
const NOTE = 'backup.json';
const DATABASE = 'confetti.db';

export interface BackupNote {
  readonly version: 1;
  /** Milliseconds since 1970. */
  readonly takenMs: number;
  readonly files: number;
}

/** What is wrong with a folder that is to be restored. */
export class BackupError extends Error {
  override readonly name = 'BackupError';
}

/**
 * Copies a data folder while Confetti runs. The database comes first and as of one moment; files are named by what is in them and never
 * change, so that all which it names are there when they are copied after it. The key stays where it is: beside the database it would seal nothing.
 * @throws BackupError when the folder to copy into is not empty, or there is nothing to copy
 */
export async function backUp(dataFolder: string, into: string, nowMs: number): Promise<BackupNote> {
  if (!existsSync(join(dataFolder, DATABASE))) throw new BackupError(`There is no Confetti in ${dataFolder}.`);
  await mkdir(into, { recursive: true, mode: 0o700 });
  if ((await readdir(into)).length > 0) throw new BackupError(`${into} is not empty. Name a folder that is not there yet.`);
  const db = new Database(join(dataFolder, DATABASE), { readonly: true });
  try {
    await db.backup(join(into, DATABASE));
  } finally {
    db.close();
  }
  let files = 0;
  for (const folder of KEPT_FOLDERS) {
    if (!existsSync(join(dataFolder, folder))) continue;
    await cp(join(dataFolder, folder), join(into, folder), { recursive: true, preserveTimestamps: true });
    files += await countFiles(join(into, folder));
  }
  const note: BackupNote = { version: 1, takenMs: nowMs, files };
  // Written last: a backup that broke off is seen by its absence.
  await writeFile(join(into, NOTE), JSON.stringify(note), { mode: 0o600 });
  return note;
}

/**
 * Puts a backup where no Confetti is. The database is checked first.
 * @throws BackupError when the backup is not whole, or something is in the way
 */
export async function restore(from: string, dataFolder: string): Promise<void> {
  if (!existsSync(join(from, NOTE))) throw new BackupError(`${from} holds no whole backup: ${NOTE} is missing.`);
  if (existsSync(join(dataFolder, DATABASE))) throw new BackupError(`${dataFolder} holds a Confetti already. Move it away first, or name another folder with CONFETTI_DATA.`);
  const db = new Database(join(from, DATABASE), { readonly: true });
  try {
    const said = db.pragma('integrity_check', { simple: true });
    if (said !== 'ok') throw new BackupError(`The database in ${from} is damaged: ${String(said)}.`);
  } finally {
    db.close();
  }
  await mkdir(dataFolder, { recursive: true, mode: 0o700 });
  for (const folder of KEPT_FOLDERS) if (existsSync(join(from, folder))) await cp(join(from, folder), join(dataFolder, folder), { recursive: true, preserveTimestamps: true });
  // The database comes last and at once: with half of the files there is no Confetti yet.
  await cp(join(from, DATABASE), join(dataFolder, `${DATABASE}.restoring`));
  await rename(join(dataFolder, `${DATABASE}.restoring`), join(dataFolder, DATABASE));
}

async function countFiles(folder: string): Promise<number> {
  const entries = await readdir(folder, { recursive: true });
  const kinds = await Promise.all(entries.map((entry) => stat(join(folder, entry))));
  return kinds.filter((each) => each.isFile()).length;
}
