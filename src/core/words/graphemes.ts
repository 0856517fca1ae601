const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
/** Code units that are segmented at once. Segmenting takes time with the square of the length, so a long text is taken in windows. */
const WINDOW = 512;

/** A user-perceived character, and where it begins in the text in code units. */
export interface Grapheme {
  readonly segment: string;
  readonly index: number;
}

/**
 * The user-perceived characters of a text (UAX 29, extended grapheme clusters), in time that grows with its length alone.
 * A cluster longer than a window, which no script needs, counts as several.
 */
export function* graphemesOf(text: string): Generator<Grapheme> {
  let from = 0;
  while (from < text.length) {
    // A pair of surrogates is one character: no window ends within it.
    const to = from + WINDOW + (isHighSurrogate(text.charCodeAt(from + WINDOW - 1)) ? 1 : 0);
    const isLast = to >= text.length;
    let held: Grapheme | null = null;
    for (const { segment, index } of segmenter.segment(text.slice(from, to))) {
      if (held) yield held;
      held = { segment, index: from + index };
    }
    if (!held) return;
    // Where the last cluster of a window ends, only the text behind it says: it begins the next window.
    if (isLast || held.index === from) {
      yield held;
      from = held.index + held.segment.length;
    } else {
      from = held.index;
    }
  }
}

function isHighSurrogate(unit: number): boolean {
  return unit >= 0xd800 && unit <= 0xdbff;
}
