/** What the parts of Bleed share: the view, and what is recorded. */
import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, type Steps } from '../../api/changes';
import { useRecorder, useUnsent, type Recorder } from '../../api/records';
import type { BleedView, FileEdit, Job } from '../../api/types';
import { withUnsent } from './unsent';

export interface Bleed {
  job: Job;
  view: BleedView;
  steps: Steps;
  onSetup: (setup: string) => void;
  record: Recorder;
  /** Edits below the setup. */
  onEdits: (label: string, edits: readonly (Partial<FileEdit> & { path: string; text?: string })[]) => Promise<unknown>;
  /** Edits of the job as a whole. */
  onJob: (label: string, edits: readonly FileEdit[]) => Promise<unknown>;
}
export function useBleed(job: Job, stored: BleedView): Bleed {
  const [params, setParams] = useSearchParams();
  const steps = useSteps(job, 'bleed', params.get('plan'));
  const record = useRecorder(job.id);
  const unsent = useUnsent(job.id);
  const view = useMemo(() => withUnsent(stored, unsent), [stored, unsent]);
  const { onStep } = steps;
  const onEdits = useCallback<Bleed['onEdits']>(
    (label, edits) => onStep({ label, under: view.setup, edits: edits.map((e) => ({ ...e })) }, true),
    [onStep, view.setup],
  );
  const onJob = useCallback<Bleed['onJob']>((label, edits) => onStep({ label, edits: [...edits] }), [onStep]);
  const onSetup = useCallback((setup: string) => setParams({ plan: setup }, { replace: true }), [setParams]);
  return { job, view, steps, onSetup, record, onEdits, onJob };
}
