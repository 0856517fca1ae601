/** A fill-in of a text as people write it: `[day]`. It is asked for when something is begun. */
const FILL_IN = /\[([\p{L}\p{N}][\p{L}\p{N} _-]{0,39})\]/gu;

const keyOf = (name: string): string => name.trim().toLowerCase();

/** The fill-ins of some texts, each once, in the order in which they stand. */
export function fillInsOf(texts: readonly string[]): readonly string[] {
  const found = new Map<string, string>();
  for (const text of texts) for (const [, name = ''] of text.matchAll(FILL_IN)) if (!found.has(keyOf(name))) found.set(keyOf(name), name.trim());
  return [...found.values()];
}

/** A text with its fill-ins filled in; one without a value vanishes, with the space or the line that it leaves. */
export function fillIn(text: string, values: Readonly<Record<string, string>>): string {
  const byKey = new Map(Object.entries(values).map(([name, value]) => [keyOf(name), value.trim()]));
  const isEmpty = (name: string): boolean => (byKey.get(keyOf(name)) ?? '') === '';
  const lines = text.split('\n').flatMap((line) => {
    const names = [...line.matchAll(FILL_IN)].map(([, name = '']) => name);
    const filled = line.replaceAll(FILL_IN, (_, name: string) => byKey.get(keyOf(name)) ?? '');
    if (names.length > 0 && names.every(isEmpty) && filled.replaceAll(/[\s\p{P}\p{S}]/gu, '') === '') return [];
    return [names.some(isEmpty) ? filled.replaceAll(/[ \t]{2,}/gu, ' ').trimEnd() : filled];
  });
  return lines.join('\n').replaceAll(/\n{3,}/gu, '\n\n').trim();
}
