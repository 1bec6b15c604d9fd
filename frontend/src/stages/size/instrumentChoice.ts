/** Which instruments stand in the strip: a person’s choice, kept on this device. */
import { useSyncExternalStore } from 'react';
import { great, lengthOf, pressure } from '../../units/display';

export type Instrument = 'feel' | 'balance' | 'travel' | 'valve' | 'adhesion' | 'ratio' | 'heat';
export const INSTRUMENTS: readonly { id: Instrument; label: string; note: () => string }[] = [
  { id: 'feel', label: 'Feel', note: () => 'effort against travel' },
  { id: 'balance', label: 'Balance', note: () => `rear against front, ${great(0).unit}` },
  { id: 'travel', label: 'Where the pedal goes', note: () => lengthOf(0).unit },
  { id: 'valve', label: 'Pressure through the valve', note: () => pressure(0).unit },
  { id: 'adhesion', label: 'Adhesion used', note: () => 'of each axle' },
  { id: 'ratio', label: 'Ratio through the stroke', note: () => 'pad over rod' },
  { id: 'heat', label: 'Heat', note: () => 'stops in a row' },
];

const KEY = 'kobrix-instruments';
const FIRST: readonly Instrument[] = ['feel', 'balance', 'travel'];
const listeners = new Set<() => void>();
let known: readonly Instrument[] | null = null;

function current(): readonly Instrument[] {
  if (known) return known;
  known = FIRST;
  try {
    const own = JSON.parse(window.localStorage.getItem(KEY) ?? '[]') as Instrument[];
    const kept = own.filter((i) => INSTRUMENTS.some((k) => k.id === i));
    if (kept.length === FIRST.length) known = kept;
  } catch {
    // what was kept cannot be read: the first choice stands
  }
  return known;
}

/** An instrument put in a slot; the one that stood elsewhere changes places. */
export function putInSlot(slot: number, id: Instrument): void {
  const before = current();
  known = before.map((own, i) => (i === slot ? id : own === id ? (before[slot] ?? own) : own));
  window.localStorage.setItem(KEY, JSON.stringify(known));
  listeners.forEach((changed) => changed());
}
/** An instrument brought into the strip, in the first slot where it stands in none. */
export function bringIntoStrip(id: Instrument): void {
  if (!current().includes(id)) putInSlot(0, id);
}

export const useInstrumentChoice = () =>
  useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, current);
