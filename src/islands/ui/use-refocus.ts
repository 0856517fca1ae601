import { useEffect, useRef, useState, type RefObject } from 'react';

/**
 * For a part of the page whose controls take each other's place: once what held the focus is gone, the first button there gets
 * it, so that who works with the keyboard goes on where they were.
 * @returns the part, and what to call together with the change
 */
export function useRefocus(): readonly [part: RefObject<HTMLDivElement | null>, refocus: () => void] {
  const part = useRef<HTMLDivElement>(null);
  const [changes, setChanges] = useState(0);
  useEffect(() => {
    if (changes === 0) return undefined;
    // One frame later: a dialog that closes tries first to give the focus back to what opened it.
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => {
        if (document.activeElement === document.body) part.current?.querySelector('button')?.focus();
      });
    });
    return () => cancelAnimationFrame(frame);
  }, [changes]);
  return [part, () => setChanges((count) => count + 1)];
}
