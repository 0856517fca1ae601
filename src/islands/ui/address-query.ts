/** What of an address stands for a view: the values of some keys; empty ones are missing. */
export function readAddress<Key extends string>(keys: readonly Key[], search: string): Partial<Record<Key, string>> {
  const params = new URLSearchParams(search);
  return Object.fromEntries(keys.flatMap((key) => (params.get(key) ? [[key, params.get(key) ?? '']] : []))) as Partial<Record<Key, string>>;
}

/** This page's address with the values of some keys. */
export function writeAddress<Key extends string>(keys: readonly Key[], query: Readonly<Partial<Record<Key, string | number | undefined>>>): string {
  const params = new URLSearchParams(keys.flatMap((key) => (query[key] === undefined || query[key] === '' ? [] : [[key, String(query[key])]])));
  return params.size === 0 ? location.pathname : `${location.pathname}?${params.toString()}`;
}
