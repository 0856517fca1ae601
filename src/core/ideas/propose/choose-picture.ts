import type { LanguagePack } from '../../write/language-pack.ts';
import { stemsOf, tokensOf } from '../../write/tokens.ts';

/** A picture or clip that could be shown. */
export interface PictureOffer {
  readonly id: string;
  readonly name: string;
  readonly altText: string;
  readonly kind: 'picture' | 'clip';
  /** Width by height. */
  readonly aspect: number;
  /** In how many pieces it is shown already. */
  readonly uses: number;
}

export interface ChosenPicture {
  readonly picture: PictureOffer;
  readonly score: number;
  /** Words that its alt text or name shares with the text. */
  readonly shared: readonly string[];
}

const ALT_WEIGHT = 1;
const NAME_WEIGHT = 0.7;
/** What a picture loses for each piece that shows it already. */
const USED_PENALTY = 0.06;

/** Pictures by how much of a text their alt text and name speak of; seldom shown ones first among equals. */
export function rankPictures(text: string, offers: readonly PictureOffer[], pack: LanguagePack | null): readonly ChosenPicture[] {
  const stems = (words: string): readonly string[] => (pack ? stemsOf(words, pack) : tokensOf(words.toLowerCase()).map((token) => token.text).filter((word) => word.length > 3));
  const wanted = new Map<string, number>();
  for (const stem of stems(text)) wanted.set(stem, (wanted.get(stem) ?? 0) + 1);
  // A word that most pictures have tells them apart least.
  const bags = offers.map((offer) => ({ offer, alt: new Set(stems(offer.altText)), name: new Set(stems(offer.name.replace(/\.[a-z0-9]{2,5}$/iu, '').replaceAll(/[-_]+/gu, ' '))) }));
  const frequency = new Map<string, number>();
  for (const { alt, name } of bags) for (const stem of new Set([...alt, ...name])) frequency.set(stem, (frequency.get(stem) ?? 0) + 1);
  const rarity = (stem: string): number => Math.log(1 + offers.length / (frequency.get(stem) ?? 1));
  return bags
    .map(({ offer, alt, name }): ChosenPicture => {
      const shared = [...wanted.keys()].filter((stem) => alt.has(stem) || name.has(stem));
      const worth = shared.reduce((sum, stem) => sum + rarity(stem) * Math.min(2, wanted.get(stem) ?? 1) * (alt.has(stem) ? ALT_WEIGHT : NAME_WEIGHT), 0);
      return { picture: offer, shared, score: worth / (1 + USED_PENALTY * offer.uses) };
    })
    .toSorted((a, b) => b.score - a.score || a.picture.uses - b.picture.uses || (a.picture.id < b.picture.id ? -1 : 1));
}
