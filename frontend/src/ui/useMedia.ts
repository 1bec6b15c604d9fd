import { useSyncExternalStore } from 'react';

/** Where there is room for a whole sheet: a laptop, and paper. */
export const WIDE = '(min-width: 1248px), print';
/** A laptop of little height: rows are folded to one line, and the sheet scrolls before an instrument is crushed. */
export const LOW = 'screen and (min-width: 1248px) and (max-height: 760px)';
export const TABLED = '(min-width: 900px), print';

/** What is known of each query: asking the browser again while a page is drawn would lay it out each time. */
const known = new Map<string, boolean>();
const listeners = new Set<() => void>();
let printing = false;

function holds(query: string): boolean {
  let now = known.get(query);
  if (now === undefined) {
    const list = window.matchMedia(query);
    now = list.matches;
    known.set(query, now);
    list.addEventListener('change', ({ matches }) => {
      known.set(query, matches);
      listeners.forEach((changed) => changed());
    });
  }
  return now;
}
const to = (paper: boolean) => () => {
  printing = paper;
  listeners.forEach((changed) => changed());
};
window.addEventListener('beforeprint', to(true));
window.addEventListener('afterprint', to(false));

const listen = (changed: () => void) => {
  listeners.add(changed);
  return () => listeners.delete(changed);
};

/** Whether a media query holds now. */
export const useMedia = (query: string): boolean =>
  useSyncExternalStore(listen, () =>
    printing ? query.endsWith('print') || (holds(query) && !query.startsWith('screen')) : holds(query),
  );

/** Whether the page is being printed: known before the pages are counted. */
export const usePaper = (): boolean => useMedia('print');
