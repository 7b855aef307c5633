import { createContext, use, useMemo, useState, type ReactNode } from 'react';
import { DEFAULT_DISPLAY, type LengthDisplay } from '#core/units/formatLength.ts';

interface DisplayChoice {
  display: LengthDisplay;
  setDisplay(change: Partial<LengthDisplay>): void;
}

const STORAGE_KEY = 'cadenza.display';
const DisplayContext = createContext<DisplayChoice>({ display: DEFAULT_DISPLAY, setDisplay: () => {} });

function stored(): LengthDisplay {
  try {
    const value = JSON.parse(localStorage.getItem(STORAGE_KEY) ?? '{}') as Partial<LengthDisplay>;
    return { ...DEFAULT_DISPLAY, ...value };
  } catch {
    return DEFAULT_DISPLAY;
  }
}

/** How this browser shows lengths. A way of looking only: nothing that is stored changes with it. */
export function DisplayProvider({ children }: { children: ReactNode }) {
  const [display, set] = useState(stored);
  const choice = useMemo<DisplayChoice>(
    () => ({
      display,
      setDisplay: (change) =>
        set((old) => {
          const next = { ...old, ...change };
          localStorage.setItem(STORAGE_KEY, JSON.stringify(next));
          return next;
        }),
    }),
    [display],
  );
  return <DisplayContext value={choice}>{children}</DisplayContext>;
}

export function useDisplay(): DisplayChoice {
  return use(DisplayContext);
}
