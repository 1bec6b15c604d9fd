/** What is on the line, picked out of the page's answer by what is looked at. Pure: answers and a look in, records out. */
import type {
  Failed,
  Job,
  MendsView,
  Moment,
  PathView,
  SetupView,
  SizeView,
  StateView,
  Verdicts,
} from '../../api/types';
import { figuresAt, figuresOf, pushFor, type Figures } from '../../chain/figures';
import type { FoundLine } from '../../chain/geometry';
import { placeOf, setupIn, type Place } from '../../chain/place';
import type { Looking } from './state';

/** The line that is drawn: a setup, one of its control paths, in one load state. */
export interface Line {
  setup: SetupView;
  solved: PathView;
  state: StateView;
  load: number;
}

/** The path looked at in a setup, the one of all controls when it has no such path. */
export const pathOf = (setup: SetupView | undefined, path: string | null): PathView | null => {
  const paths = setup?.solved?.paths ?? [];
  return paths.find((p) => p.name === path) ?? paths[paths.length - 1] ?? null;
};

/** The setup in use. */
export const setupOf = (view: SizeView, name: string): SetupView | undefined =>
  view.setups.find((s) => s.key === name) ?? view.setups[0];

/** The page's answer with what its trials and its mends say, as far as they are there for this revision. */
export function judged(view: SizeView, verdicts: Verdicts | undefined, mends: MendsView | undefined): SizeView {
  if (verdicts?.revision !== view.revision) return view;
  const own = new Map(verdicts.setups.map((s) => [s.key, s]));
  const offered = mends?.revision === view.revision ? mends : undefined;
  const setups = view.setups.map((setup) => {
    const told = own.get(setup.key);
    if (!told || !setup.solved) return setup;
    const findings =
      offered?.key === setup.key
        ? told.findings.map((f) => ({ ...f, mends: offered.mends[f.id] ?? [] }))
        : told.findings;
    return { ...setup, level: told.level, findings };
  });
  return { ...view, setups };
}

/** The line of a setup as it is looked at; null where it cannot be solved. */
export function lineOf(setup: SetupView | undefined, path: string | null, asked: number): Line | null {
  const solved = pathOf(setup, path);
  if (!setup || !solved) return null;
  const load = Math.min(asked, solved.states.length - 1);
  const state = solved.states[load];
  return state ? { setup, solved, state, load } : null;
}

/** The same with a failure in it. */
export const failedLine = (line: Line | null, failed: Failed | null): Line | null =>
  line && failed ? { ...line, state: { ...line.state, curves: failed.curves, gains: failed.gains } } : line;

/** The figures between the core's samples; of a stop above the first lock those of the lock. */
export function sampledFigures({ solved, state }: Line, asked: Looking['asked'], reach: number): Figures {
  const { lock } = state;
  const wanted = lock && asked.value > lock.decel_g ? lock.push_n : pushFor(state.curves, asked.value);
  const push = asked.by === 'push' ? asked.value : wanted;
  return figuresAt(state.curves, push ?? reach, solved.system);
}
/** The core's own figures at rest, with what only the samples know. */
export const exactFigures = ({ solved }: Line, moment: Moment, sampled: Figures): Figures | null => {
  const own = figuresOf(moment, solved.system);
  return own && { ...own, idealShare: sampled.idealShare };
};

/** How the line behind is matched with the one drawn: a failure is looked at with the same push. */
export const matchOf = (match: Looking['match'], failed: boolean) => (failed ? 'push' : match);

/** What stands grey behind a line: another setup's, or its own while something is tried or has failed. */
export function lineBehind(behind: Line | null, now: Figures, match: Looking['match']): FoundLine | null {
  if (!behind) return null;
  const { solved, state } = behind;
  const push = match === 'push' ? now.push : pushFor(state.curves, now.decel);
  return push === null ? null : { solved, state, now: figuresAt(state.curves, push, solved.system) };
}

/** Where the fields of a line are in the document; of a setup that is tried, in the one it would be. */
export const placeIn = (job: Job, line: Line, tried: unknown): Place =>
  placeOf(
    line.solved.lines.find((l) => l.system === line.solved.system),
    line.setup.key,
    tried ?? setupIn(job, line.setup.key),
  );

export type VehicleKind = 'car' | 'truck' | 'motorcycle' | 'aircraft';
export const kindOf = ({ document }: Job): VehicleKind =>
  (document['vehicle'] as { kind?: VehicleKind } | undefined)?.kind ?? 'car';
