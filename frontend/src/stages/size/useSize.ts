/** The store of Size: what is looked at, the line that comes of it, and what a person does. */
import { useCallback, useMemo, useReducer } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, type Steps } from '../../api/changes';
import { useFailed, useMends, useMoment, useTry, useVerdicts } from '../../api/size';
import type { Failed, Job, Mend, SetupView, SizeView, Step } from '../../api/types';
import type { Figures } from '../../chain/figures';
import type { FoundLine } from '../../chain/geometry';
import type { Place } from '../../chain/place';
import { useSettled } from '../../ui/useSettled';
import * as select from './select';
import { FIRST_STOP_G, firstLook, looking, type Beneath, type Looking, type Trying } from './state';

const REST_MS = 140;

/** What a person does; none of these changes while a push is scrubbed. */
export interface Acts {
  onUse: (setup: string) => void;
  onMove: (plan: string, at: number) => void;
  onPath: (path: string) => void;
  onLoad: (load: number) => void;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
  onMatch: (match: Looking['match']) => void;
  onFailure: (failure: string | null) => void;
  onBeneath: (beneath: Beneath) => void;
  onStep: (step: Step) => Promise<unknown>;
  onMend: (mend: Mend) => void;
  onTake: () => void;
  onLeave: () => void;
}

/** What is on the line and the figures at this push: what the drawing, the instruments and the findings show. */
export interface Reading extends select.Line {
  job: Job;
  view: SizeView;
  kind: select.VehicleKind;
  now: Figures;
  /** What is drawn grey behind: the setup as found, or the one in use while a mend is tried or a failure supposed. */
  found: FoundLine | null;
  behind: string;
  /** How the two are matched. */
  match: Looking['match'];
  place: Place;
  trying: Trying | null;
  failure: Failed | null;
  onStep: Acts['onStep'];
}

export interface Size {
  look: Looking;
  steps: Steps;
  acts: Acts;
  /** The setup in use. */
  used: SetupView | undefined;
  /** Null where the setup in use cannot be solved yet. */
  reading: Reading | null;
}

export function useSize(job: Job, nominal: SizeView): Size {
  const [params, setParams] = useSearchParams();
  const asked = params.get('plan');
  const start = nominal.setups.find((s) => s.key === asked) ?? nominal.setups[1] ?? nominal.setups[0];
  const [look, dispatch] = useReducer(looking, firstLook(start?.key ?? '', nominal.wanted_decel_g));
  const verdicts = useVerdicts(job.id, job.revision).data;
  const mends = useMends(job.id, job.revision, look.setup, verdicts !== undefined).data;
  const view = useMemo(() => select.judged(nominal, verdicts, mends), [nominal, verdicts, mends]);
  const steps = useSteps(job, 'size');
  const { trying, path, load, asked: push } = look;
  const used = select.setupOf(view, look.setup);

  const sound = useMemo(() => select.lineOf(trying?.setup ?? used, path, load), [trying, used, path, load]);
  const asking = { setup: sound?.setup.key ?? '', path: sound?.solved.name ?? '', load: sound?.load ?? 0 };
  const failed = useFailed(job.id, job.revision, asking, view.push_range_n, trying ? null : look.failure);
  const failure = look.failure !== null && failed.data?.name === look.failure && !trying ? failed.data : null;
  const line = useMemo(() => select.failedLine(sound, failure), [sound, failure]);
  const rested = useSettled(push, REST_MS) === push;
  const exactly = sound && !trying && look.failure === null && rested ? push : null;
  const moment = useMoment(job.id, job.revision, asking, exactly).data;
  const now = useMemo(() => {
    if (!line) return null;
    const sampled = select.sampledFigures(line, push, view.push_range_n);
    return (exactly && moment && select.exactFigures(line, moment, sampled)) || sampled;
  }, [line, push, view.push_range_n, exactly, moment]);

  const supposed = trying !== null || failure !== null;
  const base = supposed ? used : view.setups[0];
  const match = select.matchOf(look.match, failure !== null);
  const found = useMemo(() => {
    if (!now || (base?.key === line?.setup.key && !supposed)) return null;
    return select.lineBehind(select.lineOf(base, path, load), now, match);
  }, [now, base, line, supposed, path, load, match]);

  const acts = useActs(job, view, look, dispatch, steps, setParams);
  const place = useMemo(() => line && select.placeIn(job, line, trying?.document), [job, line, trying]);
  const reading = useMemo(
    (): Reading | null =>
      line && now && place
        ? {
            ...line,
            job,
            view,
            kind: select.kindOf(job),
            now,
            found,
            behind: supposed ? 'now' : 'as found',
            match,
            place,
            trying,
            failure,
            onStep: steps.onStep,
          }
        : null,
    [job, view, line, now, found, supposed, match, place, trying, failure, steps.onStep],
  );
  return { look, steps, acts, used, reading };
}

function useActs(
  job: Job,
  view: SizeView,
  look: Looking,
  dispatch: (look: Parameters<typeof looking>[1]) => void,
  { onStep }: Steps,
  setParams: ReturnType<typeof useSearchParams>[1],
): Acts {
  const wanted = view.wanted_decel_g ?? FIRST_STOP_G;
  const { mutate: tryOne } = useTry(job.id);
  const { setup, trying } = look;
  const onUse = useCallback(
    (key: string) => {
      dispatch({ type: 'setup', setup: key });
      setParams({ plan: key }, { replace: true });
    },
    [dispatch, setParams],
  );
  const onMend = useCallback(
    (mend: Mend) => {
      const step: Step = { label: mend.name, under: setup, edits: mend.edits };
      const onSuccess = (tried: { setup: SetupView; document: unknown }) =>
        dispatch({ type: 'try', trying: { name: mend.name, step, ...tried } });
      tryOne({ setup, edits: mend.edits }, { onSuccess });
    },
    [dispatch, tryOne, setup],
  );
  const onTake = useCallback(() => {
    if (!trying) return;
    const leave = () => dispatch({ type: 'leave' });
    void onStep(trying.step).then(leave, leave);
  }, [dispatch, trying, onStep]);
  return useMemo(
    () => ({
      onUse,
      onMove: (plan: string, at: number) =>
        void onStep({ label: `${plan} moved`, plan: { do: 'move', name: plan, at } }).catch(() => undefined),
      onMend,
      onTake,
      onStep,
      onPath: (path) => dispatch({ type: 'path', path, decel: wanted }),
      onLoad: (load) => dispatch({ type: 'load', load, decel: wanted }),
      onPush: (value) => dispatch({ type: 'push', value }),
      onDecel: (value) => dispatch({ type: 'decel', value }),
      onMatch: (match) => dispatch({ type: 'match', match }),
      onFailure: (failure) => dispatch({ type: 'failure', failure }),
      onBeneath: (beneath) => dispatch({ type: 'beneath', beneath }),
      onLeave: () => dispatch({ type: 'leave' }),
    }),
    [onUse, onMend, onTake, onStep, dispatch, wanted],
  );
}
