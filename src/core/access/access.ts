/** What a member of a brand is, from the most to the least. */
export const roles = ['owner', 'designer', 'writer', 'reviewer', 'viewer'] as const;
export type Role = (typeof roles)[number];

/**
 * - `see`: look at everything of the brand.
 * - `make`: make and change pieces and media.
 * - `send`: schedule, cancel and send posts.
 * - `brand`: change the brand book and its templates.
 * - `people`: say who is in the brand.
 */
export const abilities = ['see', 'make', 'send', 'brand', 'people'] as const;
export type Ability = (typeof abilities)[number];

const table: Readonly<Record<Role, readonly Ability[]>> = {
  owner: ['see', 'make', 'send', 'brand', 'people'],
  designer: ['see', 'make', 'send', 'brand'],
  writer: ['see', 'make'],
  reviewer: ['see'],
  viewer: ['see'],
};

/** Whether a role has an ability. The server enforces it; the interface shows or hides by it. */
export function roleMay(role: Role, ability: Ability): boolean {
  return table[role].includes(ability);
}
