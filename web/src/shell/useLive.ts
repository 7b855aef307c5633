import { useEffect, useSyncExternalStore } from 'react';
import { useLocation } from 'react-router';
import { deviceName } from '../data/deviceName.ts';
import { Live, type LiveState } from '../data/live.ts';

/** A page that is told what is new still looks by itself, should a word be lost, ms. */
const TOLD_MS = 60_000;

const live = new Live({ open: (address) => new EventSource(address), name: deviceName });

/** Keeps this page up to date with what others store, while it is looked at. */
export function useListening(): void {
  const { pathname } = useLocation();
  const board = /^\/boards\/([A-Za-z0-9_-]{1,40})(\/|$)/.exec(pathname)?.[1] ?? null;
  useEffect(() => {
    // A document without a network hears nothing.
    if (!('EventSource' in window)) return undefined;
    const look = () => {
      if (document.visibilityState === 'visible') live.at(board);
      else live.rest();
    };
    look();
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, [board]);
}

/** Who else is at the open board, and whether others are heard at all. */
export const useLive = (): LiveState => useSyncExternalStore(live.subscribe, live.snapshot);

/** How often a page asks by itself what is new, ms: seldom while it is told. @param deaf how often while it is not */
export const useLookAgain = (deaf: number): number => (useLive().hears ? TOLD_MS : deaf);
