/** Longest hashtag that networks take. */
export const MAX_TAG_LENGTH = 100;

/** What is wrong with something that is meant as a hashtag. */
export type TagProblem = 'empty' | 'digits-only' | 'punctuation' | 'spaces' | 'too-long';

/** What keeps a word from being one hashtag; null where nothing does. The sign in front may be missing. */
export function tagProblem(tag: string): TagProblem | null {
  const word = tag.replace(/^#/u, '');
  if (word === '') return 'empty';
  if (/\s/u.test(word)) return 'spaces';
  if (/[^\p{L}\p{M}\p{N}_]/u.test(word)) return 'punctuation';
  if (/^[\p{N}_]+$/u.test(word)) return 'digits-only';
  return [...word].length > MAX_TAG_LENGTH ? 'too-long' : null;
}

/** A # and what was typed right behind it, with what breaks it: `#build-a-kite` ends as `#build`. */
export interface BrokenTag {
  readonly written: string;
  readonly problem: TagProblem;
  /** How it would hold together; null where nothing is left of it. */
  readonly mended: string | null;
}

/** Hashtags of a text that do not hold together: cut short by punctuation, digits alone, or longer than any network takes. */
export function brokenTags(text: string): readonly BrokenTag[] {
  const found: BrokenTag[] = [];
  for (const [written] of text.matchAll(/(?<![\p{L}\p{N}_&/#])#[^\s#]+/gu)) {
    const core = written.replace(/(?<![.,;:!?…)\]}"'”’»])[.,;:!?…)\]}"'”’»]+$/u, '');
    const problem = tagProblem(core);
    if (problem === null || problem === 'empty' || problem === 'spaces') continue;
    // A possessive or a bracket behind a tag does not break it.
    if (problem === 'punctuation' && /^#[\p{L}\p{M}\p{N}_]+['’](?:s|t)?$/u.test(core)) continue;
    const mended = camelCase(core.replace(/^#/u, '').split(/[^\p{L}\p{M}\p{N}_]+/u).filter((part) => part !== ''));
    found.push({ written: core, problem, mended: problem === 'punctuation' && tagProblem(mended) === null ? `#${mended}` : null });
  }
  return found;
}

/** Words as one, each with a capital: `build a kite` becomes `BuildAKite`. */
export function camelCase(words: readonly string[]): string {
  return words.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join('');
}

/** Words that a tag is made of, as far as its capitals, underscores and digits say. */
export function wordsOfTag(tag: string): readonly string[] {
  return tag.replace(/^#/u, '').match(/(?<!\p{Lu})\p{Lu}+(?!\p{Ll})|\p{Lu}?[\p{Ll}\p{Lo}\p{M}]+|\p{N}+/gu) ?? [];
}

/**
 * A tag that runs several words together without capitals, with them: screen readers read the words then.
 * @param texts where its words are looked for, one behind the other
 */
export function capitalsFor(tag: string, texts: readonly string[]): string | null {
  const word = tag.replace(/^#/u, '');
  if (word !== word.toLowerCase() || word.length < 6) return null;
  for (const text of texts) {
    const words = text.match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
    for (let from = 0; from < words.length; from += 1) {
      let run = '';
      for (let to = from; to < words.length && run.length < word.length; to += 1) {
        run += words[to]?.toLowerCase() ?? '';
        if (run === word && to > from) return `#${camelCase(words.slice(from, to + 1))}`;
      }
    }
  }
  return null;
}

/**
 * A text in which the words that a tag is made of become the tag: `build a kite` becomes `#BuildAKite`, where it stands first.
 * @returns null when the words do not stand in the text one behind the other
 */
export function tagInText(text: string, tag: string): string | null {
  const words = wordsOfTag(tag).map((word) => word.toLowerCase());
  const tokens = [...text.matchAll(/[\p{L}\p{M}\p{N}]+/gu)];
  for (let from = 0; from + words.length <= tokens.length; from += 1) {
    const run = tokens.slice(from, from + words.length);
    const [first, last] = [run[0], run.at(-1)];
    if (!first || !last || !run.every((token, index) => token[0].toLowerCase() === words[index])) continue;
    const between = run.slice(1).every((token, index) => /^[\s-]{1,3}$/u.test(text.slice((run[index]?.index ?? 0) + (run[index]?.[0].length ?? 0), token.index)));
    const before = text.charAt(first.index - 1);
    if (!between || /[#@&/.{]/u.test(before)) continue;
    return text.slice(0, first.index) + tag + text.slice(last.index + last[0].length);
  }
  return null;
}

/** Hashtags that occur more than once, whatever their case. */
export function doubleTags(tags: readonly string[]): readonly string[] {
  const seen = new Set<string>();
  return tags.filter((tag) => {
    const key = tag.toLowerCase();
    const isAgain = seen.has(key);
    seen.add(key);
    return isAgain;
  });
}
