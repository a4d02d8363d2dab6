import { useCallback, useLayoutEffect, useRef } from 'react';

/** A function that stays the same and calls the newest of those it is given: for what is drawn again when it is handed another one. */
export function useStable<A extends unknown[], R>(call: (...args: A) => R): (...args: A) => R {
  const newest = useRef(call);
  useLayoutEffect(() => void (newest.current = call));
  return useCallback((...args: A) => newest.current(...args), []);
}
