/** What may follow behind: one frame later, or at the next pause where the machine does not keep up. */
import { startTransition, useEffect, useRef, useState } from 'react';

/** A change that took longer than this to be painted was one too many to follow each of them. */
const SLOW_MS = 20;
const PAUSE_MS = 50;
/** Longer behind than this it comes with the next change, however fast they come. */
const LONGEST_MS = 200;

export function useDeferredView<T>(value: T): T {
  const [behind, setBehind] = useState(value);
  const shown = useRef(value);
  const since = useRef<number | null>(null);
  useEffect(() => {
    if (shown.current !== behind) since.current = null;
    shown.current = behind;
    if (behind === value) return;
    const begun = performance.now();
    since.current ??= begun;
    if (begun - since.current > LONGEST_MS) {
      queueMicrotask(() => setBehind(value));
      return;
    }
    let timer = 0;
    const follow = () => startTransition(() => setBehind(value));
    const frame = requestAnimationFrame(() => {
      timer = window.setTimeout(() => {
        if (performance.now() - begun < SLOW_MS) follow();
        else timer = window.setTimeout(follow, PAUSE_MS);
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(timer);
    };
  }, [value, behind]);
  return behind;
}
