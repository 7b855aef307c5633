import { useState } from 'react';

/** A small thing that this device remembers, such as what was ticked off; a storage that is forbidden forgets it with the page. */
export function usePersisted(key: string): [string, (value: string) => void] {
  const [held, setHeld] = useState<{ key: string; value: string } | null>(null);
  const value = held?.key === key ? held.value : read(key);
  return [
    value,
    (next) => {
      setHeld({ key, value: next });
      try {
        if (next === '') localStorage.removeItem(key);
        else localStorage.setItem(key, next);
      } catch {
        // It is only remembered as long as the page is open.
      }
    },
  ];
}

function read(key: string): string {
  try {
    return localStorage.getItem(key) ?? '';
  } catch {
    return '';
  }
}
