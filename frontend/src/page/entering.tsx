/** What all entries of a sheet share: which one is being entered, and what an entry does when it is typed or chosen. */
import { createContext, useContext } from 'react';
import type { Entry } from '../api/types';

export interface Entering {
  /** Path of the entry that has the focus, or had it last. */
  here: string | null;
  /** Whether the pad under the thumb types, and not the device's own keyboard. */
  pad: boolean;
  onHere: (path: string) => void;
  onType: (entry: Entry, text: string) => Promise<unknown>;
  onChoose: (entry: Entry, value: string) => Promise<unknown>;
  /** To the next entry below the one just stored. */
  onNext: (from: HTMLElement) => void;
}
const nothing = () => undefined;
export const EnterContext = createContext<Entering>({
  here: null,
  pad: false,
  onHere: nothing,
  onType: () => Promise.resolve(),
  onChoose: () => Promise.resolve(),
  onNext: nothing,
});
export const useEnter = () => useContext(EnterContext);

/** The entries of the page in the order they are read. */
const boxes = () => [...document.querySelectorAll<HTMLElement>('[data-entry]')];
/** What of an entry takes the focus: its field, or of a choice the one that is chosen or the first. */
function focusIn(box: HTMLElement | undefined): boolean {
  const target = box?.querySelector<HTMLElement>('input, [aria-checked="true"]') ?? box?.querySelector('button');
  target?.focus();
  return target !== null && target !== undefined;
}
/** Whether an entry still waits for somebody: not known, and nothing typed or chosen in it that is only on its way; what was refused waits too. */
function open(box: HTMLElement): boolean {
  const input = box.querySelector('input');
  const typed = input !== null && input.value.trim() !== '' && input.getAttribute('aria-invalid') !== 'true';
  const chosen = box.querySelector('[aria-checked="true"]') !== null;
  return box.dataset['state'] === 'unknown' && !typed && !chosen;
}
/** To the entry after the one that has the focus; false at the last. `unknown`: only to what is not known yet, round and round. */
export function focusNext(from: HTMLElement, unknown = false): boolean {
  const all = boxes();
  const at = all.findIndex((box) => box.contains(from));
  const rest = unknown ? [...all.slice(at + 1), ...all.slice(0, at + 1)].filter(open) : all.slice(at + 1);
  return rest.some((box) => !box.contains(from) && focusIn(box));
}
export const focusEntry = (path: string): boolean => focusIn(boxes().find((box) => box.dataset['entry'] === path));
