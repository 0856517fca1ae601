import type { TypeRoleName } from '../brand/type-role.ts';

/**
 * The size at which type of a role is read, in points: a cut of 1080 pixels is some 390 points wide on a phone, and a headline of 100 of its
 * pixels 36 of them. Known before a text is fitted, it draws a role alike in all cuts.
 */
const SEEN_POINTS: Readonly<Record<TypeRoleName, number>> = { display: 36, heading: 20, text: 12, label: 9 };

/** The axis of a variable typeface whose letters are drawn for a size: sturdy and open in small type, fine and close in large. */
export const OPTICAL_AXIS = 'opsz';

/** What a typeface is asked for by a role, on its axis of optical sizes. */
export function opticalSizeOf(role: TypeRoleName): number {
  return SEEN_POINTS[role];
}
