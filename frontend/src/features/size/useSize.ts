/** Everything the Size views share: the job, what is looked at, the figures at this push, and the steps that change it. */
import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import { useSearchParams } from 'react-router';
import { Refused, type Job } from '../../api/client';
import { useChange, useMoment, type Asked, type Step } from '../../api/jobs';
import type { Finding, SetupView, Solved, StateView } from '../../api/types';
import { mendStep, rootOf, type Place } from './edits';
import { figuresAt, figuresOf, pushFor, type Figures } from './figures';
import type { FoundLine } from './ForceLine';
import type { Said } from './Message';
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

function both(problem: Refused['problem']): string {
  const [one] = problem.both ?? [];
  if (!one) return problem.detail;
  const shown = (value: unknown) =>
    typeof value === 'string' || typeof value === 'number' ? String(value) : 'another one';
  return `Changed elsewhere since you looked: stored is ${shown(one['stored'])}, you entered ${shown(one['yours'])}. Nothing was overwritten.`;
}

export interface Size {
  job: Job;
  setup: SetupView;
  solved: Solved;
  state: StateView;
  look: Looking;
  now: Figures;
  /** True when the figures are the core's own for exactly this push. */
  exact: boolean;
  found: FoundLine | null;
  place: Place;
  message: Said | null;
  busy: boolean;
  onClose: () => void;
  onUse: (setup: string) => void;
  onLoad: (load: number) => void;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
  onMatch: (match: Looking['match']) => void;
  onStep: (step: Step) => Promise<unknown>;
  onMend: (finding: Finding) => void;
  onUndo: () => void;
  onRedo: () => void;
}

const FIRST = { by: 'decel', value: 0.5 } as const satisfies Asked;

export function useSize(job: Job): Size | { incomplete: SetupView; use: (setup: string) => void; using: string } {
  const { view } = job;
  const [params, setParams] = useSearchParams();
  const asked = params.get('plan');
  const start = view.setups.find((s) => s.key === asked) ?? view.setups[1] ?? view.setups[0];
  const [look, dispatch] = useReducer(looking, {
    setup: start?.key ?? '',
    load: 0,
    asked: view.wanted_decel_g === null ? FIRST : { by: 'decel', value: view.wanted_decel_g },
    match: 'stop',
  });
  const [message, setMessage] = useState<Said | null>(null);
  const { change, undo, redo } = useChange(job.id);

  const setup = view.setups.find((s) => s.key === look.setup) ?? view.setups[0];
  const solved = setup?.solved ?? null;
  const load = Math.min(look.load, (solved?.states.length ?? 1) - 1);
  const state = solved?.states[load];
  const rested = useRested(look.asked);
  const moment = useMoment(job.id, job.revision, setup?.key ?? '', load, solved ? rested : null);

  const looked = useMemo(() => {
    if (!state) return null;
    const push = look.asked.by === 'push' ? look.asked.value : pushFor(state.curves, look.asked.value);
    return figuresAt(state.curves, push ?? view.push_range_n);
  }, [state, look.asked, view.push_range_n]);
  const exact = useMemo(
    () => (moment.data && solved && rested ? figuresOf(moment.data, solved.system) : null),
    [moment.data, solved, rested],
  );
  const now = useMemo(() => (exact && looked ? { ...exact, idealShare: looked.idealShare } : looked), [exact, looked]);

  const base = view.setups[0];
  const found = useMemo((): FoundLine | null => {
    const baseState = base?.solved?.states[load];
    if (!base?.solved || !baseState || !now || base.key === setup?.key) return null;
    const push = look.match === 'push' ? now.push : pushFor(baseState.curves, now.decel);
    return push === null ? null : { solved: base.solved, state: baseState, now: figuresAt(baseState.curves, push) };
  }, [base, setup, load, now, look.match]);

  const use = useCallback(
    (key: string) => {
      dispatch({ type: 'setup', setup: key });
      setParams({ plan: key }, { replace: true });
    },
    [setParams],
  );
  const wanted = view.wanted_decel_g ?? FIRST.value;
  const onLoad = useCallback((next: number) => dispatch({ type: 'load', load: next, decel: wanted }), [wanted]);
  const onPush = useCallback((value: number) => dispatch({ type: 'push', value }), []);
  const onDecel = useCallback((value: number) => dispatch({ type: 'decel', value }), []);
  const onMatch = useCallback((match: Looking['match']) => dispatch({ type: 'match', match }), []);
  // What a memoised part is given stays the same while the push is scrubbed.
  const key = setup?.key ?? '';
  const place = useMemo(
    (): Place => ({ root: rootOf(job.document, key), document: job.document }),
    [job.document, key],
  );
  const refused = useCallback((error: unknown, again?: () => void) => {
    if (!(error instanceof Refused)) throw error;
    const { problem } = error;
    setMessage(problem.status === 409 ? { text: both(problem), mine: again } : { text: problem.detail });
  }, []);
  const { mutateAsync } = change;
  const onStep = useCallback(
    async function step(edit: Step): Promise<unknown> {
      try {
        const answer = await mutateAsync(edit);
        setMessage(null);
        return answer;
      } catch (error) {
        refused(error, () => void step(edit).catch(() => undefined));
        throw error;
      }
    },
    [mutateAsync, refused],
  );
  const onMend = useCallback(
    (finding: Finding) => {
      if (finding.mend) void onStep(mendStep(place, finding.mend.label, finding.mend.edits)).catch(() => undefined);
    },
    [onStep, place],
  );
  const { mutate: undoOne } = undo;
  const { mutate: redoOne } = redo;
  const onUndo = useCallback(() => {
    setMessage(null);
    if (job.can_undo) undoOne(undefined, { onError: (error) => refused(error) });
  }, [job.can_undo, undoOne, refused]);
  const onRedo = useCallback(() => {
    setMessage(null);
    if (job.can_redo) redoOne(undefined, { onError: (error) => refused(error) });
  }, [job.can_redo, redoOne, refused]);
  if (!setup || !solved || !state || !now) return { incomplete: setup ?? view.setups[0]!, use, using: look.setup };

  return {
    job,
    setup,
    solved,
    state,
    look: { ...look, load },
    now,
    exact: exact !== null,
    found,
    place,
    message,
    busy: change.isPending || undo.isPending || redo.isPending,
    onClose: () => setMessage(null),
    onUse: use,
    onLoad,
    onPush,
    onDecel,
    onMatch,
    onStep,
    onMend,
    onUndo,
    onRedo,
  };
}
