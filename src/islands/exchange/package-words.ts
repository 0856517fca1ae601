import { recordKinds, type Outcome, type RecordKind } from '../../contract/package-format.ts';

/** What people call the kinds of records: many, and one. */
const words: Readonly<Record<RecordKind, readonly [many: string, one: string]>> = {
  brand: ['Brands', 'brand'],
  sheets: ['Network sheets', 'network sheet'],
  channels: ['Channels', 'channel'],
  typefaces: ['Typefaces', 'typeface'],
  media: ['Media', 'picture, clip or sound'],
  templates: ['Templates', 'template'],
  campaigns: ['Campaigns', 'campaign'],
  pieces: ['Pieces', 'piece'],
  series: ['Series', 'series'],
  entries: ['Placeholders and drafts', 'placeholder or draft'],
  posts: ['Posts', 'post'],
  queue: ['In the queue', 'piece in the queue'],
  repeats: ['Repeats', 'repeat'],
  rotations: ['Rotations', 'rotation'],
  boilerplates: ['Boilerplates', 'boilerplate'],
  publications: ['Published, with figures', 'published post'],
  ideas: ['Ideas', 'idea'],
  feeds: ['Feeds', 'feed'],
  'feed-rules': ['Rules of feeds', 'rule of a feed'],
  'saved-answers': ['Saved answers', 'saved answer'],
  'short-links': ['Short links', 'short link'],
};

export const kindWord = (kind: RecordKind): string => words[kind][0];

/** “20 pieces, 21 media, 3 campaigns”: the kinds that people look for, in the order of the package. */
export function kindCounts(counts: Partial<Readonly<Record<RecordKind, number>>>): string {
  const shown = recordKinds.flatMap((kind) => {
    const count = counts[kind] ?? 0;
    return kind === 'brand' || kind === 'sheets' || count === 0 ? [] : [`${count.toLocaleString('en-GB')} ${count === 1 ? words[kind][1] : words[kind][0].toLowerCase()}`];
  });
  return shown.length === 0 ? 'The brand book alone' : shown.join(', ');
}

/** Outcomes in the order in which a table shows them. */
export const shownOutcomes: readonly { readonly key: Outcome; readonly name: string }[] = [
  { key: 'new', name: 'New' },
  { key: 'updated', name: 'Brought up to date' },
  { key: 'here', name: 'Here already' },
  { key: 'older', name: 'Newer here' },
  { key: 'both', name: 'Kept as here' },
  { key: 'left out', name: 'Left out' },
];
