/** What the parts of Build share: the view, the step that is looked at, and what is recorded. */
import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, type Steps } from '../../api/changes';
import { useRecorder, useUnsent, type Recorder } from '../../api/records';
import type { BuildView, FileEdit, Job, WorkStep } from '../../api/types';
import { withUnsent } from './unsent';

export interface Build {
  job: Job;
  view: BuildView;
  steps: Steps;
  every: readonly WorkStep[];
  step: WorkStep | null;
  /** The step after the one that is looked at, in the order of the work. */
  next: WorkStep | null;
  before: WorkStep | null;
  onLook: (key: string | null) => void;
  onSetup: (setup: string) => void;
  record: Recorder;
  /** Steps of a person's own as the file has them, and the parts that are listed already. */
  own: readonly { id: string }[];
  listed: ReadonlySet<string>;
  /** Edits of the job as a whole. */
  onJob: (label: string, edits: readonly FileEdit[]) => Promise<unknown>;
  onEdits: (label: string, edits: readonly (Partial<FileEdit> & { path: string; text?: string })[]) => Promise<unknown>;
}

interface FiledBuild {
  own?: { id: string }[];
}

export function useBuild(job: Job, stored: BuildView): Build {
  const [params, setParams] = useSearchParams();
  const steps = useSteps(job, 'build', params.get('plan'));
  const record = useRecorder(job.id);
  const unsent = useUnsent(job.id);
  const view = useMemo(() => withUnsent(stored, unsent), [stored, unsent]);
  const [looked, setLooked] = useState<string | null>(null);
  const every = view.days.flatMap((d) => d.steps);
  const at = Math.max(
    0,
    every.findIndex((s) => s.key === (looked ?? view.now)),
  );
  const step = every[at] ?? null;
  const plans = job.document['plans'] as { name: string; build?: FiledBuild }[] | undefined;
  const found = job.document['as_found'] as { build?: FiledBuild } | undefined;
  const own =
    plans?.find((p) => p.name === view.setup)?.build ?? (view.root === '/as_found' ? found?.build : undefined);
  const listed = useMemo(
    () => new Set(((job.document['parts_list'] ?? []) as { part: string }[]).map((row) => row.part)),
    [job.document],
  );
  const { onStep } = steps;
  const onEdits = useCallback<Build['onEdits']>(
    (label, edits) => onStep({ label, under: view.setup, edits: edits.map((e) => ({ ...e })) }, true),
    [onStep, view.setup],
  );
  const onJob = useCallback<Build['onJob']>((label, edits) => onStep({ label, edits: [...edits] }), [onStep]);
  const onSetup = useCallback(
    (setup: string) => {
      setLooked(null);
      setParams({ plan: setup }, { replace: true });
    },
    [setParams],
  );
  return {
    job,
    view,
    steps,
    every,
    step,
    next: every[at + 1] ?? null,
    before: at > 0 ? (every[at - 1] ?? null) : null,
    onLook: setLooked,
    onSetup,
    record,
    own: own?.own ?? [],
    listed,
    onJob,
    onEdits,
  };
}
