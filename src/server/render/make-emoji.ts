import { existsSync, readFileSync } from 'node:fs';
import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { readSvg } from '../../core/artwork/read-svg.ts';
import { readSettings } from '../settings.ts';

/**
 * Writes the picture of every emoji as flat outlines, one small file each, so that browser and server paint the same. Runs
 * once, with the build.
 */
async function makeEmoji(folder: string): Promise<void> {
  if (existsSync(folder)) return;
  const require = createRequire(import.meta.url);
  const icons = JSON.parse(readFileSync(require.resolve('@iconify-json/fluent-emoji-flat/icons.json'), 'utf8')) as { icons: Record<string, { body: string }>; width: number; height: number };
  const names = JSON.parse(readFileSync(require.resolve('@iconify-json/fluent-emoji-flat/chars.json'), 'utf8')) as Record<string, string>;
  const unfinished = `${folder}.part`;
  await rm(unfinished, { recursive: true, force: true });
  await mkdir(unfinished, { recursive: true });
  for (const [code, name] of Object.entries(names)) {
    const body = icons.icons[name]?.body;
    const read = body === undefined ? null : readSvg(`<svg viewBox="0 0 ${icons.width} ${icons.height}">${body}</svg>`);
    if (read?.kind === 'artwork') await writeFile(join(unfinished, `${code}.json`), JSON.stringify(read.artwork));
  }
  await rename(unfinished, folder);
}

await makeEmoji(readSettings(process.env).emojiFolder);
