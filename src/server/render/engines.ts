import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { loadYoga } from 'yoga-layout/load';
import type { Artwork } from '../../core/artwork/artwork.ts';
import type { Engines } from '../../core/compose/set-cut.ts';
import type { NeededGlyphs } from '../../core/compose/needed-glyphs.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';
import { loadHyphenation } from '../../core/text/hyphenation.ts';
import { Typesetter } from '../../core/text/typesetter.ts';
import type { Settings } from '../settings.ts';

/** The engines of one process or worker thread, and where their glyphs are loaded from as texts need them. */
export class ServerEngines {
  constructor(
    readonly engines: Engines,
    readonly settings: Pick<Settings, 'fontsFolder' | 'emojiFolder'>,
  ) {}

  /** Loads what is needed and not there yet. `ownFiles`: files of the brand's own typefaces, by key. */
  async load(needed: NeededGlyphs, ownFiles: Readonly<Record<string, string>>): Promise<void> {
    const { typesetter } = this.engines;
    for (const key of needed.fontKeys) {
      if (typesetter.has(key)) continue;
      typesetter.add(key, await readFile(ownFiles[key] ?? join(this.settings.fontsFolder, getShelfFont(key).file)));
    }
    if (needed.hyphenation && !typesetter.canHyphenate(needed.hyphenation)) typesetter.addHyphenation(needed.hyphenation, await loadHyphenation(needed.hyphenation));
    for (const code of needed.emoji) {
      if (typesetter.hasEmoji(code)) continue;
      const art = await readEmoji(this.settings, code);
      if (art) typesetter.addEmoji(code, art);
    }
  }
}

/** The picture of an emoji as JSON text's value; null when there is none of this code. */
async function readEmoji({ emojiFolder }: Pick<Settings, 'emojiFolder'>, code: string): Promise<Artwork | null> {
  try {
    return JSON.parse(await readFile(join(emojiFolder, `${code}.json`), 'utf8')) as Artwork;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}

export async function startEngines(settings: Pick<Settings, 'fontsFolder' | 'emojiFolder'>): Promise<ServerEngines> {
  return new ServerEngines({ typesetter: new Typesetter(), yoga: await loadYoga() }, settings);
}
