import transliterate from '@sindresorhus/transliterate';
import { LRUCache } from 'lru-cache';

/** A name as part of a file name or an address: letters a to z, digits and hyphens; other letters as they are written with these, `ß` as `ss`. */
export function slugOf(name: string): string {
  const known = slugs.get(name) ?? makeSlug(name);
  slugs.set(name, known);
  return known;
}

/** Transliterating looks for thousands of letters; the same name is asked for with every key. */
const slugs = new LRUCache<string, string>({ max: 200 });

function makeSlug(name: string): string {
  const plain = transliterate(name).normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return plain.replace(/[^a-z0-9]+/g, '-').replace(/^-+|(?<!-)-+$/g, '').slice(0, 48).replace(/(?<!-)-+$/, '') || 'piece';
}
