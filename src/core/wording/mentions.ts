import type { AddressCard } from '../brand/brand-book.ts';

/** A text with its mentions as one network knows them. */
export interface Addressed {
  readonly text: string;
  /** People whom the network does not know: they are named in plain words. */
  readonly plain: readonly string[];
}

const MENTION = /(?<![\p{L}\p{N}_.])@([\p{L}\p{N}_][\p{L}\p{N}_.]*)/gu;

/** The card of somebody by their short name, or by a handle that they have anywhere. */
export function cardOf(name: string, people: readonly AddressCard[]): AddressCard | null {
  const wanted = name.replace(/^@/u, '').toLowerCase();
  const byKey = people.find(({ key }) => key.toLowerCase() === wanted);
  return byKey ?? people.find(({ handles }) => Object.values(handles).some((handle) => handle.slice(1).toLowerCase() === wanted)) ?? null;
}

/**
 * Mentions of people who have an address card as the handle that they have on a network, or as their name where they have none.
 * Mentions of others stay as they are.
 */
export function addressPeople(text: string, people: readonly AddressCard[], network: string): Addressed {
  if (people.length === 0) return { text, plain: [] };
  const plain = new Set<string>();
  const addressed = text.replace(MENTION, (written: string, caught: string) => {
    const name = caught.replace(/(?<!\.)\.+$/, '');
    const card = cardOf(name, people);
    if (!card) return written;
    const handle = card.handles[network];
    if (handle === undefined) plain.add(card.name);
    return (handle ?? card.name) + caught.slice(name.length);
  });
  return { text: addressed, plain: [...plain] };
}
