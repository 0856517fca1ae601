import { useEffect, useRef } from 'react';

/** The button among all cuts that brings one up large, `data-look` by its key; of a carousel the one of the slide at work. */
function buttonOf(cutKey: string, frameId: string | null): HTMLElement | undefined {
  const buttons = [...document.querySelectorAll<HTMLElement>('[data-look]')].filter(({ dataset }) => dataset['look'] === cutKey);
  return buttons.find(({ dataset }) => dataset['frame'] === frameId) ?? buttons[0];
}

/** Who closes a large cut goes on with the keyboard where it was opened. A field that has the focus keeps it. */
export function useFocusBack(largeKey: string | null, frameId: string | null): void {
  const wasLarge = useRef<string | null>(null);
  useEffect(() => {
    const before = wasLarge.current;
    wasLarge.current = largeKey;
    if (largeKey === null && before !== null && document.activeElement === document.body) buttonOf(before, frameId)?.focus();
  }, [largeKey, frameId]);
}
