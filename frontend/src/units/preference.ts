/** The units a person thinks in: what a bare number means in a field, and what figures are shown in. Kept on this device. */
import { useSyncExternalStore } from 'react';

export const UNITS = {
  length: ['mm', 'in'],
  mass: ['kg', 'lb'],
  pressure: ['psi', 'bar', 'MPa', 'kPa'],
  force: ['N', 'lbf'],
  shownForce: ['N', 'lbf'],
  shownPressure: ['MPa', 'bar', 'psi'],
  shownLength: ['mm', 'in'],
  shownRoad: ['m, km/h', 'ft, mph'],
  shownHeat: ['°C', '°F'],
} as const;
/** What a bare number may be of. */
export const BARE = ['length', 'mass', 'pressure', 'force'] as const;
/** What figures are shown of, in words. */
export const SHOWN = {
  shownForce: 'force',
  shownPressure: 'pressure',
  shownLength: 'length',
  shownRoad: 'road and speed',
  shownHeat: 'temperature',
} as const;
export type Quantity = keyof typeof UNITS;
export type Preferred = Record<Quantity, string>;

const KEY = 'kobrix-units';
const FIRST: Preferred = {
  length: 'mm',
  mass: 'kg',
  pressure: 'psi',
  force: 'N',
  shownForce: 'N',
  shownPressure: 'MPa',
  shownLength: 'mm',
  shownRoad: 'm, km/h',
  shownHeat: '°C',
};
const listeners = new Set<() => void>();
let known: Preferred | null = null;

export function current(): Preferred {
  if (known) return known;
  known = { ...FIRST };
  try {
    const kept = JSON.parse(window.localStorage.getItem(KEY) ?? '{}') as Partial<Preferred>;
    for (const quantity of Object.keys(UNITS) as Quantity[]) {
      const unit = kept[quantity];
      if (unit && (UNITS[quantity] as readonly string[]).includes(unit)) known[quantity] = unit;
    }
  } catch {
    // what was kept cannot be read: the first choice stands
  }
  return known;
}

export function prefer(quantity: Quantity, unit: string): void {
  known = { ...current(), [quantity]: unit };
  window.localStorage.setItem(KEY, JSON.stringify(known));
  listeners.forEach((changed) => changed());
}

export const usePreferred = (): Preferred =>
  useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, current);

/** Every unit that figures are shown in, as one word: another word is another sheet, on which every figure is written anew. */
export function useShown(): string {
  const preferred = usePreferred();
  return (Object.keys(SHOWN) as (keyof typeof SHOWN)[]).map((of) => preferred[of]).join(' ');
}

const OF_UNIT: Record<string, Quantity> = { mm: 'length', kg: 'mass', kPa: 'pressure', N: 'force' };
/** The unit of a bare number in a field whose own unit is `unit`; none where there is only one. */
export const preferredFor = (unit: string, preferred: Preferred): string | undefined => {
  const quantity = OF_UNIT[unit];
  return quantity ? preferred[quantity] : undefined;
};
export const quantityOf = (unit: string): Quantity | undefined => OF_UNIT[unit];
