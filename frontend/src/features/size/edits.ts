/** Where the fields of the parts live in the job's document, and the steps they make. */
import { rootOf, valueAt, type Document } from '../../api/document';
import { current, preferredFor } from '../../units/preference';
import type { Step } from '../../api/jobs';
import type { Bore, Solved, StateView, StationParts } from '../../api/types';

export interface Place {
  /** Dotted path of the setup in the job: `as_found` or `plans.0`. */
  root: string;
  /** Of what holds the control and the cylinder of the line: a system, or a second control of one. */
  control: string;
  /** Of the system whose brakes they press. */
  owner: string;
  document: Document;
}

interface SystemIn {
  name: string;
  stations: { name: string }[];
  second_control?: { name?: string } | { name?: string }[];
}
/** Where a control stands in the job, by its name on the line. */
export function placeOf(document: Document, setup: string, control: string): Place {
  const root = rootOf(document, setup);
  const systems = (valueAt(document, `${root}.systems`) ?? []) as SystemIn[];
  for (const [i, system] of systems.entries()) {
    const owner = `${root}.systems.${i}`;
    if (system.name === control) return { root, control: owner, owner, document };
    const own = system.second_control;
    const seconds = Array.isArray(own) ? own : own ? [own] : [];
    for (const [n, second] of seconds.entries()) {
      const name = second.name ?? `${system.name}_second${seconds.length > 1 ? `_${n + 1}` : ''}`;
      if (name === control)
        return { root, control: `${owner}.second_control${Array.isArray(own) ? `.${n}` : ''}`, owner, document };
    }
  }
  return { root, control: `${root}.systems.0`, owner: `${root}.systems.0`, document };
}

/** Dotted path of a station by its name. */
export function stationPath(place: Place, name: string): string {
  const stations = (valueAt(place.document, `${place.owner}.stations`) ?? []) as { name: string }[];
  return `${place.owner}.stations.${Math.max(
    0,
    stations.findIndex((s) => s.name === name),
  )}`;
}

export const typed = (label: string, path: string, text: string): Step => ({
  label,
  edits: [{ path, text, preferred: preferredFor(path.endsWith('_kpa') ? 'kPa' : 'mm', current()) }],
});

/** The next standard size above or below; null at the end of the list. */
export function nextBore(bores: readonly Bore[], now: number, direction: 1 | -1): Bore | null {
  const apart = 0.15;
  if (direction > 0) return bores.find((b) => b.bore_mm > now + apart) ?? null;
  return [...bores].reverse().find((b) => b.bore_mm < now - apart) ?? null;
}

/** A valve's knee as typed: put in, changed, or taken out when nothing is left in the field. */
export function kneeStep(place: Place, station: StationParts, text: string): Step {
  const path = `${stationPath(place, station.name)}.devices`;
  const devices = (valueAt(place.document, path) ?? []) as { kind: string }[];
  if (!text.trim()) {
    return { label: 'valve out', edits: [{ path, value: devices.filter((d) => d.kind !== 'proportioning') }] };
  }
  if (station.valve_place !== null) return typed('valve knee', `${path}.${station.valve_place}.knee_kpa`, text);
  const bare = /^[\d.,\s/-]+$/.test(text.trim()) ? `${text.trim()} ${current().pressure}` : text.trim();
  return { label: 'valve in', edits: [{ path, value: [...devices, { kind: 'proportioning', knee_kpa: bare }] }] };
}

/** The edits of a mend, which stand below the setup, at their place in the job. */
export const mendStep = (place: Place, label: string, edits: readonly Record<string, unknown>[]): Step => ({
  label,
  edits: edits.map((e) => ({ path: `${place.root}.${String(e['path'])}`, value: e['value'] })),
});

export interface Knee {
  /** Front force, rear force and inlet pressure along the path as far as no valve reduces it, in N and kPa. */
  points: readonly { front: number; rear: number; kpa: number }[];
  /** Where the knee is now, or where the path locks when there is no valve yet. */
  kpa: number;
  present: boolean;
}

/** What a knee can be dragged along: the path of one control to both axles, before anything reduces the rear. */
export function kneeOf(solved: Solved, state: StateView): Knee | null {
  const rear = solved.parts.stations.find((s) => s.axle === 'rear');
  const own = rear && state.curves.lines[solved.system]?.stations[rear.name];
  if (!rear || !own || solved.lines.length !== 1 || !solved.parts.stations.some((s) => s.axle === 'front')) return null;
  const { front_n, rear_n } = state.curves;
  const points = own.inlet_kpa.flatMap((kpa, i) => {
    const whole = Math.abs((own.outlet_kpa[i] ?? 0) - kpa) < 0.5;
    return whole && kpa > 0 ? [{ front: front_n[i] ?? 0, rear: rear_n[i] ?? 0, kpa }] : [];
  });
  if (points.length < 2) return null;
  const lock = state.lock ? state.curves.push_n.findIndex((n) => n >= (state.lock?.push_n ?? 0)) : -1;
  const last = points[points.length - 1]?.kpa ?? 0;
  return {
    points,
    kpa: rear.valve?.knee_kpa ?? Math.min(last, lock >= 0 ? (own.inlet_kpa[lock] ?? last) : last),
    present: rear.valve !== null,
  };
}

/** The document as it would be with some values set: for showing what is tried. */
export function withEdits(document: Document, edits: Step['edits']): Document {
  const copy = structuredClone(document);
  for (const { path, value } of edits) {
    const parts = path.split('.');
    const last = parts.pop();
    const holder = valueAt(copy, parts.join('.'));
    if (last !== undefined && holder !== null && typeof holder === 'object')
      (holder as Record<string, unknown>)[last] = value;
  }
  return copy;
}
