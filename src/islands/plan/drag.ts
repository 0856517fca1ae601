import type { DropItem } from 'react-aria';

/** What is dragged across the plan. */
export type Dragged =
  | { readonly kind: 'items'; readonly brand: string; readonly postIds: readonly string[]; readonly entryIds: readonly string[]; readonly time: string }
  | { readonly kind: 'piece'; readonly brand: string; readonly pieceId: string }
  | { readonly kind: 'theme'; readonly themeId: string | null }
  | { readonly kind: 'rule'; readonly ruleId: string };

/** The type under which the browser hands it on, so that nothing from elsewhere is taken for it. */
export const DRAG_TYPE = 'application/x-confetti-plan';

export function dragItem(dragged: Dragged): Record<string, string> {
  return { [DRAG_TYPE]: JSON.stringify(dragged) };
}

/** What was dropped; null when it is something else. */
export async function readDragged(items: readonly DropItem[]): Promise<Dragged | null> {
  const [item] = items;
  if (item?.kind !== 'text' || !item.types.has(DRAG_TYPE)) return null;
  return JSON.parse(await item.getText(DRAG_TYPE)) as Dragged;
}
