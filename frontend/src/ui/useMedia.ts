import { useSyncExternalStore } from 'react';

/** Where there is room for a whole sheet: a laptop, and paper. */
export const WIDE = '(min-width: 1248px), print';
export const TABLED = '(min-width: 900px), print';

/** Whether a media query holds now. */
export function useMedia(query: string): boolean {
  const paper = usePaper();
  const holds = useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
  );
  return holds || (paper && query.endsWith('print'));
}

let printing = false;
/** Whether the page is being printed: known before the pages are counted. */
export function usePaper(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const to = (now: boolean) => () => {
        printing = now;
        changed();
      };
      const list = window.matchMedia('print');
      const [before, after] = [to(true), to(false)];
      window.addEventListener('beforeprint', before);
      window.addEventListener('afterprint', after);
      list.addEventListener('change', changed);
      return () => {
        window.removeEventListener('beforeprint', before);
        window.removeEventListener('afterprint', after);
        list.removeEventListener('change', changed);
      };
    },
    () => printing || window.matchMedia('print').matches,
  );
}
