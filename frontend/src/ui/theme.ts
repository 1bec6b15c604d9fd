/** Light or dark: what the person chose on this device, else what the device asks for. */
import { useSyncExternalStore } from 'react';

export type Theme = 'light' | 'dark';
const KEY = 'kobrix-theme';
const listeners = new Set<() => void>();

function current(): Theme {
  const kept = window.localStorage.getItem(KEY);
  if (kept === 'light' || kept === 'dark') return kept;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}
export function applyTheme(): void {
  document.documentElement.dataset['theme'] = current();
}
export function useTheme(): [Theme, () => void] {
  const theme = useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, current);
  const toggle = () => {
    window.localStorage.setItem(KEY, theme === 'dark' ? 'light' : 'dark');
    applyTheme();
    listeners.forEach((changed) => changed());
  };
  return [theme, toggle];
}
