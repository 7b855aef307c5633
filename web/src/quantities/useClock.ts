import { useEffect, useState } from 'react';

/** This moment, milliseconds since 1970, told anew every so often. */
export function useClock(every: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}
