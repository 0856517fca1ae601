import { createHash } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { nanoid } from 'nanoid';

/** Files by the hash of their content, below the data folder. Derivatives are a cache that may be deleted. */
export class MediaStore {
  constructor(readonly dataFolder: string) {}

  /** Where the file of a hash lies. Spread over 256 folders. */
  pathOf(hash: string): string {
    return join(this.dataFolder, 'media', hash.slice(0, 2), hash);
  }

  /** Where a derivative lies; `name` says which, e.g. `640.webp`. */
  derivedPathOf(hash: string, name: string): string {
    return join(this.dataFolder, 'derived', hash.slice(0, 2), `${hash}-${name}`);
  }

  /** A name for a file in the making; the folder exists. */
  async temporaryPath(): Promise<string> {
    const folder = join(this.dataFolder, 'incoming');
    await mkdir(folder, { recursive: true });
    return join(folder, nanoid());
  }

  /** Keeps bytes under their hash, whole or not at all, and answers the hash. */
  async keep(bytes: Uint8Array): Promise<string> {
    const hash = createHash('sha256').update(bytes).digest('hex');
    await writeWhole(this.pathOf(hash), bytes, await this.temporaryPath());
    return hash;
  }

  async keepDerived(hash: string, name: string, bytes: Uint8Array): Promise<string> {
    const path = this.derivedPathOf(hash, name);
    await writeWhole(path, bytes, await this.temporaryPath());
    return path;
  }
}

async function writeWhole(path: string, bytes: Uint8Array, temporaryPath: string): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  await writeFile(temporaryPath, bytes);
  await rename(temporaryPath, path);
}
