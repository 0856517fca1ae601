/** What a prompt or a saying is about, by which themes find it. */
export const categories = ['behind', 'product', 'people', 'place', 'learn', 'ask', 'news', 'season', 'thanks', 'work', 'patience', 'weather', 'together'] as const;
export type Category = (typeof categories)[number];

export type Season = 'spring' | 'summer' | 'autumn' | 'winter';

/** A prompt or a saying of the collection. `{key}` takes a fact of the brand by its key, `{brand}` its name. */
export interface CollectionEntry {
  readonly id: string;
  readonly text: string;
  readonly category: Category;
  /** When it fits; missing: all year. */
  readonly season?: Season;
}

/** Entries of one category, a line each; a line that begins with `spring:` and so on is for that season. */
export function entriesIn(kind: 'prompt' | 'saying', category: Category, lines: string): readonly CollectionEntry[] {
  return lines
    .trim()
    .split('\n')
    .map((line, index): CollectionEntry => {
      const [, season, text = ''] = /^(?:(spring|summer|autumn|winter): )?(.*)$/u.exec(line.trim()) ?? [];
      return { id: `${kind}-${category}-${index + 1}`, text, category, ...(season === undefined ? {} : { season: season as Season }) };
    });
}

/** The season of a day in the north of the world, or in the south. */
export function seasonOf(day: string, isSouth: boolean): Season {
  const month = Number(day.slice(5, 7));
  const index = Math.floor((month % 12) / 3);
  const seasons = ['winter', 'spring', 'summer', 'autumn'] as const;
  return seasons[(index + (isSouth ? 2 : 0)) % 4] ?? 'winter';
}
