import { createHash } from 'node:crypto';

/** A number in [0, 1) that is the same for the same words. */
export function share(text: string): number {
  return createHash('sha256').update(text).digest().readUInt32BE(0) / 2 ** 32;
}

/** A standard normal number that is the same for the same words (Box and Muller 1958). */
export function normal(text: string): number {
  return Math.sqrt(-2 * Math.log(1 - share(`${text} radius`))) * Math.cos(2 * Math.PI * share(`${text} angle`));
}

/** One of a list, the same for the same words. @throws RangeError for an empty list */
export function pick<Item>(list: readonly Item[], text: string): Item {
  const found = list[Math.floor(share(text) * list.length)];
  if (found === undefined) throw new RangeError('There is nothing to pick from.');
  return found;
}
