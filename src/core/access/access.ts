/** What a member of a brand is, from the most to the least. */
export const roles = ['owner', 'designer', 'writer', 'reviewer', 'viewer'] as const;
export type Role = (typeof roles)[number];

/**
 * - `see`: look at everything of the brand.
 * - `make`: make and change pieces and media.
 * - `answer`: answer people who write, and sort what they wrote.
 * - `send`: schedule, cancel and send posts.
 * - `remark`: write remarks on posts that wait for approval.
 * - `approve`: approve posts, or send them back.
 * - `brand`: change the brand book and its templates.
 * - `people`: invite and remove people, and change their roles.
 */
export const abilities = ['see', 'remark', 'approve', 'make', 'answer', 'send', 'brand', 'people'] as const;
export type Ability = (typeof abilities)[number];

const table: Readonly<Record<Role, readonly Ability[]>> = {
  owner: ['see', 'remark', 'approve', 'make', 'answer', 'send', 'brand', 'people'],
  designer: ['see', 'remark', 'approve', 'make', 'answer', 'send', 'brand'],
  writer: ['see', 'remark', 'make', 'answer'],
  reviewer: ['see', 'remark', 'approve'],
  viewer: ['see'],
};

/** Whether a role has an ability. The server enforces it; the interface shows or hides by it. */
export function roleMay(role: Role, ability: Ability): boolean {
  return table[role].includes(ability);
}

/** What a token may do of what its person may: look, make as well, or also send. */
export const tokenScopes = ['read', 'make', 'send'] as const;
export type TokenScope = (typeof tokenScopes)[number];

const scopeTable: Readonly<Record<TokenScope, readonly Ability[]>> = {
  read: ['see'],
  make: ['see', 'remark', 'make', 'brand'],
  send: ['see', 'remark', 'make', 'answer', 'brand', 'send'],
};

/** Whether a token reaches an ability. A token never manages people. */
export function scopeMay(scope: TokenScope, ability: Ability): boolean {
  return scopeTable[scope].includes(ability);
}

const actions: Readonly<Record<Ability, string>> = {
  see: 'look at this brand',
  remark: 'write remarks',
  approve: 'approve posts',
  make: 'make or change pieces and media',
  answer: 'answer people or sort what they wrote',
  send: 'schedule, cancel or send posts',
  brand: 'change the brand book or its templates',
  people: 'manage the people of this brand',
};

/** Why a role may not do something, and who may. */
export function whyNot(role: Role, ability: Ability, brandName: string): string {
  const able = roles.filter((each) => roleMay(each, ability)).map((each) => `${each}s`);
  const last = able.pop() ?? '';
  return `As ${role} of ${brandName} you may not ${actions[ability]}. Ask one of its ${able.length > 0 ? `${able.join(', ')} or ${last}` : last}.`;
}
