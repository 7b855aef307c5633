import { lastOf } from '#core/lists/there.ts';
import { Kbd } from '@mantine/core';
import {
  createContext,
  lazy,
  Suspense,
  use,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';

/** One key with what it does. */
export interface Shortcut {
  /** `z`, `Delete`, `ArrowUp`, with `mod+` (Ctrl or Cmd), `alt+`, `shift+` before. */
  keys: string;
  /** What it does, as on a button: a verb first. */
  does: string;
  run(): void;
}

interface Registry {
  register(group: string, shortcuts: () => readonly Shortcut[]): () => void;
  openSheet(): void;
}

/** Fetched when it is first asked for. */
const ShortcutSheet = lazy(async () => ({ default: (await import('./ShortcutSheet.tsx')).ShortcutSheet }));

const RegistryContext = createContext<Registry>({ register: () => () => {}, openSheet: () => {} });

/** Keeps every shortcut that is in force and runs them; `?` shows the sheet of them all. */
export function ShortcutProvider({ children }: { children: ReactNode }) {
  const groups = useRef(new Map<symbol, { group: string; shortcuts: () => readonly Shortcut[] }>());
  const [sheet, setSheet] = useState<{ group: string; shortcuts: readonly Shortcut[] }[] | null>(null);

  const registry = useMemo<Registry>(() => {
    const current = () =>
      [...groups.current.values()].map(({ group, shortcuts }) => ({ group, shortcuts: shortcuts() }));
    return {
      register: (group, shortcuts) => {
        const key = Symbol(group);
        groups.current.set(key, { group, shortcuts });
        return () => groups.current.delete(key);
      },
      openSheet: () => setSheet(current()),
    };
  }, []);

  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isTyping(event.target) || document.querySelector('[role="dialog"]')) return;
      if (event.key === '?') {
        event.preventDefault();
        registry.openSheet();
        return;
      }
      if (event.key === ' ' && isPressedBySpace(event.target)) return;
      // The latest registered group wins: what is nearest to the hands comes first.
      for (const { shortcuts } of [...groups.current.values()].reverse()) {
        const shortcut = shortcuts().find((s) => matches(s.keys, event));
        if (!shortcut) continue;
        event.preventDefault();
        shortcut.run();
        return;
      }
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [registry]);

  return (
    <RegistryContext value={registry}>
      {children}
      {sheet && (
        <Suspense>
          <ShortcutSheet groups={sheet} onClose={() => setSheet(null)} />
        </Suspense>
      )}
    </RegistryContext>
  );
}

/** Puts shortcuts in force while the calling component is shown. */
export function useShortcuts(group: string, shortcuts: readonly Shortcut[]): void {
  const { register } = use(RegistryContext);
  const latest = useRef(shortcuts);
  // In the commit itself: a key pressed as soon as a place is seen must already work.
  useLayoutEffect(() => {
    latest.current = shortcuts;
  });
  useLayoutEffect(() => register(group, () => latest.current), [register, group]);
}

export function useShortcutSheet(): () => void {
  return use(RegistryContext).openSheet;
}

/** A shortcut as key caps. */
export function KeyCaps({ keys }: { keys: string }) {
  return (
    <>
      {keys.split('+').map((key, i) => (
        <Kbd key={i} mr={2}>
          {CAPS[key] ?? (key === '' ? '+' : key.length === 1 ? key.toUpperCase() : key)}
        </Kbd>
      ))}
    </>
  );
}

const CAPS: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  mod: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  Delete: 'Del',
  plus: '+',
};

function matches(keys: string, event: KeyboardEvent): boolean {
  const parts = keys.split('+');
  const key = parts.pop() === 'plus' ? '+' : lastOf(keys.split('+'));
  const wants = (modifier: string) => parts.includes(modifier);
  const letter = key.length === 1 && /[a-z]/i.test(key);
  return (
    event.key.toLowerCase() === key.toLowerCase() &&
    wants('mod') === (event.ctrlKey || event.metaKey) &&
    wants('alt') === event.altKey &&
    // Signs need Shift on some keyboards and not on others.
    (letter || key.length > 1 ? wants('shift') === event.shiftKey : true)
  );
}

/** Whether space presses what the keyboard has gone to: it then means that, whatever else it means on the page. */
function isPressedBySpace(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches('button:focus-visible, summary:focus-visible');
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}
