import { closeSync, existsSync, openSync, rmSync, statfsSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** Room that is kept for what is small and matters most, when the disk fills up. */
const RESERVE_BYTES = 4 * 1024 * 1024;
const NAME = 'reserve';
/** Room below which no file of any size is taken in, and its largest share of a small disk. */
const ROOM_BYTES = 64 * 1024 * 1024;
const ROOM_SHARE = 0.1;

/** Bytes that can still be written below a folder, and those that are kept free of files. */
export interface DiskRoom {
  readonly freeBytes: number;
  readonly keptBytes: number;
}

export function diskRoom(dataFolder: string): DiskRoom {
  const { bavail, blocks, bsize } = statfsSync(dataFolder);
  return { freeBytes: bavail * bsize, keptBytes: Math.min(ROOM_BYTES, blocks * bsize * ROOM_SHARE) };
}

export function isDiskFull(dataFolder: string): boolean {
  const { freeBytes, keptBytes } = diskRoom(dataFolder);
  return freeBytes < keptBytes;
}

/** Sets the reserve aside, where there is room for it. A file of zeros would take no room on some file systems. */
export function keepReserve(dataFolder: string): void {
  const path = join(dataFolder, NAME);
  if (existsSync(path) || diskRoom(dataFolder).freeBytes < RESERVE_BYTES * 4) return;
  const file = openSync(path, 'w', 0o600);
  try {
    writeSync(file, Buffer.alloc(RESERVE_BYTES, 0x5a));
  } finally {
    closeSync(file);
  }
}

/** Gives the reserve up; false where there is none any more. */
export function releaseReserve(databaseFile: string): boolean {
  const path = join(dirname(databaseFile), NAME);
  if (!existsSync(path)) return false;
  rmSync(path, { force: true });
  return true;
}
