/** Where the fields of the parts live in the job's document, and the steps they make. */
import type { Step } from '../../api/jobs';
import type { Bore, StationParts } from '../../api/types';

export interface Place {
  /** Dotted path of the setup's systems in the job: `as_found` or `plans.0`. */
  root: string;
  document: Record<string, unknown>;
}

export const rootOf = (document: Record<string, unknown>, setup: string): string => {
  const plans = (document['plans'] ?? []) as { name: string }[];
  const index = plans.findIndex((p) => p.name === setup);
  return index < 0 ? 'as_found' : `plans.${index}`;
};

export function valueAt(document: unknown, path: string): unknown {
  let here: unknown = document;
  for (const part of path.split('.')) {
    if (here === null || typeof here !== 'object') return undefined;
    here = (here as Record<string, unknown>)[part];
  }
  return here;
}

export const typed = (label: string, path: string, text: string): Step => ({
  label,
  edits: [{ path, text, preferred: path.endsWith('_kpa') ? 'psi' : 'mm' }],
});

/** The next standard size above or below; null at the end of the list. */
export function nextBore(bores: readonly Bore[], now: number, direction: 1 | -1): Bore | null {
  const apart = 0.15;
  if (direction > 0) return bores.find((b) => b.bore_mm > now + apart) ?? null;
  return [...bores].reverse().find((b) => b.bore_mm < now - apart) ?? null;
}

/** A valve's knee as typed: put in, changed, or taken out when nothing is left in the field. */
export function kneeStep(place: Place, station: StationParts, index: number, text: string): Step {
  const path = `${place.root}.systems.0.stations.${index}.devices`;
  const devices = (valueAt(place.document, path) ?? []) as { kind: string }[];
  if (!text.trim()) {
    return { label: 'valve out', edits: [{ path, value: devices.filter((d) => d.kind !== 'proportioning') }] };
  }
  if (station.valve_place !== null) return typed('valve knee', `${path}.${station.valve_place}.knee_kpa`, text);
  const bare = /^[\d.,\s/-]+$/.test(text.trim()) ? `${text.trim()} psi` : text.trim();
  return { label: 'valve in', edits: [{ path, value: [...devices, { kind: 'proportioning', knee_kpa: bare }] }] };
}

/** The edits of a mend, which stand below the setup, at their place in the job. */
export const mendStep = (place: Place, label: string, edits: readonly Record<string, unknown>[]): Step => ({
  label,
  edits: edits.map((e) => ({ path: `${place.root}.${String(e['path'])}`, value: e['value'] })),
});
