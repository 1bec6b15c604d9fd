/** Where the fields of the parts live in the job's document, and the steps they make. Paths are dotted, below the setup. */
import type { Bore, Job, LineView, PathView, StateView, StationParts, Step } from '../api/types';
import { current, preferredFor } from '../units/preference';

export interface Place {
  /** Name of the setup. */
  setup: string;
  /** The setup as it stands in the document. */
  document: unknown;
  /** Of what holds the control and the cylinder of the line: a system, or a second control of one. */
  control: string;
  /** Of the system whose brakes they press. */
  owner: string;
}

export function valueAt(document: unknown, path: string): unknown {
  let here: unknown = document;
  for (const part of path.split('.')) {
    if (here === null || typeof here !== 'object') return undefined;
    here = (here as Record<string, unknown>)[part];
  }
  return here;
}
/** The JSON Pointer of a dotted path. */
export const pointer = (path: string) => `/${path.replaceAll('.', '/')}`;

/** A setup as it stands in the document: as found stands first, the plans after it. */
export function setupIn({ document, setups }: Job, setup: string): unknown {
  const plan = setups.indexOf(setup) - 1;
  return plan < 0 ? document['as_found'] : valueAt(document, `plans.${plan}`);
}

/** Where a line's control stands in a setup. */
export const placeOf = (line: LineView | undefined, setup: string, document: unknown): Place => ({
  setup,
  document,
  control: line?.place.control ?? 'systems.0',
  owner: line?.place.owner ?? 'systems.0',
});

/** Dotted path of a station by its name. */
export function stationPath(place: Place, name: string): string {
  const stations = (valueAt(place.document, `${place.owner}.stations`) ?? []) as { name: string }[];
  return `${place.owner}.stations.${Math.max(
    0,
    stations.findIndex((s) => s.name === name),
  )}`;
}

/** What was typed into a field: the server reads it, a bare number in the person's own unit. */
export const typedStep = ({ setup }: Place, label: string, path: string, text: string): Step => ({
  label,
  under: setup,
  edits: [{ path: pointer(path), text, preferred: preferredFor(path.endsWith('_kpa') ? 'kPa' : 'mm', current()) }],
});
/** A value put where a path leads. */
export const valueStep = ({ setup }: Place, label: string, path: string, value: unknown, gesture?: string): Step => ({
  label,
  ...(gesture === undefined ? {} : { gesture }),
  under: setup,
  edits: [{ path: pointer(path), value }],
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
  const at = station.valve_place;
  if (!text.trim()) {
    const edits = at === null ? [] : [{ op: 'remove' as const, path: pointer(`${path}.${at}`) }];
    return { label: 'valve out', under: place.setup, edits };
  }
  if (at !== null) return typedStep(place, 'valve knee', `${path}.${at}.knee_kpa`, text);
  const bare = /^[\d.,\s/-]+$/.test(text.trim()) ? `${text.trim()} ${current().pressure}` : text.trim();
  // The whole list: typed again before it is stored, it is the same valve and not another one.
  const devices = (valueAt(place.document, path) ?? []) as unknown[];
  return valueStep(place, 'valve in', path, [...devices, { kind: 'proportioning', knee_kpa: bare }]);
}

export interface Knee {
  /** Front force, rear force and inlet pressure along the path as far as no valve reduces it, in N and kPa. */
  points: readonly { front: number; rear: number; kpa: number }[];
  /** Where the knee is now, or where the path locks when there is no valve yet. */
  kpa: number;
  present: boolean;
}

/** What a knee can be dragged along: the path of one control to both axles, before anything reduces the rear. */
export function kneeOf(solved: PathView, state: StateView): Knee | null {
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
