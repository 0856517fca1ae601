import transliterate from '@sindresorhus/transliterate';

/** A name as part of a file name or an address: letters a to z, digits and hyphens; other letters as they are written with these, `ß` as `ss`. */
export function slugOf(name: string): string {
  const plain = transliterate(name).normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return plain.replace(/[^a-z0-9]+/g, '-').replace(/^-+|(?<!-)-+$/g, '').slice(0, 48).replace(/(?<!-)-+$/, '') || 'piece';
}
