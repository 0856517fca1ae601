/**
 * What a field holds, always kept as one text so that it can be copied, compared and merged:
 * `text`: words as they are; `link`: one complete web address; `tags`: hashtags parted by spaces; `keywords`: words parted by commas;
 * `choice`: the key of an option that the network names, or the name of one that the account has (a board);
 * `flag`: `on` or `off`; `place`: a place as people call it; `slug`: the last part of an address; `poll` and `audience`: see poll.ts and audience.ts.
 */
export type FieldKind = 'text' | 'link' | 'tags' | 'keywords' | 'choice' | 'flag' | 'place' | 'slug' | 'poll' | 'audience';

/** A field of the wording sheet, for all networks: what it is and how much of it a piece keeps. */
export interface FieldDefinition {
  readonly key: string;
  readonly kind: FieldKind;
  /** What it is called where no network names it. */
  readonly name: string;
  /** Longest text that a piece keeps, in characters, whatever the networks allow. */
  readonly maxKept: number;
  /** Every piece has it, even when it is empty. */
  readonly alwaysThere: boolean;
  /** What stands in the shared row until somebody writes there; missing: nothing. */
  readonly standsIn?: 'first-words';
  /** Its hashtags and mentions are those of the post. */
  readonly carriesTags: boolean;
  /** It goes out within other fields where a network has no field for it. */
  readonly composes?: 'hashtags' | 'link';
}

/** All fields, in the order in which they are shown. A new field is one entry here. */
export const fields = [
  { key: 'title', kind: 'text', name: 'Title', maxKept: 5_000, alwaysThere: false, standsIn: 'first-words', carriesTags: false },
  { key: 'caption', kind: 'text', name: 'Caption', maxKept: 100_000, alwaysThere: true, carriesTags: true },
  { key: 'hashtags', kind: 'tags', name: 'Hashtags', maxKept: 5_000, alwaysThere: false, carriesTags: true, composes: 'hashtags' },
  { key: 'firstComment', kind: 'text', name: 'First comment', maxKept: 100_000, alwaysThere: false, carriesTags: false },
  { key: 'altText', kind: 'text', name: 'Alt text', maxKept: 5_000, alwaysThere: true, carriesTags: false },
  { key: 'link', kind: 'link', name: 'Link', maxKept: 5_000, alwaysThere: false, carriesTags: false, composes: 'link' },
  { key: 'button', kind: 'choice', name: 'Button', maxKept: 60, alwaysThere: false, carriesTags: false },
  { key: 'board', kind: 'choice', name: 'Board', maxKept: 200, alwaysThere: false, carriesTags: false },
  { key: 'playlist', kind: 'choice', name: 'Playlist', maxKept: 200, alwaysThere: false, carriesTags: false },
  { key: 'tags', kind: 'keywords', name: 'Tags', maxKept: 5_000, alwaysThere: false, carriesTags: false },
  { key: 'visibility', kind: 'choice', name: 'Visibility', maxKept: 60, alwaysThere: false, carriesTags: false },
  { key: 'location', kind: 'place', name: 'Location', maxKept: 200, alwaysThere: false, carriesTags: false },
  { key: 'comments', kind: 'flag', name: 'Comments', maxKept: 10, alwaysThere: false, carriesTags: false },
  { key: 'audience', kind: 'audience', name: 'Audience', maxKept: 1_000, alwaysThere: false, carriesTags: false },
  { key: 'poll', kind: 'poll', name: 'Poll', maxKept: 2_000, alwaysThere: false, carriesTags: false },
  { key: 'thread', kind: 'choice', name: 'Thread', maxKept: 200_000, alwaysThere: false, carriesTags: false },
  { key: 'slug', kind: 'slug', name: 'Slug', maxKept: 200, alwaysThere: false, carriesTags: false },
] as const satisfies readonly FieldDefinition[];

export type FieldKey = (typeof fields)[number]['key'];

export const fieldKeys: readonly FieldKey[] = fields.map(({ key }) => key);

/** Words by field; a field that nobody has filled in, or that a network does not take, is missing. */
export type Words = Readonly<Partial<Record<FieldKey, string>>>;

const byKey: ReadonlyMap<FieldKey, FieldDefinition> = new Map(fields.map((field) => [field.key, field]));

export function fieldOf(key: FieldKey): FieldDefinition {
  return byKey.get(key) as FieldDefinition;
}

/** An address as people say it, `krumme.example`, as a complete one; what is none, or is complete, stays as it is. */
export function completeAddress(text: string): string {
  const trimmed = text.trim();
  return /^[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+(?:[/?#]\S*)?$/u.test(trimmed) && isWebAddress(`https://${trimmed}`) ? `https://${trimmed}` : text;
}

/** Whether a text is one complete web address. */
export function isWebAddress(text: string): boolean {
  return !/\s/u.test(text) && URL.canParse(text) && /^https?:$/.test(new URL(text).protocol);
}
