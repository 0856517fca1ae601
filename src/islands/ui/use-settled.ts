import { useEffect, useState } from 'react';

/** A value once it has not changed for a while. */
export function useSettled<Value>(value: Value, pauseMs: number): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(() => value), pauseMs);
    return () => clearTimeout(timer);
  }, [value, pauseMs]);
  return settled;
}
