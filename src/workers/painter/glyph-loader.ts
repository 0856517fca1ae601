import { LRUCache } from 'lru-cache';
import type { Artwork } from '../../core/artwork/artwork.ts';
import { neededGlyphs } from '../../core/compose/needed-glyphs.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';
import { loadHyphenation } from '../../core/text/hyphenation.ts';
import type { Language } from '../../core/words/language.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';
import type { WallContent, WantedCut } from '../wall-protocol.ts';

/** Emoji that have been asked for; those that do not exist are not asked for again soon. */
const MAX_EMOJI = 600;

/** Fetches typefaces, emoji and hyphenation by need. */
export class GlyphLoader {
  readonly #emojiAsked = new LRUCache<string, Promise<void>>({ max: MAX_EMOJI });
  readonly #fontsAsked = new Map<string, Promise<void>>();

  constructor(readonly typesetter: Typesetter) {}

  /** Resolves once everything is there that some cuts are set in. */
  async load(content: WallContent, cuts: readonly WantedCut[]): Promise<void> {
    const { fontKeys, emoji, hyphenation } = neededGlyphs(content.book, cuts);
    await Promise.all([...fontKeys.map((key) => this.#font(key, content)), ...emoji.map((code) => this.#emoji(code)), ...(hyphenation ? [this.#hyphenation(hyphenation)] : [])]);
  }

  #font(key: string, { typefaces }: WallContent): Promise<void> {
    if (this.typesetter.has(key)) return Promise.resolve();
    const asked = this.#fontsAsked.get(key) ?? this.#fetchFont(key, typefaces[key] ?? `/fonts/${getShelfFont(key).file}`).finally(() => this.#fontsAsked.delete(key));
    this.#fontsAsked.set(key, asked);
    return asked;
  }

  async #fetchFont(key: string, address: string): Promise<void> {
    const response = await fetch(address);
    if (!response.ok) throw new Error(`The typeface ${key} could not be loaded`);
    this.typesetter.add(key, new Uint8Array(await response.arrayBuffer()));
  }

  async #hyphenation(language: Language): Promise<void> {
    if (!this.typesetter.canHyphenate(language)) this.typesetter.addHyphenation(language, await loadHyphenation(language));
  }

  #emoji(code: string): Promise<void> {
    const asked = this.#emojiAsked.get(code) ?? this.#fetchEmoji(code);
    this.#emojiAsked.set(code, asked);
    asked.catch(() => this.#emojiAsked.delete(code));
    return asked;
  }

  async #fetchEmoji(code: string): Promise<void> {
    const response = await fetch(`/emoji/${code}.json`);
    if (response.ok) this.typesetter.addEmoji(code, (await response.json()) as Artwork);
    else if (response.status !== 404) throw new Error('An emoji could not be loaded');
  }
}
