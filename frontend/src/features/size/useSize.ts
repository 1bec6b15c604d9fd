/** Everything the Size views share: the job, what is looked at, the figures at this push, and the steps that change it. */
import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Job } from '../../api/client';
import { useFailed, useMoment, useTry, type Asked, type Step } from '../../api/jobs';
import { useSteps, type Said, type Steps } from '../../api/steps';
import type { Failed, Finding, SetupView, Solved, StateView } from '../../api/types';
import { mendStep, placeOf, withEdits, type Place } from './edits';
import { figuresAt, figuresOf, pushFor, type Figures } from './figures';
import type { FoundLine } from './line/geometry';
import { looking, type Looking } from './state';

const REST_MS = 140;

/** The value once it has not changed for a moment. */
function useRested<T>(value: T): T | null {
  const [rested, setRested] = useState<T | null>(null);
  useEffect(() => {
    const timer = window.setTimeout(() => setRested(value), REST_MS);
    return () => window.clearTimeout(timer);
  }, [value]);
  return rested === value ? rested : null;
}

/** A mend that is looked at before it is taken: the setup as it would be. */
export interface Trying {
  label: string;
  step: Step;
  setup: SetupView;
}

export interface Size {
  job: Job;
  /** The setup drawn: the one in use, or the one tried. */
  setup: SetupView;
  solved: Solved;
  state: StateView;
  look: Looking;
  now: Figures;
  /** True when the figures are the core's own for exactly this push. */
  exact: boolean;
  /** What is drawn grey behind: the setup as found, or the one in use while a mend is tried or a failure supposed. */
  found: FoundLine | null;
  behind: string;
  place: Place;
  message: Said | null;
  trying: Trying | null;
  failure: Failed | null;
  onClose: () => void;
  onUse: (setup: string) => void;
  onPath: (path: string) => void;
  onLoad: (load: number) => void;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
  onMatch: (match: Looking['match']) => void;
  onFailure: (failure: string | null) => void;
  onStep: (step: Step) => Promise<unknown>;
  onMend: (finding: Finding) => void;
  onTake: () => void;
  onLeave: () => void;
  onUndo: () => void;
  onRedo: () => void;
}

const FIRST = { by: 'decel', value: 0.5 } as const satisfies Asked;

/** The path looked at in a setup, the one of all controls when it has no such path. */
export const pathOf = (setup: SetupView | undefined, path: string | null): Solved | null => {
  const paths = setup?.solved?.paths ?? [];
  return paths.find((p) => p.name === path) ?? paths[paths.length - 1] ?? null;
};

export interface Incomplete {
  incomplete: SetupView;
  use: (setup: string) => void;
  steps: Steps;
}

