/**
 * Which word of a text each of its UTF-16 units belongs to, counted from 0. Words are parted by white space, which belongs to the
 * word before it; a language that writes without spaces has one word.
 */
export function wordNumbers(text: string): readonly number[] {
  let [word, wasSpace] = [-1, true];
  return [...text.split('')].map((unit) => {
    const isSpace = /\s/.test(unit);
    if (!isSpace && wasSpace) word += 1;
    wasSpace = isSpace;
    return Math.max(0, word);
  });
}

/** The words of a text, as `wordNumbers` counts them. */
export function wordsIn(text: string): readonly string[] {
  return text.split(/\s+/).filter((word) => word !== '');
}
