/** Words and factors of each link, from the core's figures. */
import type { Against, Parts, StateView, StationParts } from '../../api/types';
import { decel, lock, percent, size } from '../../units/format';
import type { Figures } from './figures';

export const LINKS = [
  'Foot',
  'Pedal',
  'Booster',
  'Cylinder',
  'Lines, valves',
  'Brakes',
  'Rotors',
  'Tyres',
  'Road',
] as const;

const factor = (n: number) => `× ${n.toFixed(2)}`;
const letter = (s: StationParts, many: boolean) => (many ? (s.axle === 'front' ? 'F ' : 'R ') : '');

function perStation(parts: Parts, write: (s: StationParts) => string): string[] {
  const rows = parts.stations.map(write);
  const same = rows.every((row) => row === rows[0]);
  if (same || rows.length === 1) return rows.slice(0, 1);
  return parts.stations.map((s, i) => letter(s, true) + (rows[i] ?? ''));
}

/** What each link does to what comes in: one row, or one for each axle where they differ. */
export function factors(parts: Parts, now: Figures, weight: number): string[][] {
  const { pedal, cylinder } = parts;
  const valve = (s: StationParts) => {
    const own = now.stations[s.name];
    if (!own || own.inlet <= 0 || Math.abs(own.outlet - own.inlet) < 0.5) return '× 1';
    return factor(own.outlet / own.inlet);
  };
  return [
    ['your push'],
    [`× ${pedal.ratio.toFixed(2)} × ${size(pedal.efficiency)}`],
    [parts.booster && now.rod > 0 ? factor(now.out / now.rod) : '× 1'],
    [`÷ ${cylinder.area_cm2.toFixed(2)} cm² × ${size(cylinder.efficiency)}`],
    perStation(parts, valve),
    perStation(parts, (s) => {
      const area = s.disc?.area_cm2 ?? s.drum?.area_cm2 ?? 0;
      return `× ${area.toFixed(area < 10 ? 2 : 1)} cm² × ${size(s.disc?.efficiency ?? s.drum?.efficiency ?? 1)}`;
    }),
    perStation(parts, (s) =>
      s.disc
        ? `× 2µ × ${size(s.disc.effective_radius_mm)} mm`
        : `× ${(s.drum?.shoe_factor ?? 0).toFixed(2)} × ${size((s.drum?.drum_diameter_mm ?? 0) / 2)} mm`,
    ),
    perStation(parts, (s) => `× ${s.wheels} ÷ ${Math.round(s.rolling_radius_mm)} mm`),
    [`sum ÷ ${(weight / 1000).toFixed(2)} kN`],
  ];
}

/** A change as a number with its direction and meaning. */
export function difference(against: Against | null | undefined): string {
  if (!against) return '';
  const { lighter_percent, longer_mm } = against;
  const push = Math.round(Math.abs(lighter_percent));
  const parts = [push === 0 ? 'the same push' : `${push} % ${lighter_percent > 0 ? 'lighter' : 'heavier'}`];
  if (longer_mm !== null) {
    const mm = Math.round(Math.abs(longer_mm));
    parts.push(mm === 0 ? 'the same travel' : `${mm} mm ${longer_mm > 0 ? 'longer' : 'shorter'}`);
  }
  return `${parts.join(', ')} than as found.`;
}

export const lighter = (against: Against | null | undefined) =>
  against ? difference({ ...against, longer_mm: null }).replace(' than as found.', '') : '';

export const firstLock = (state: StateView) =>
  state.lock === null ? 'nothing locks' : `${state.first_lock_words}, ${lock(state.lock.decel_g)} g`;
export const gripUsed = (state: StateView) =>
  state.grip_efficiency === null ? '' : `${percent(state.grip_efficiency)} of the grip used`;

/** What is sliding at this push, and what the road then gives. */
export function sliding(now: Figures): string | null {
  if (now.locked.length === 0) return null;
  const ends = now.locked.length === 2 ? 'front and rear slide' : `${now.locked[0]} slides`;
  return `${ends}: ${decel(now.gripDecel)} g on the road`;
}
