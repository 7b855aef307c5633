import { startTransition, useEffect, useRef, useState } from 'react';

/**
 * A value that follows another at most every so often: at once when it has rested, then at that pace while it keeps changing, and always to the last.
 * React renders what follows from it between two frames.
 * @param milliseconds least time between two values
 */
export function useEvery<T>(value: T, milliseconds: number): T {
  const [followed, setFollowed] = useState(value);
  const last = useRef(-Infinity);
  useEffect(() => {
    const follow = () => {
      last.current = performance.now();
      startTransition(() => setFollowed(() => value));
    };
    const timer = setTimeout(follow, Math.max(0, last.current + milliseconds - performance.now()));
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return followed;
}
