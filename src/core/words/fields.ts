/** `text`: words as they are; `link`: one complete web address. */
export type FieldKind = 'text' | 'link';

/** A field of the wording sheet, for all networks: what it is and how much of it a piece keeps. */
export interface FieldDefinition {
  readonly key: string;
  readonly kind: FieldKind;
  /** Longest text that a piece keeps, in characters, whatever the networks allow. */
  readonly maxKept: number;
  /** Every piece has it, even when it is empty. */
  readonly alwaysThere: boolean;
  /** What stands in the shared row until somebody writes there; missing: nothing. */
  readonly standsIn?: 'first-words';
  /** Its hashtags and mentions are those of the post. */
  readonly carriesTags: boolean;
}

/** All fields, in the order in which they are shown. A new field is one entry here. */
export const fields = [
  { key: 'title', kind: 'text', maxKept: 5_000, alwaysThere: false, standsIn: 'first-words', carriesTags: false },
  { key: 'caption', kind: 'text', maxKept: 100_000, alwaysThere: true, carriesTags: true },
  { key: 'link', kind: 'link', maxKept: 5_000, alwaysThere: false, carriesTags: false },
  { key: 'firstComment', kind: 'text', maxKept: 100_000, alwaysThere: false, carriesTags: false },
  { key: 'altText', kind: 'text', maxKept: 5_000, alwaysThere: true, carriesTags: false },
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
  return /^[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+(?:[/?#]\S*)?$/u.test(trimmed) && isValidIn('link', `https://${trimmed}`) ? `https://${trimmed}` : text;
}

/** Whether a text can stand in a field: a link has to be a complete web address. An empty text always can. */
export function isValidIn(key: FieldKey, text: string): boolean {
  const trimmed = text.trim();
  if (fieldOf(key).kind !== 'link' || trimmed === '') return true;
  return URL.canParse(trimmed) && /^https?:$/.test(new URL(trimmed).protocol);
}
