/** What the parts of Prove share: the view, the stop that is looked at, and what is recorded. */
import { useCallback, useState } from 'react';
import { useSteps, type Steps } from '../../api/changes';
import { useRecorder, type Recorder } from '../../api/records';
import type { FileEdit, Job, ProveView, StopView } from '../../api/types';

export interface Prove {
  job: Job;
  view: ProveView;
  steps: Steps;
  stop: StopView | null;
  onStop: (key: string | null) => void;
  record: Recorder;
  /** Edits of how the job is proven. */
  onEdits: (label: string, edits: readonly (Partial<FileEdit> & { path: string; text?: string })[]) => Promise<unknown>;
  /** The sets as the file has them. */
  sets: readonly { name: string; setup: string; changed?: readonly string[] }[];
}

export function useProve(job: Job, view: ProveView): Prove {
  const steps = useSteps(job, 'prove');
  const record = useRecorder(job.id);
  const [key, setKey] = useState<string | null>(null);
  const stop = view.sets.flatMap((s) => s.stops).find((s) => s.key === key) ?? null;
  const { onStep } = steps;
  const onEdits = useCallback<Prove['onEdits']>(
    (label, edits) => onStep({ label, edits: edits.map((e) => ({ ...e })) }, true),
    [onStep],
  );
  const proving = job.document['proving'] as { sets?: Prove['sets'] } | undefined;
  return { job, view, steps, stop, onStop: setKey, record, onEdits, sets: proving?.sets ?? [] };
}
