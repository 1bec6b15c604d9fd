/** What the instruments show, gathered from the core's figures: which causes stand together, and what each circuit leaves. */
import type { Failure, Finding, SetupView, StateView, StationParts } from '../../api/types';
import type { BalancePath } from '../../charts/Balance';
import type { Cause, Lost } from '../../charts/TravelStair';
import { decel } from '../../units/format';
import { force, lengthOf, written } from '../../units/display';
import type { Figures } from '../../chain/figures';

/** Causes of travel that stand together, by what they are of: the control, the cylinder, the brakes or the lines of a station. */
interface CauseGroup {
  name: string;
  of: 'control' | 'cylinder' | 'brakes' | 'lines';
  causes: readonly string[];
}
const GROUPS: readonly CauseGroup[] = [
  { name: 'free play', of: 'control', causes: ['free_play'] },
  { name: 'booster lost', of: 'control', causes: ['booster_lost'] },
  { name: 'mounting gives', of: 'control', causes: ['mount'] },
  { name: 'cylinder lost', of: 'cylinder', causes: [] },
  { name: 'pad clearance', of: 'brakes', causes: ['clearance', 'knock_back'] },
  { name: 'shoe clearance', of: 'brakes', causes: ['shoes'] },
  { name: 'caliper give', of: 'brakes', causes: ['caliper', 'pads'] },
  { name: 'drum give', of: 'brakes', causes: ['drum'] },
  { name: 'hoses', of: 'lines', causes: ['hose'] },
  { name: 'fluid and pipe', of: 'lines', causes: ['fluid', 'hard_line'] },
  { name: 'trapped air', of: 'lines', causes: ['air'] },
];
const AXLES = ['front', 'rear'] as const;

/** Where the pedal goes, in the order of the groups: those of the brakes once for each axle. */
export function causesOf(now: Figures, stations: readonly StationParts[]): Cause[] {
  const axleOf = new Map(stations.map((s) => [s.name, s.axle]));
  const all = Object.entries(now.causes).map(([key, mm]) => {
    const at = key.lastIndexOf('.');
    return { key, where: key.slice(0, at), cause: key.slice(at + 1), mm };
  });
  const taken = new Set<string>();
  const group = (name: string, side: Cause['side'], is: (where: string, cause: string) => boolean): Cause => {
    const own = all.filter(({ key, where, cause }) => !taken.has(key) && is(where, cause));
    own.forEach(({ key }) => taken.add(key));
    return { name, side, mm: own.reduce((sum, { mm }) => sum + mm, 0) };
  };
  const groups = GROUPS.flatMap(({ name, of, causes }): Cause[] => {
    switch (of) {
      case 'control':
        return [group(name, 'shared', (where, cause) => where === 'control' && causes.includes(cause))];
      case 'cylinder':
        return [group(name, 'shared', (where) => where === 'cylinder')];
      case 'lines':
        return [group(name, 'shared', (_, cause) => causes.includes(cause))];
      case 'brakes':
        return AXLES.map((axle) =>
          group(`${name}, ${axle}`, axle, (where, cause) => axleOf.get(where) === axle && causes.includes(cause)),
        );
    }
  });
  const rest = all
    .filter(({ key }) => !taken.has(key))
    .map(({ where, cause, mm }): Cause => ({ name: `${where} ${cause}`.replaceAll('_', ' '), side: 'shared', mm }));
  return [...groups, ...rest].filter((c) => c.mm > 0.005);
}

/** What each loss leaves, as its finding judges it; what is the same of several controls is said once. */
export function lostOf(failures: readonly Failure[], findings: readonly Finding[]): Lost[] {
  const rows: { systems: (string | null)[]; of: Failure; row: Omit<Lost, 'words'> }[] = [];
  for (const f of failures) {
    const z = decel(f.best_grip_decel_g);
    const ends: Record<Failure['limited_by'], string> = {
      force: `${z} g at ${written(force(f.pedal_force_n))}`,
      travel: `floor at ${written(force(f.pedal_force_n))}, ${z} g`,
      chamber: `chamber spent at ${written(force(f.pedal_force_n))}, ${z} g`,
      contact: 'floor before contact',
      all_lost: 'no brakes left',
    };
    const level = findings.find(({ id }) => id === f.name)?.level;
    const known = rows.find((r) => r.of.kind === f.kind && r.of.what === f.what && r.row.ends === ends[f.limited_by]);
    if (known) known.systems.push(f.system);
    else
      rows.push({
        systems: [f.system],
        of: f,
        row: {
          ends: ends[f.limited_by],
          mm: f.pedal_travel_mm,
          level: level === 'danger' || level === 'caution' ? level : 'good',
        },
      });
  }
  return rows.map(({ systems, of: { loss }, row }) => ({
    ...row,
    words: systems.length > 1 ? `one ${loss}` : systems[0] ? `${systems[0]}: ${loss}` : loss,
  }));
}

export const shortName = (name: string) => name.replace(/^plan /, '');

/** The path of each setup in the plane of front and rear force: the one in use, as found behind it, the others. */
export function pathsOf(
  setups: readonly SetupView[],
  using: SetupView,
  drawn: StateView,
  path: string,
  load: number,
): BalancePath[] {
  const one = (setup: SetupView): BalancePath[] => {
    const own = setup.key === using.key;
    const state = own ? drawn : setup.solved?.paths.find((p) => p.name === path)?.states[load];
    if (!state) return [];
    return [
      {
        name: shortName(setup.name),
        kind: own ? 'plan' : setup.key === setups[0]?.key ? 'found' : 'other',
        points: state.curves.front_n.map((f, i) => [f, state.curves.rear_n[i] ?? 0] as const),
        lock: lockOf(state),
      },
    ];
  };
  const order = { found: 0, other: 1, plan: 2 };
  return setups.flatMap(one).sort((a, b) => order[a.kind] - order[b.kind]);
}

const lockOf = ({ lock }: StateView): BalancePath['lock'] =>
  lock && { front: lock.front_n, rear: lock.rear_n, decel: lock.decel_g };

export const roomLeft = (available: number | null, travel: number | null) =>
  available === null || travel === null ? '' : `${written(lengthOf(available - travel))} left to the floor`;
