import { tagProblem } from './tag-text.ts';

/** Hashtags out of what a person types or pastes: words parted by spaces, commas or semicolons, with or without their sign; each once. */
export function readHashtags(text: string): readonly string[] {
  const words = text.split(/[\s,;]+/u).map((word) => word.replace(/^#+/u, '').replace(/(?<![.!?:])[.!?:]+$/u, ''));
  return [...new Set(words.filter((word) => tagProblem(word) === null).map((word) => `#${word}`))];
}
