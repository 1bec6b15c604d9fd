/** Single keys: dead in fields, and off when a person turns them off on this device. */
import { useEffect, useSyncExternalStore } from 'react';

const KEY = 'kobrix-single-keys';
const listeners = new Set<() => void>();
const on = () => window.localStorage.getItem(KEY) !== 'off';
export function turnKeys(next: boolean): void {
  window.localStorage.setItem(KEY, next ? 'on' : 'off');
  listeners.forEach((changed) => changed());
}
export const useKeysOn = (): boolean =>
  useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, on);

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && ['radio', 'checkbox', 'range'].includes(target.type));

/** What each single key does on a page; `Ctrl+Z` and `Ctrl+Shift+Z` undo and redo everywhere but in a field. */
export function useKeys(keys: Readonly<Record<string, () => void>>, onUndo: () => void, onRedo: () => void): void {
  const live = useKeysOn();
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      // A list that is searched is told of the keys that its field has: the focus says where they were pressed.
      if (isField(event.target) || isField(document.activeElement) || event.defaultPrevented) return;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        (event.shiftKey ? onRedo : onUndo)();
      } else if (command && event.key.toLowerCase() === 'y') {
        event.preventDefault();
        onRedo();
      } else if (!command && !event.altKey && live) {
        const act = keys[event.key];
        if (!act) return;
        event.preventDefault();
        act();
      }
    };
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  }, [keys, live, onUndo, onRedo]);
}
