import { useEffect } from 'react';

/** Keeps the screen on while the calling component is shown, where the browser can; asked anew whenever the page is seen again, because the browser lets go when it is not. */
export function useWakeLock(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      navigator.wakeLock
        .request('screen')
        .then((held) => {
          if (gone) void held.release();
          else lock = held;
        })
        // A battery that is low refuses it; the page works all the same.
        .catch(() => {});
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
}
