/** Whether an element holds more than fits its height, kept up to date. */
import { useEffect, useRef, useState, type RefObject } from 'react';

export function useOverflow<T extends HTMLElement>(): [RefObject<T | null>, boolean] {
  const ref = useRef<T>(null);
  const [over, setOver] = useState(false);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const look = () => setOver(element.scrollHeight > element.clientHeight + 1);
    const watcher = new ResizeObserver(look);
    watcher.observe(element);
    for (const child of element.children) watcher.observe(child);
    return () => watcher.disconnect();
  }, []);
  return [ref, over];
}
