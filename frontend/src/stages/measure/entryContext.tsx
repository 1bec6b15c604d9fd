/** What all entries of a sheet share: which one is being entered, and what an entry does when it is typed or chosen. */
import { createContext, useContext } from 'react';
import type { Entry } from '../../api/types';

export interface Entering {
  /** Path of the entry that has the focus, or had it last. */
  here: string | null;
  /** Whether the pad under the thumb types, and not the device's own keyboard. */
  pad: boolean;
  onHere: (path: string) => void;
  onType: (entry: Entry, text: string) => Promise<unknown>;
  onChoose: (entry: Entry, value: string) => void;
  /** To the next entry below the one just stored. */
  onNext: (from: HTMLElement) => void;
}
const nothing = () => undefined;
export const EnterContext = createContext<Entering>({
  here: null,
  pad: false,
  onHere: nothing,
  onType: () => Promise.resolve(),
  onChoose: nothing,
  onNext: nothing,
});
export const useEnter = () => useContext(EnterContext);

/** The entries of the page in the order they are read. */
const fields = () => [...document.querySelectorAll<HTMLElement>('[data-entry] input')];
export function focusNext(from: HTMLElement): void {
  const all = fields();
  const next = all[all.indexOf(from) + 1];
  if (next) next.focus();
  else from.blur();
}
export function focusEntry(path: string): boolean {
  const box = [...document.querySelectorAll<HTMLElement>('[data-entry]')].find((e) => e.dataset['entry'] === path);
  const target = box?.querySelector<HTMLElement>('input, button');
  target?.focus();
  return target !== undefined && target !== null;
}
