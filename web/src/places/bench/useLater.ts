import { startTransition, useEffect, useState } from 'react';

/** By then a page that was just put together has been painted, ms. */
const AFTER_PAINT_MS = 60;

/** False until the page has shown itself, then true. */
export function useLater(): boolean {
  const [later, setLater] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setLater(true)), AFTER_PAINT_MS);
    return () => clearTimeout(timer);
  }, []);
  return later;
}
