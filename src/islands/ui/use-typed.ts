import { useCallback, useEffect, useRef, useState } from 'react';

/** Pages in the background paint no frames; there the text is passed on after this long. */
const UNPAINTED_MS = 200;

interface Waiting {
  readonly text: string;
  readonly frame: number;
  readonly timer: number;
}

export interface Typed {
  /** What stands in the field. */
  readonly text: string;
  readonly type: (text: string) => void;
  /** Passes the text on now. Call it before any other act on the text. */
  readonly flush: () => void;
}

/** Shows typed text at once and passes it on after the next frame, so that slow renders do not delay the key. */
export function useTyped(value: string, onChange: (text: string) => void): Typed {
  const [ahead, setAhead] = useState<string | null>(null);
  const waiting = useRef<Waiting | null>(null);
  const flush = useCallback((): void => {
    if (!waiting.current) return;
    const { text, frame, timer } = waiting.current;
    cancelAnimationFrame(frame);
    clearTimeout(timer);
    waiting.current = null;
    onChange(text);
    setAhead(null);
  }, [onChange]);
  const type = useCallback(
    (text: string): void => {
      setAhead(text);
      if (waiting.current) {
        waiting.current = { ...waiting.current, text };
        return;
      }
      // Frame callbacks run before painting; a task queued from one runs after it.
      waiting.current = { text, frame: requestAnimationFrame(() => setTimeout(flush)), timer: window.setTimeout(flush, UNPAINTED_MS) };
    },
    [flush],
  );
  useEffect(() => {
    addEventListener('pagehide', flush, { capture: true });
    return () => {
      removeEventListener('pagehide', flush, { capture: true });
      flush();
    };
  }, [flush]);
  return { text: ahead ?? value, type, flush };
}
