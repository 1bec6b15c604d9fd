/** The figures on the line at one push: looked up between the core's samples while scrubbing, the core's own at rest. */
import type { Curves, Moment } from '../../api/types';

export interface StationFigures {
  inlet: number;
  outlet: number;
  torque: number;
  clamp: number | null;
}
export interface Figures {
  push: number;
  rod: number;
  out: number;
  front: number;
  rear: number;
  decel: number;
  gripDecel: number;
  locked: string[];
  /** Front share at which both axles would use the same grip; known between samples only. */
  idealShare: number | null;
  stations: Record<string, StationFigures>;
  travel: number | null;
  piston: number | null;
  causes: Record<string, number>;
}

/** Place of x in a rising list: the index before it, and the fraction of the step. */
function place(list: readonly number[], x: number): [number, number] {
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

export function figuresAt(curves: Curves, push: number): Figures {
  const [i, t] = place(curves.push_n, push);
  const at = (list: readonly number[]) => (list[i] ?? 0) + t * ((list[i + 1] ?? list[i] ?? 0) - (list[i] ?? 0));
  const is = (list: readonly number[]) => (t > 0 ? (list[i + 1] ?? 0) : (list[i] ?? 0)) > 0.5;
  const locked: string[] = [];
  if (is(curves.front_locked)) locked.push('front');
  if (is(curves.rear_locked)) locked.push('rear');
  const stations: Record<string, StationFigures> = {};
  for (const [name, own] of Object.entries(curves.stations)) {
    stations[name] = {
      inlet: at(own.inlet_kpa),
      outlet: at(own.outlet_kpa),
      torque: at(own.torque_nm),
      clamp: own.clamp_n ? at(own.clamp_n) : null,
    };
  }
  return {
    push,
    rod: at(curves.rod_n),
    out: at(curves.out_n),
    front: at(curves.front_n),
    rear: at(curves.rear_n),
    decel: at(curves.decel_g),
    gripDecel: at(curves.grip_decel_g),
    locked,
    idealShare: at(curves.ideal_front_share),
    stations,
    travel: curves.travel_mm ? at(curves.travel_mm) : null,
    piston: curves.piston_mm ? at(curves.piston_mm) : null,
    causes: Object.fromEntries(Object.entries(curves.causes_mm).map(([name, list]) => [name, at(list)])),
  };
}

/** The push for a deceleration, from the same samples; null where they never reach it. */
export function pushFor(curves: Curves, decel: number): number | null {
  const last = curves.decel_g[curves.decel_g.length - 1] ?? 0;
  if (decel > last) return null;
  const [i, t] = place(curves.decel_g, decel);
  const a = curves.push_n[i] ?? 0;
  return a + t * ((curves.push_n[i + 1] ?? a) - a);
}

export function figuresOf(moment: Moment, system: string): Figures | null {
  const own = moment.systems[system];
  if (!own) return null;
  const causes: Record<string, number> = {};
  for (const [where, parts] of Object.entries(own.breakdown_mm ?? {})) {
    for (const [cause, value] of Object.entries(parts)) causes[`${where}.${cause}`] = value;
  }
  return {
    push: moment.pedal_force_n,
    rod: own.rod_force_n,
    out: own.booster_out_n,
    front: moment.front_brake_force_n,
    rear: moment.rear_brake_force_n,
    decel: moment.decel_g,
    gripDecel: moment.grip_decel_g,
    locked: moment.locked,
    idealShare: null,
    stations: Object.fromEntries(
      Object.entries(own.stations).map(([name, s]) => [
        name,
        { inlet: s.pressure_in_kpa, outlet: s.pressure_kpa, torque: s.torque_per_wheel_nm, clamp: s.clamp_n ?? null },
      ]),
    ),
    travel: own.pedal_travel_mm ?? null,
    piston: own.piston_travel_mm ?? null,
    causes,
  };
}
