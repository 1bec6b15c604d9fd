/** The figures on the line at one push: looked up between the core's samples while scrubbing, the core's own at rest. */
import type { Curves, Moment } from '../api/types';

export interface StationFigures {
  inlet: number;
  outlet: number;
  torque: number;
  clamp: number | null;
}
/** One control on a path. */
export interface LineFigures {
  rod: number;
  out: number;
  travel: number | null;
  piston: number | null;
  causes: Record<string, number>;
  ratio: number | null;
  rodAngle: number | null;
  stations: Record<string, StationFigures>;
}
/** The road, the path's own control at the top, and every control by name. */
export interface Figures extends LineFigures {
  push: number;
  front: number;
  rear: number;
  decel: number;
  gripDecel: number;
  locked: string[];
  /** Null where the axle carries nothing. */
  adhesion: { front: number | null; rear: number | null };
  /** Front share at which both axles would use the same grip; known between samples only. */
  idealShare: number | null;
  lines: Record<string, LineFigures>;
}

/** Place of x in a rising list: the index before it, and the fraction of the step. */
export function sampleAt(list: readonly number[], x: number): [number, number] {
  let low = 0;
  let high = list.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((list[middle] ?? 0) < x) low = middle;
    else high = middle;
  }
  const a = list[low] ?? 0;
  const b = list[high] ?? a;
  return [low, b > a ? Math.min(1, Math.max(0, (x - a) / (b - a))) : 0];
}

const NOTHING: LineFigures = {
  rod: 0,
  out: 0,
  travel: null,
  piston: null,
  causes: {},
  ratio: null,
  rodAngle: null,
  stations: {},
};
/** Brakes that several controls press show what the stronger one does. */
function joined(lines: Record<string, LineFigures>): Record<string, StationFigures> {
  const all: Record<string, StationFigures> = {};
  for (const line of Object.values(lines)) {
    for (const [name, own] of Object.entries(line.stations)) {
      const known = all[name];
      if (!known || own.torque > known.torque) all[name] = own;
    }
  }
  return all;
}

export function figuresAt(curves: Curves, push: number, system: string): Figures {
  const [i, t] = sampleAt(curves.push_n, push);
  const at = (list: readonly number[]) => (list[i] ?? 0) + t * ((list[i + 1] ?? list[i] ?? 0) - (list[i] ?? 0));
  const is = (list: readonly number[]) => (t > 0 ? (list[i + 1] ?? 0) : (list[i] ?? 0)) > 0.5;
  const borne = (list: readonly (number | null)[]) =>
    [list[i], list[t > 0 ? i + 1 : i]].some((v) => v === null) ? null : at(list as readonly number[]);
  const maybe = (list: readonly number[] | null) => (list ? at(list) : null);
  const locked: string[] = [];
  if (is(curves.front_locked)) locked.push('front');
  if (is(curves.rear_locked)) locked.push('rear');
  const lines: Record<string, LineFigures> = {};
  for (const [name, line] of Object.entries(curves.lines)) {
    const stations: Record<string, StationFigures> = {};
    for (const [station, own] of Object.entries(line.stations)) {
      stations[station] = {
        inlet: at(own.inlet_kpa),
        outlet: at(own.outlet_kpa),
        torque: at(own.torque_nm),
        clamp: maybe(own.clamp_n),
      };
    }
    lines[name] = {
      rod: at(line.rod_n),
      out: at(line.out_n),
      travel: maybe(line.travel_mm),
      piston: maybe(line.piston_mm),
      causes: Object.fromEntries(Object.entries(line.causes_mm).map(([cause, list]) => [cause, at(list)])),
      ratio: maybe(line.ratio),
      rodAngle: maybe(line.rod_angle_deg),
      stations,
    };
  }
  return {
    ...(lines[system] ?? NOTHING),
    stations: joined(lines),
    push,
    front: at(curves.front_n),
    rear: at(curves.rear_n),
    decel: at(curves.decel_g),
    gripDecel: at(curves.grip_decel_g),
    locked,
    adhesion: { front: borne(curves.adhesion_front), rear: borne(curves.adhesion_rear) },
    idealShare: at(curves.ideal_front_share),
    lines,
  };
}

/** The push for a deceleration, from the same samples; null where they never reach it. */
export function pushFor(curves: Curves, decel: number): number | null {
  const last = curves.decel_g[curves.decel_g.length - 1] ?? 0;
  if (decel > last) return null;
  const [i, t] = sampleAt(curves.decel_g, decel);
  const a = curves.push_n[i] ?? 0;
  return a + t * ((curves.push_n[i + 1] ?? a) - a);
}

export function figuresOf(moment: Moment, system: string): Figures | null {
  if (!moment.systems[system]) return null;
  const lines: Record<string, LineFigures> = {};
  for (const [name, own] of Object.entries(moment.systems)) {
    const causes: Record<string, number> = {};
    for (const [where, parts] of Object.entries(own.breakdown_mm ?? {})) {
      for (const [cause, value] of Object.entries(parts)) causes[`${where}.${cause}`] = value;
    }
    lines[name] = {
      rod: own.rod_force_n,
      out: own.booster_out_n,
      travel: own.pedal_travel_mm ?? null,
      piston: own.piston_travel_mm ?? null,
      causes,
      ratio: own.instant_ratio ?? null,
      rodAngle: own.rod_angle_deg ?? null,
      stations: Object.fromEntries(
        Object.entries(own.stations).map(([station, s]) => [
          station,
          { inlet: s.pressure_in_kpa, outlet: s.pressure_kpa, torque: s.torque_per_wheel_nm, clamp: s.clamp_n ?? null },
        ]),
      ),
    };
  }
  return {
    ...(lines[system] ?? NOTHING),
    stations: joined(lines),
    push: moment.pedal_force_n,
    front: moment.front_brake_force_n,
    rear: moment.rear_brake_force_n,
    decel: moment.decel_g,
    gripDecel: moment.grip_decel_g,
    locked: moment.locked,
    adhesion: { front: moment.adhesion_front, rear: moment.adhesion_rear },
    idealShare: null,
    lines,
  };
}
