import { fillIn } from './fill-ins.ts';

/** A picture or clip of many that are made into posts at once. */
export interface DroppedFile {
  readonly id: string;
  readonly name: string;
  readonly altText: string;
  /** The day it was taken, as its file says; null: it does not. */
  readonly takenDay: string | null;
  readonly subtitles: string;
}

/** What may stand in a pattern for captions, beside the brand’s facts. */
export const filePatternFields = ['name', 'date', 'number', 'alt text', 'subtitles'] as const;

/** A file name as words: without its ending, with spaces for hyphens and underscores, and without what a camera counts by. */
export function wordsOfName(name: string): string {
  const bare = name.replace(/\.[a-z0-9]{2,5}$/iu, '').replaceAll(/[_-]+/gu, ' ').replaceAll(/\s{2,}/gu, ' ').trim();
  return /^(?:img|dsc[fn]?|pict?|dji|mvi|vid|pxl|screenshot|bild|foto)? ?[\d ()]*$/iu.test(bare) ? '' : bare.charAt(0).toUpperCase() + bare.slice(1);
}

/** The caption of one file of many by a pattern. */
export function captionOf(pattern: string, file: DroppedFile, index: number, dayWords: (day: string) => string): string {
  return fillIn(pattern, { name: wordsOfName(file.name), date: file.takenDay === null ? '' : dayWords(file.takenDay), number: String(index + 1), 'alt text': file.altText, subtitles: file.subtitles });
}
