/** Files that are no media and are of use elsewhere in Confetti, by the ends of their names. */
const places: readonly (readonly [ends: string, sentence: string])[] = [
  ['svg', 'A mark is added in the brand book, under Marks.'],
  ['ttf|otf|woff2?', 'A typeface is added in the brand book, under Type.'],
  ['srt|vtt', 'Subtitles are imported in a video, under Sound and subtitles.'],
  ['csv|tsv|xlsx', 'A table becomes posts in Ideas, From a table.'],
  ['txt|md|markdown|docx|pdf', 'A text becomes posts in Ideas, From a text.'],
  ['xml|rss|atom', 'A feed is added in Ideas, under Feeds, by its address.'],
  ['ics', 'Days are imported in the rota, under Days that matter.'],
];

/** Where a file is of use that is no picture, clip or sound; null where Confetti has no use for it. */
export function whereItBelongs(name: string): string | null {
  return places.find(([ends]) => new RegExp(`\\.(?:${ends})$`, 'i').test(name))?.[1] ?? null;
}
