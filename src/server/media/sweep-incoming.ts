import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** Parts of uploads are dropped with their rows; what else lies there was left by a process that broke off. */
const isPart = (name: string): boolean => name.startsWith('part-');

/** Removes files in the making that nobody has touched since a moment; answers how many. */
export async function sweepIncoming(dataFolder: string, beforeMs: number): Promise<number> {
  const folder = join(dataFolder, 'incoming');
  const names = await readdir(folder).catch(() => []);
  let swept = 0;
  for (const name of names.filter((each) => !isPart(each))) {
    const path = join(folder, name);
    const isOld = await stat(path).then(({ mtimeMs }) => mtimeMs < beforeMs, () => false);
    if (!isOld) continue;
    await rm(path, { recursive: true, force: true });
    swept += 1;
  }
  return swept;
}
