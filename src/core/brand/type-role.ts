/** The roles that type has in a template, from what leads to what names. */
export const typeRoleNames = ['display', 'heading', 'text', 'label'] as const;

export type TypeRoleName = (typeof typeRoleNames)[number];
