/** What the instruments show, gathered from the core's figures: which causes stand together, and what each circuit leaves. */
import type { Failure, JobView, SetupView, StateView } from '../../api/types';
import type { BalancePath } from '../../charts/Balance';
import type { Cause, Lost } from '../../charts/TravelStair';
import { decel, millimetres } from '../../units/format';
import { force, written } from '../../units/shown';
import type { Figures } from './figures';

const GROUPS: readonly { name: string; side: Cause['side']; parts: RegExp }[] = [
  { name: 'free play', side: 'shared', parts: /^control\.free_play$/ },
  { name: 'booster lost', side: 'shared', parts: /^control\.booster_lost$/ },
  { name: 'mounting gives', side: 'shared', parts: /^control\.mount$/ },
  { name: 'cylinder lost', side: 'shared', parts: /^cylinder\./ },
  { name: 'pad clearance, front', side: 'front', parts: /^front.*\.(clearance|knock_back)$/ },
  { name: 'shoe clearance, front', side: 'front', parts: /^front.*\.shoes$/ },
  { name: 'pad clearance, rear', side: 'rear', parts: /^rear.*\.(clearance|knock_back)$/ },
  { name: 'shoe clearance, rear', side: 'rear', parts: /^rear.*\.shoes$/ },
  { name: 'caliper give, front', side: 'front', parts: /^front.*\.(caliper|pads)$/ },
  { name: 'drum give, front', side: 'front', parts: /^front.*\.drum$/ },
  { name: 'caliper give, rear', side: 'rear', parts: /^rear.*\.(caliper|pads)$/ },
  { name: 'drum give, rear', side: 'rear', parts: /^rear.*\.drum$/ },
  { name: 'hoses', side: 'shared', parts: /\.hose$/ },
  { name: 'fluid and pipe', side: 'shared', parts: /\.(fluid|hard_line)$/ },
  { name: 'trapped air', side: 'shared', parts: /\.air$/ },
];

export function causesOf(now: Figures): Cause[] {
  const left = { ...now.causes };
  const groups = GROUPS.map(({ name, side, parts }) => {
    let mm = 0;
    for (const key of Object.keys(left)) {
      if (parts.test(key)) {
        mm += left[key] ?? 0;
        delete left[key];
      }
    }
    return { name, side, mm };
  });
  const rest = Object.entries(left).map(([name, mm]): Cause => ({
    name: name.replace(/[._]/g, ' '),
    side: 'shared',
    mm,
  }));
  return [...groups, ...rest].filter((c) => c.mm > 0.005);
}

/** "front circuit lost", "hand circuit lost", "booster lost". */
const words = (name: string) => {
  const [before = '', what = ''] = name.split('lost_');
  const own = what === 'circuit' ? '' : what.replace(/_/g, ' ');
  return `${[before.replace(/_/g, ' ').trim(), own].filter(Boolean).join(' ')} ${what === 'booster' ? '' : 'circuit '}lost`;
};

export function lostOf(failures: readonly Failure[]): Lost[] {
  return failures.map((f) => {
    const z = decel(f.best_grip_decel_g);
    const short = f.limited_by === 'travel' || f.limited_by === 'chamber' || f.limited_by === 'contact';
    const ends: Record<Failure['limited_by'], string> = {
      force: `${z} g at ${written(force(f.pedal_force_n))}`,
      travel: `floor at ${written(force(f.pedal_force_n))}, ${z} g`,
      chamber: `chamber spent at ${written(force(f.pedal_force_n))}, ${z} g`,
      contact: 'floor before contact',
      all_lost: 'no brakes left',
    };
    return {
      words: words(f.name),
      ends: ends[f.limited_by],
      mm: f.pedal_travel_mm,
      level: !f.reaches_2p44_m_per_s2 ? 'danger' : short ? 'caution' : 'good',
    };
  });
}

export const shortName = (name: string) => name.replace(/^plan /, '');

/** The path of each setup in the plane of front and rear force: the one in use, as found behind it, the others. */
export function pathsOf(view: JobView, using: SetupView, shown: StateView, path: string, load: number): BalancePath[] {
  const one = (setup: SetupView): BalancePath[] => {
    const own = setup.key === using.key;
    const state = own ? shown : setup.solved?.paths.find((p) => p.name === path)?.states[load];
    if (!state) return [];
    return [
      {
        name: shortName(setup.name),
        kind: own ? 'plan' : setup.key === view.setups[0]?.key ? 'found' : 'other',
        points: state.curves.front_n.map((f, i) => [f, state.curves.rear_n[i] ?? 0] as const),
        lock: lockOf(state),
      },
    ];
  };
  const order = { found: 0, other: 1, plan: 2 };
  return view.setups.flatMap(one).sort((a, b) => order[a.kind] - order[b.kind]);
}

const lockOf = ({ lock }: StateView): BalancePath['lock'] =>
  lock && { front: lock.front_n, rear: lock.rear_n, decel: lock.decel_g };

export const roomLeft = (available: number | null, travel: number | null) =>
  available === null || travel === null ? '' : `${millimetres(available - travel)} mm left to the floor`;
