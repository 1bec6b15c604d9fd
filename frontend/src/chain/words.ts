/** Words and factors of each link, from the core's figures. */
import type { Against, Parts, PathView, StateView, StationParts } from '../api/types';
import { decel, lock, percent, size } from '../units/format';
import { areaOf, dimension, great, lengthOf, written } from '../units/display';
import type { Figures } from './figures';
import { drawnLines } from './geometry';

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

const named = (first: string, second: string) => [first, second, ...LINKS.slice(2)] as const;
const NAMES = {
  foot: LINKS,
  hand: named('Hand', 'Lever'),
  feet: named('Foot', 'Levers'),
  both: named('Hand, foot', 'Levers'),
};
/** The links as this vehicle's controls are called. */
export const linkNames = (kind: Parts['pedal']['kind'], two: boolean): readonly string[] =>
  kind === 'hand_lever' ? (two ? NAMES.both : NAMES.hand) : two ? NAMES.feet : NAMES.foot;

const factor = (n: number) => `× ${n.toFixed(2)}`;
const letter = (s: StationParts, many: boolean) => (many ? (s.axle === 'front' ? 'F ' : 'R ') : '');

function perStation(parts: Parts, write: (s: StationParts) => string): string[] {
  const rows = parts.stations.map(write);
  const same = rows.every((row) => row === rows[0]);
  if (same || rows.length === 1) return rows.slice(0, 1);
  return parts.stations.map((s, i) => letter(s, true) + (rows[i] ?? ''));
}

/** What each link does to what comes in: one row, or one for each axle where they differ. */
export function factors(solved: PathView, now: Figures, weight: number): string[][] {
  const lines = drawnLines(solved);
  const { parts } = solved;
  const { pedal, cylinder } = parts;
  const many = lines.length > 1;
  // Two controls: one row for each of them, as they stand in the drawing.
  const each = (write: (line: (typeof lines)[number]) => string) => {
    const rows = lines.map(write);
    return rows.every((row) => row === rows[0]) ? rows.slice(0, 1) : rows;
  };
  const stations = (write: (s: StationParts) => string) =>
    many ? each((line) => (line.parts.stations[0] ? write(line.parts.stations[0]) : '')) : perStation(parts, write);
  const valve = (s: StationParts) => {
    const own = now.stations[s.name];
    if (!own || own.inlet <= 0 || Math.abs(own.outlet - own.inlet) < 0.5) return '× 1';
    return factor(own.outlet / own.inlet);
  };
  const chamber = (c: (typeof cylinder.chambers)[number], efficiency: number) =>
    `${c.share === 1 ? '' : `× ${c.share.toFixed(2)} `}÷ ${written(areaOf(c.area_cm2))} × ${size(efficiency)}`;
  const bores =
    cylinder.kind === 'twin'
      ? cylinder.chambers.map((c) => chamber(c, cylinder.efficiency))
      : [`÷ ${written(areaOf(cylinder.area_cm2))} × ${size(cylinder.efficiency)}`];
  return [
    many ? lines.map((l) => (l.ratio === 1 ? 'your push' : `push × ${size(l.ratio)}`)) : ['your push'],
    many
      ? each((l) => `× ${l.parts.pedal.ratio.toFixed(2)} × ${size(l.parts.pedal.efficiency)}`)
      : [`× ${(now.ratio ?? pedal.ratio).toFixed(2)} × ${size(pedal.efficiency)}`],
    [parts.booster && now.rod > 0 ? factor(now.out / now.rod) : '× 1'],
    many
      ? each((l) => `÷ ${written(areaOf(l.parts.cylinder.area_cm2))} × ${size(l.parts.cylinder.efficiency)}`)
      : bores,
    stations(valve),
    stations((s) => {
      const area = s.disc?.area_cm2 ?? s.drum?.area_cm2 ?? 0;
      return `× ${written(areaOf(area, area < 10 ? 2 : 1))} × ${size(s.disc?.efficiency ?? s.drum?.efficiency ?? 1)}`;
    }),
    stations((s) =>
      s.disc
        ? `× 2µ × ${written(dimension(s.disc.effective_radius_mm))}${s.disc.calipers > 1 ? ` × ${s.disc.calipers}` : ''}`
        : `× ${(s.drum?.shoe_factor ?? 0).toFixed(2)} × ${written(dimension((s.drum?.drum_diameter_mm ?? 0) / 2))}`,
    ),
    stations((s) => `× ${s.wheels} ÷ ${written(lengthOf(s.rolling_radius_mm))}`),
    [`sum ÷ ${written(great(weight))}`],
  ];
}

const pushWords = (percent: number) => `${Math.round(Math.abs(percent))} % ${percent > 0 ? 'lighter' : 'heavier'}`;

/** A change as a number with its direction and meaning. */
export function difference(against: Against | null | undefined): string {
  if (!against) return '';
  const { lighter_percent, longer_mm } = against;
  const samePush = Math.round(lighter_percent) === 0;
  const mm = Math.round(Math.abs(longer_mm ?? 0));
  if (mm > 0) {
    const push = samePush ? 'the same push' : pushWords(lighter_percent);
    return `${push}, ${written(lengthOf(mm))} ${(longer_mm ?? 0) > 0 ? 'longer' : 'shorter'} than as found.`;
  }
  const travel = longer_mm === null ? '' : samePush ? ' and travel' : ', the same travel';
  return samePush ? `the same push${travel} as found.` : `${pushWords(lighter_percent)} than as found${travel}.`;
}

export const lighter = (against: Against | null | undefined) =>
  !against ? '' : Math.round(against.lighter_percent) === 0 ? 'the same push' : pushWords(against.lighter_percent);

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
