import type { Role } from '../../contract/account-contracts.ts';

/** What a person may do in a brand: see it, make and change pieces and media, send posts out, change the brand itself, say who is in it. */
export type Ability = 'see' | 'make' | 'send' | 'brand' | 'people';

const abilities: Readonly<Record<Role, readonly Ability[]>> = {
  owner: ['see', 'make', 'send', 'brand', 'people'],
  designer: ['see', 'make', 'send', 'brand'],
  writer: ['see', 'make'],
  reviewer: ['see'],
  viewer: ['see'],
};

export function roleMay(role: Role, ability: Ability): boolean {
  return abilities[role].includes(ability);
}
