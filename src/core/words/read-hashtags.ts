/** Hashtags out of what a person types or pastes: words parted by spaces, commas or semicolons, with or without their sign; each once. */
export function readHashtags(text: string): readonly string[] {
  const words = text.split(/[\s,;]+/u).map((word) => word.replace(/^#+/u, '').replace(/(?<![.!?:])[.!?:]+$/u, ''));
  return [...new Set(words.filter((word) => /^[\p{L}\p{N}_]+$/u.test(word) && !/^\p{N}+$/u.test(word)).map((word) => `#${word}`))];
}
