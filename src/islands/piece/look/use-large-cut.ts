import { useCallback, useEffect, useRef, useState } from 'react';

/** The cut that is looked at large stands in the address, behind the view. */
const PREFIX = '#look/';

const keyInAddress = (): string | null => (location.hash.startsWith(PREFIX) ? decodeURIComponent(location.hash.slice(PREFIX.length)) : null);

/** Which cut is large: in the address, so that the browser's Back leads to all cuts again and a link to one cut can be handed on. Escape closes it. */
export function useLargeCut() {
  const [largeKey, setLargeKey] = useState<string | null>(keyInAddress);
  /** A step back is under way: it is taken once, however often one asks for it meanwhile. */
  const isClosing = useRef(false);
  const openLarge = useCallback((key: string): void => {
    // A second press of the same cut is no second step.
    if (keyInAddress() === key) return;
    history.pushState({ isLarge: true }, '', `${PREFIX}${encodeURIComponent(key)}`);
    setLargeKey(key);
  }, []);
  /** Another cut in the place of the one that is large: one step back still leads to all of them. */
  const changeLarge = useCallback((key: string): void => {
    history.replaceState(history.state, '', `${PREFIX}${encodeURIComponent(key)}`);
    setLargeKey(key);
  }, []);
  const closeLarge = useCallback((): void => {
    // Opened from here, it is one step back; opened by a link, there may be no step to go back to.
    if ((history.state as { isLarge?: boolean } | null)?.isLarge) {
      if (!isClosing.current) history.back();
      isClosing.current = true;
    } else {
      history.replaceState(null, '', '#look');
      setLargeKey(null);
    }
  }, []);
  useEffect(() => {
    const follow = (): void => {
      isClosing.current = false;
      setLargeKey(keyInAddress());
    };
    addEventListener('popstate', follow);
    return () => removeEventListener('popstate', follow);
  }, []);
  useEffect(() => {
    if (largeKey === null) return undefined;
    const close = (event: KeyboardEvent): void => {
      // In a field or an open menu Escape has a meaning of its own.
      const isTaken = event.defaultPrevented || (event.target instanceof Element && event.target.closest('input, textarea, select, [role="dialog"], [role="menu"]') !== null);
      if (event.key === 'Escape' && !isTaken) closeLarge();
    };
    addEventListener('keydown', close);
    return () => removeEventListener('keydown', close);
  }, [largeKey, closeLarge]);
  return { largeKey, openLarge, changeLarge, closeLarge };
}
