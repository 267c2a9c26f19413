import { useEffect } from 'react';

/** Keeps the screen awake while it is wanted, where the browser can; it lets go by itself when the tab is hidden. */
export function useWakeLock(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = () => {
      if (document.visibilityState === 'visible')
        navigator.wakeLock.request('screen').then(
          (got) => {
            if (over) void got.release();
            else lock = got;
          },
          () => undefined,
        );
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [wanted]);
}
