import { describe, expect, it } from 'vitest';
import type { AddressCard } from '../brand/brand-book.ts';
import { addressPeople, cardOf } from './mentions.ts';

const people = [
  { key: 'marlow', name: 'Marlow Tregear', handles: { petalry: '@marlow.makes', quipline: '@mtregear' } },
  { key: 'ines', name: 'Inês Couto', handles: { petalry: '@ines' } },
] as const satisfies readonly Partial<AddressCard>[] as unknown as readonly AddressCard[];

describe('mentions', () => {
  it.each([
    ['by a short name', 'With @marlow today', 'petalry', 'With @marlow.makes today', []],
    ['by a handle of another network', 'With @mtregear today', 'petalry', 'With @marlow.makes today', []],
    ['in any case', 'With @MARLOW today', 'quipline', 'With @mtregear today', []],
    ['at the end of a sentence', 'Thanks, @marlow. And @ines...', 'petalry', 'Thanks, @marlow.makes. And @ines...', []],
    ['of people whom the network does not know', 'With @ines and @marlow', 'quipline', 'With Inês Couto and @mtregear', ['Inês Couto']],
    ['of strangers', 'With @somebody.else', 'petalry', 'With @somebody.else', []],
    ['that are none', 'hello@marlow.example, a@marlow', 'petalry', 'hello@marlow.example, a@marlow', []],
  ] as const)('%s', (_, text, network, expected, plain) => {
    expect(addressPeople(text, people, network)).toEqual({ text: expected, plain });
  });

  it('stay as they are where a brand has no cards', () => {
    expect(addressPeople('With @marlow', [], 'petalry')).toEqual({ text: 'With @marlow', plain: [] });
  });

  it('prefer a short name to a handle', () => {
    const twin = { ...people[1], key: 'mtregear', name: 'Another' } as AddressCard;
    expect(cardOf('@mtregear', [...people, twin])?.name).toBe('Another');
    expect(cardOf('@nobody', people)).toBeNull();
  });
});
