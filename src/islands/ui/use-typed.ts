import { useCallback, useEffect, useRef, useState } from 'react';

/** Where nothing is painted, as in a page behind others, what is typed is handed on after this long. */
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
  /** Hands on at once what has not been handed on yet: before anything else is done with the text. */
  readonly flush: () => void;
}

/** The text of a field as it is typed, a frame ahead of the value that everything else is made from: a key waits for its field alone. */
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
      // Within the frame nothing is painted yet: a task after it is.
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
