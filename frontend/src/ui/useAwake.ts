/** Keeps the screen awake where the browser allows it, and says whether it does: it needs a secure address. */
import { useEffect, useState } from 'react';

export function useAwake(on: boolean): boolean {
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((given) => {
          lock = given;
          if (gone) void given.release();
          else setAwake(true);
        })
        .catch(() => setAwake(false));
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
      setAwake(false);
    };
  }, [on]);
  return awake;
}
