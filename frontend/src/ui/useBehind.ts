/** What may follow behind: one frame later, or at the next pause where the machine does not keep up. */
import { startTransition, useEffect, useRef, useState } from 'react';

/** A frame that took longer than this, from the change to its paint, is one too many to follow each change. */
const SLOW_MS = 20;
const PAUSE_MS = 50;
const LONGEST_MS = 200;

export function useBehind<T>(value: T): T {
  const [behind, setBehind] = useState(value);
  const shown = useRef(0);
  useEffect(() => {
    const begun = performance.now();
    let timer = 0;
    const show = () => {
      shown.current = performance.now();
      startTransition(() => setBehind(value));
    };
    const frame = requestAnimationFrame(() => {
      timer = window.setTimeout(() => {
        const now = performance.now();
        if (now - begun < SLOW_MS || now - shown.current > LONGEST_MS) show();
        else timer = window.setTimeout(show, PAUSE_MS);
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(timer);
    };
  }, [value]);
  return behind;
}
