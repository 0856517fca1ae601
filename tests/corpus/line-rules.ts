/** Scripts that are written without spaces: where they may be broken, a dictionary says. */
const UNSPACED = /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
/** Scripts that may be broken between any two characters, but for some signs. */
const IDEOGRAPHIC = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3000-\u303f\uff00-\uffef]/u;
/** Signs that no line may begin with in Japanese. */
const NOT_FIRST = /^[、。，．・：；？！」』）】〉》ぁぃぅぇぉっゃゅょァィゥェォッャュョー々]/u;

/**
 * The first place where a word is broken against the rules of its language; null when there is none. Lines are given as they
 * are set, without the spaces between them.
 */
export function brokenWord(lines: readonly string[], language: string): string | null {
  for (let index = 0; index + 1 < lines.length; index += 1) {
    const [before, after] = [lines[index] ?? '', lines[index + 1] ?? ''];
    const [last, first] = [[...before].at(-1) ?? '', [...after][0] ?? ''];
    if (NOT_FIRST.test(after)) return `${before} | ${after}`;
    if (IDEOGRAPHIC.test(last) || IDEOGRAPHIC.test(first)) continue;
    if (UNSPACED.test(last) && UNSPACED.test(first)) {
      const joined = before + after;
      const starts = [...new Intl.Segmenter(language, { granularity: 'word' }).segment(joined)].map((segment) => segment.index);
      if (!starts.includes(before.length)) return `${before} | ${after}`;
    }
  }
  return null;
}

/**
 * A last line of a single word that could have had company: null when there is none, or when no other break avoids it.
 * @param roomEm width of a line
 * @param widthOf width of a text in em
 */
export function avoidableLoneWord(lines: readonly string[], roomEm: number, widthOf: (text: string) => number): string | null {
  const last = lines.at(-1) ?? '';
  const words = (line: string): readonly string[] =>
    // No-break spaces hold a word together with its sign.
    line.split(/[ \t]+/).filter((word) => word !== '');
  const before = words(lines.at(-2) ?? '');
  // One word above it, or a break that somebody has typed, leaves nothing to give.
  if (lines.length < 2 || words(last).length !== 1 || before.length < 3 || IDEOGRAPHIC.test(last) || UNSPACED.test(last)) return null;
  const together = `${before.at(-1)} ${last}`;
  return widthOf(together) < roomEm * 0.98 ? `“${last}” alone under “${lines.at(-2)}”` : null;
}
