/** Who signs on this device: asked once, kept here. */
import { useSyncExternalStore } from 'react';

const KEY = 'kobrix-signs';
const listeners = new Set<() => void>();
const read = () => window.localStorage.getItem(KEY) ?? '';
export function signsAs(name: string): void {
  window.localStorage.setItem(KEY, name);
  listeners.forEach((changed) => changed());
}
export const useSigner = (): string =>
  useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, read);
