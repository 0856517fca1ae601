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
  const before = wordsOf(lines.at(-2) ?? '');
  // One word above it, or a break that somebody has typed, leaves nothing to give.
  if (lines.length < 2 || wordsOf(last).length !== 1 || before.length < 3 || IDEOGRAPHIC.test(last) || UNSPACED.test(last)) return null;
  const together = `${before.at(-1)} ${last}`;
  return widthOf(together) < roomEm * 0.98 ? `“${last}” alone under “${lines.at(-2)}”` : null;
}

/** A line that ends with a small word. */
const hangs = (line: string): boolean => /(?:^|\s)\p{L}{1,3}$/u.test(line);

/** Below this share of the widest line a single word looks lost. */
const LOST_SHARE = 0.7;
/** Texts of more words than this are no headlines whose lines one looks at one by one. */
const MAX_HEADLINE_WORDS = 12;

/**
 * A line of one short word anywhere in a headline of three words or more (addresses apart) that another setting avoids: as many lines or fewer, each no
 * wider than the room at a somewhat smaller size, that leaves no small word hanging either. All settings are tried. Null when there is none.
 * @param roomEm width of a line at the smallest size that is worth it
 */
export function avoidableOneWordLine(lines: readonly string[], roomEm: number, widthOf: (text: string) => number): string | null {
  const words = lines.flatMap(wordsOf);
  if (words.length < 3 || words.length > MAX_HEADLINE_WORDS || lines.length < 2 || lines.some((line) => line.endsWith('-')) || words.some((word) => IDEOGRAPHIC.test(word) || UNSPACED.test(word) || word.includes('/'))) return null;
  const isLost = (setting: readonly string[]): boolean => {
    const widths = setting.map(widthOf);
    const widest = Math.max(...widths);
    return setting.some((line, index) => wordsOf(line).length === 1 && (widths[index] ?? 0) < widest * LOST_SHARE);
  };
  if (!isLost(lines)) return null;
  const better = (from: number, left: number, before: readonly string[]): boolean => {
    if (from === words.length) return !isLost(before) && partedNumber(before) === null && !before.slice(0, -1).some(hangs);
    if (left === 0) return false;
    for (let to = from + 1; to <= words.length; to += 1) {
      const line = words.slice(from, to).join(' ');
      if (widthOf(line) > roomEm) break;
      if (better(to, left - 1, [...before, line])) return true;
    }
    return false;
  };
  return better(0, lines.length, []) ? lines.join(' / ') : null;
}

/** A break between a number and its unit, its month or its sign; null when there is none. */
export function partedNumber(lines: readonly string[]): string | null {
  for (let index = 0; index + 1 < lines.length; index += 1) {
    const both = `${lines[index]} | ${lines[index + 1]}`;
    if (/\d \| (?:am|pm|uhr|h|km|km\/h|m|kg|g|l|ml|cm|mm|%|°C|€|£|\$)(?![\p{L}\p{N}])/iu.test(both) || /\d\.? \| (?:January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec|Januar|Februar|März|Mai|Juni|Juli|Oktober|Dezember)(?!\p{L})/u.test(both)) return both;
    if (/(?:№|Nr\.|no\.) \| \d/iu.test(both)) return both;
  }
  return null;
}

/** The words of a line; no-break spaces hold a word together with its sign. */
function wordsOf(line: string): readonly string[] {
  return line.split(/[ \t]+/).filter((word) => word !== '');
}
