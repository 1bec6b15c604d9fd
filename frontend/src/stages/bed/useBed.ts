/** What the parts of Bed share: the view, the edits of the recipe, and what is recorded. */
import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, type Steps } from '../../api/changes';
import { useRecorder, useUnsent, type Recorder } from '../../api/records';
import type { BedView, FileEdit, Job } from '../../api/types';
import { withUnsent } from './unsent';

export interface Bed {
  job: Job;
  view: BedView;
  steps: Steps;
  onSetup: (setup: string) => void;
  record: Recorder;
  onEdits: (label: string, edits: readonly (Partial<FileEdit> & { path: string; text?: string })[]) => Promise<unknown>;
}
export function useBed(job: Job, stored: BedView): Bed {
  const [params, setParams] = useSearchParams();
  const steps = useSteps(job, 'bed', params.get('plan'));
  const record = useRecorder(job.id);
  const unsent = useUnsent(job.id);
  const view = useMemo(() => withUnsent(stored, unsent), [stored, unsent]);
  const { onStep } = steps;
  const onEdits = useCallback<Bed['onEdits']>(
    (label, edits) => onStep({ label, under: view.setup, edits: edits.map((e) => ({ ...e })) }, true),
    [onStep, view.setup],
  );
  const onSetup = useCallback((setup: string) => setParams({ plan: setup }, { replace: true }), [setParams]);
  return { job, view, steps, onSetup, record, onEdits };
}
