import { useEffect, useRef } from 'react';

/** What Escape does while a part of the page is there. */
export function useEscape(onEscape: () => void): void {
  const latest = useRef(onEscape);
  useEffect(() => void (latest.current = onEscape));
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.key === 'Escape') latest.current();
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, []);
}
