import { useEffect, useState } from 'react';

const CLOCK_MOVED = 'confetti:clock-moved';
let aheadMs: number | null = null;

/** Tells every clock on the page that the product's time is now this. */
export function announceNow(nowMs: number): void {
  aheadMs = nowMs - Date.now();
  globalThis.dispatchEvent(new Event(CLOCK_MOVED));
}

/**
 * The product's time, ticking. It starts from the server's word, as the demo's clock may be ahead of this machine's.
 * @param serverNowMs the server's time when the page was made
 */
export function useNow(serverNowMs: number): number {
  const [nowMs, setNowMs] = useState(serverNowMs);
  useEffect(() => {
    aheadMs ??= serverNowMs - Date.now();
    const tick = (): void => setNowMs(Date.now() + (aheadMs ?? 0));
    tick();
    const timer = setInterval(tick, 5_000);
    globalThis.addEventListener(CLOCK_MOVED, tick);
    return () => {
      clearInterval(timer);
      globalThis.removeEventListener(CLOCK_MOVED, tick);
    };
  }, [serverNowMs]);
  return nowMs;
}
