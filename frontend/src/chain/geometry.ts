/** Where things stand on the force line, and at which scale: one drawing of 1248 units across. */
import type { Parts, PathView, StateView, StationParts } from '../api/types';
import type { Figures } from './figures';

export const ENDS = [0, 122, 226, 312, 484, 604, 790, 938, 1082, 1248];
export const WIDTH = 1248;
export const ROAD = 159;
/** A figure stands so far above its line. */
export const OVER = 9;
/** Width of the force line before it parts, as the ink has it. */
export const FORCE = 7;
export const AXIS = { front: 79, rear: 161 };
/** Pixels for a millimetre. */
export const S = {
  pedal: 0.42,
  cylinder: 1.75,
  small: 1.2,
  bore: 2.2,
  caliper: 0.72,
  rotor: 0.262,
  tyre: 0.124,
  car: 0.0287,
};
export const BODY = { x: 317, length: 152, wall: 8 };
export const AT = { areas: 633, caliper: 699, rotor: 836, tyre: 984 };

export interface FoundLine {
  solved: PathView;
  state: StateView;
  now: Figures;
}

export const onAxle = (parts: Parts, axle: 'front' | 'rear') => parts.stations.find((s) => s.axle === axle) ?? null;
export const thickness = (station: StationParts) => station.disc?.thickness_mm ?? (station.disc?.vented ? 20 : 10);
export const pistonsOf = (s: StationParts) => s.disc?.pistons_mm ?? [s.drum?.wheel_cylinder_mm ?? 0];

/** One brake drawn as a row from its pipe to the road. */
export interface Row {
  /** Name of the control whose line it is. */
  system: string;
  station: StationParts;
  y: number;
}

const LARGEST_ROTOR = 36; // px from its middle: beside it stands the clamp force
/** Pixels for a millimetre of the rotors and drums of a line, one for all. */
export const rotorScale = (rows: readonly Row[]) =>
  Math.min(
    S.rotor,
    ...rows.map(
      ({ station: { disc, drum } }) => (2 * LARGEST_ROTOR) / (disc?.rotor_diameter_mm ?? drum?.drum_diameter_mm ?? 1),
    ),
  );

/** The rows of a path: one for each station of a single control, or the first of each of two controls. */
export function rowsOf(solved: PathView): Row[] {
  const own = drawnLines(solved);
  if (own.length > 1) {
    return own.flatMap((line, i) => {
      const station = line.parts.stations[0];
      return station ? [{ system: line.system, station, y: i === 0 ? AXIS.front : AXIS.rear }] : [];
    });
  }
  const stations = solved.parts.stations.slice(0, 2);
  const apart = stations.length > 1 && stations[0]?.axle !== stations[1]?.axle;
  return stations.map((station, i) => ({
    system: solved.system,
    station,
    y: apart ? AXIS[station.axle] : i === 0 ? AXIS.front : AXIS.rear,
  }));
}

/** A path of several controls as one of them has it: its own parts; null where it has no such control. */
export function partsOf(solved: PathView, system: string): PathView | null {
  const line = solved.lines.find((l) => l.system === system);
  return line ? { ...solved, system, parts: line.parts, lines: [line] } : null;
}
/** The figures of one of several controls: its own push, pressures and travel. */
export function figuresFor(solved: PathView, now: Figures, system: string): Figures {
  const line = solved.lines.find((l) => l.system === system);
  const own = now.lines[system];
  return line && own ? { ...now, ...own, push: now.push * line.ratio } : now;
}

/** The controls of a path that are drawn: not those that only press brakes which another one owns. */
export function drawnLines(solved: PathView): PathView['lines'] {
  const owned = new Set<string>();
  const own = solved.lines.filter((line) => {
    const names = line.parts.stations.map((s) => s.name);
    if (names.every((n) => owned.has(n))) return false;
    names.forEach((n) => owned.add(n));
    return true;
  });
  return own.slice(0, 2);
}
