import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { loadYoga } from 'yoga-layout/load';
import type { Engines } from '../../core/compose/compose.ts';
import { fontShelf } from '../../core/text/font-shelf.ts';
import { Typesetter } from '../../core/text/typesetter.ts';

/** Loads every shipped typeface and the layout solver; once a process or worker thread. */
export async function loadEngines(fontsFolder: string): Promise<Engines> {
  const typesetter = new Typesetter();
  for (const font of fontShelf) typesetter.add(font.key, await readFile(join(fontsFolder, font.file)));
  return { typesetter, yoga: await loadYoga() };
}
