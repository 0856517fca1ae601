/** What a name pattern may stand for. */
export interface NameValues {
  readonly piece: string;
  readonly network: string;
  readonly placement: string;
  readonly width: string;
  readonly height: string;
  /** Day of the export, `YYYY-MM-DD`. */
  readonly date: string;
  /** Place in the row, two digits. */
  readonly number: string;
}

/** Names of the values, in the order they are offered. */
export const namePlaceholders: readonly (keyof NameValues)[] = ['piece', 'network', 'placement', 'width', 'height', 'date', 'number'];
export const USUAL_NAME_PATTERN = '{piece}-{network}-{placement}-{width}x{height}';
const MAX_NAME = 120;

/** The placeholders of a pattern that stand for nothing. */
export function unknownPlaceholders(pattern: string): readonly string[] {
  return [...pattern.matchAll(/\{([^{}]*)\}/g)].map(([, name = '']) => name).filter((name) => !namePlaceholders.some((known) => known === name));
}

/**
 * File names by a pattern, each once: a name that would come twice gets a number behind it. Nothing in a name can lead out of
 * a folder or trouble a file system.
 */
export function fileNames(pattern: string, rows: readonly NameValues[], ending: string): readonly string[] {
  const taken = new Set<string>();
  return rows.map((values) => {
    const filled = pattern.replace(/\{([^{}]*)\}/g, (whole, name: string) => (name in values ? values[name as keyof NameValues] : whole));
    const safe = filled.normalize('NFC').replace(/[^\p{L}\p{N} ._()+-]+/gu, '-').replace(/^[. ]+|(?<![. ])[. ]+$/g, '').slice(0, MAX_NAME) || 'cut';
    let name = safe;
    for (let count = 2; taken.has(name.toLowerCase()); count += 1) name = `${safe}-${count}`;
    taken.add(name.toLowerCase());
    return `${name}.${ending}`;
  });
}