export function useSize(job: Job): Size | Incomplete {
  const { view } = job;
  const [params, setParams] = useSearchParams();
  const asked = params.get('plan');
  const start = view.setups.find((s) => s.key === asked) ?? view.setups[1] ?? view.setups[0];
  const [look, dispatch] = useReducer(looking, {
    setup: start?.key ?? '',
    path: null,
    load: 0,
    asked: view.wanted_decel_g === null ? FIRST : { by: 'decel', value: view.wanted_decel_g },
    match: 'stop',
    failure: null,
  });
  const [tried, setTried] = useState<Trying | null>(null);
  const steps = useSteps(job);
  const { onStep } = steps;

  const used = view.setups.find((s) => s.key === look.setup) ?? view.setups[0];
  const trying = tried !== null && tried.setup.key === used?.key ? tried : null;
  const setup = trying?.setup ?? used;
  const solved = pathOf(setup, look.path);
  const load = Math.min(look.load, (solved?.states.length ?? 1) - 1);
  const whole = solved?.states[load];
  const failed = useFailed(
    job.id,
    job.revision,
    setup?.key ?? '',
    solved?.name ?? '',
    load,
    view.push_range_n,
    trying ? null : look.failure,
  );
  const failure = look.failure !== null && failed.data?.name === look.failure && !trying ? failed.data : null;
  const state = useMemo(() => (whole && failure ? { ...whole, curves: failure.curves } : whole), [whole, failure]);
  const rested = useRested(look.asked);
  const exactly = solved && !trying && look.failure === null ? rested : null;
  const moment = useMoment(job.id, job.revision, setup?.key ?? '', solved?.name ?? '', load, exactly);

  const looked = useMemo(() => {
    if (!state || !solved) return null;
    const push = look.asked.by === 'push' ? look.asked.value : pushFor(state.curves, look.asked.value);
    return figuresAt(state.curves, push ?? view.push_range_n, solved.system);
  }, [state, solved, look.asked, view.push_range_n]);
  const exact = useMemo(
    () => (exactly && moment.data && solved ? figuresOf(moment.data, solved.system) : null),
    [exactly, moment.data, solved],
  );
  const now = useMemo(() => (exact && looked ? { ...exact, idealShare: looked.idealShare } : looked), [exact, looked]);

  const base = trying || failure ? used : view.setups[0];
  const found = useMemo((): FoundLine | null => {
    const own = pathOf(base, look.path);
    const baseState = own?.states[load];
    if (!own || !baseState || !now || (base?.key === setup?.key && !trying && !failure)) return null;
    const push = look.match === 'push' || failure ? now.push : pushFor(baseState.curves, now.decel);
    return push === null ? null : { solved: own, state: baseState, now: figuresAt(baseState.curves, push, own.system) };
  }, [base, setup, trying, failure, load, now, look.match, look.path]);

  const use = useCallback(
    (key: string) => {
      dispatch({ type: 'setup', setup: key });
      setTried(null);
      setParams({ plan: key }, { replace: true });
    },
    [setParams],
  );
  const wanted = view.wanted_decel_g ?? FIRST.value;
  const onLoad = useCallback((next: number) => dispatch({ type: 'load', load: next, decel: wanted }), [wanted]);
  const onPath = useCallback((path: string) => dispatch({ type: 'path', path, decel: wanted }), [wanted]);
  const onPush = useCallback((value: number) => dispatch({ type: 'push', value }), []);
  const onDecel = useCallback((value: number) => dispatch({ type: 'decel', value }), []);
  const onMatch = useCallback((match: Looking['match']) => dispatch({ type: 'match', match }), []);
  const onFailure = useCallback((next: string | null) => dispatch({ type: 'failure', failure: next }), []);
  // What a memoised part is given stays the same while the push is scrubbed.
  const key = setup?.key ?? '';
  const system = solved?.system ?? '';
  const place = useMemo(
    (): Place => placeOf(trying ? withEdits(job.document, trying.step.edits) : job.document, key, system),
    [job.document, trying, key, system],
  );
  const tryIt = useTry(job.id);
  const { mutate: tryOne } = tryIt;
  const onMend = useCallback(
    (finding: Finding) => {
      if (!finding.mend) return;
      const step = mendStep(place, finding.mend.label, finding.mend.edits);
      const label = finding.mend.label.replace(/^(Try|Take) /, '');
      tryOne({ setup: key, edits: step.edits }, { onSuccess: (seen) => setTried({ label, step, setup: seen }) });
    },
    [tryOne, place, key],
  );
  const onTake = useCallback(() => {
    if (!tried) return;
    void onStep(tried.step).then(
      () => setTried(null),
      () => setTried(null),
    );
  }, [tried, onStep]);
  const onLeave = useCallback(() => setTried(null), []);
  if (!setup || !solved || !state || !now) return { incomplete: setup ?? view.setups[0]!, use, steps };

  return {
    job,
    setup,
    solved,
    state,
    look: { ...look, load },
    now,
    exact: exact !== null,
    found,
    behind: trying || failure ? 'now' : 'as found',
    place,
    message: steps.message,
    trying,
    failure,
    onClose: steps.onClose,
    onUse: use,
    onPath,
    onLoad,
    onPush,
    onDecel,
    onMatch,
    onFailure,
    onStep,
    onMend,
    onTake,
    onLeave,
    onUndo: steps.onUndo,
    onRedo: steps.onRedo,
  };
}
