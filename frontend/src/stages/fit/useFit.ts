/** What the parts of Fit share: the view, the joint that is looked at, and the steps that entries make. */
import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, type Steps } from '../../api/changes';
import type { FileEdit, FitView, Job, JointView, ListRow } from '../../api/types';
import { preferredFor, usePreferred } from '../../units/preference';

type Value = string | number | boolean | null | Record<string, unknown>;
export interface Fit {
  job: Job;
  view: FitView;
  steps: Steps;
  joint: JointView | null;
  onJoint: (key: string) => void;
  onSetup: (setup: string) => void;
  /** What was typed into a field, at a dotted path below the setup. */
  onType: (label: string, path: string, text: string, unit?: string) => Promise<unknown>;
  /** A value put at a dotted path below the setup; null takes it away. */
  onPut: (label: string, path: string, value: Value) => void;
  /** A value put at a JSON Pointer of the job itself; null takes it away. */
  onJob: (label: string, path: string, value: Value) => void;
  /** A line put on the parts list. */
  onList: (label: string, row: Record<string, unknown>) => void;
  /** What was typed of a part's price or source; a line is made for it where the list has none yet. */
  onListText: (row: ListRow, name: 'price' | 'source', text: string) => Promise<unknown>;
  /** A plate added. */
  onPlate: (plate: Record<string, unknown>) => void;
  /** The day that the work is planned for; nothing takes it away. */
  onDay: (day: string) => Promise<unknown>;
  onEdits: (label: string, edits: readonly FileEdit[]) => void;
}

const pointer = (path: string) => path.split('.').map((step) => `/${step}`).join(''); // prettier-ignore

export function useFit(job: Job, view: FitView): Fit {
  const [params, setParams] = useSearchParams();
  const steps = useSteps(job, 'fit', params.get('plan'));
  const preferred = usePreferred();
  const { onStep } = steps;
  const under = view.setup;
  const worst = useMemo(
    () => view.joints.find((j) => j.level === 'danger') ?? view.joints.find((j) => j.level !== 'good') ?? view.joints[0],
    [view.joints],
  ); // prettier-ignore
  const [key, setKey] = useState<string | null>(null);
  const joint = view.joints.find((j) => j.key === key) ?? worst ?? null;

  // What is worked on stays in sight, also once another joint is the worst.
  const looked = joint?.key ?? null;
  const keep = useCallback(() => setKey((now) => now ?? looked), [looked]);
  const onType = useCallback(
    (label: string, path: string, text: string, unit = '') =>
      onStep({ label, under, edits: [{ path: pointer(path), text, preferred: preferredFor(unit, preferred) }] }, true),
    [onStep, under, preferred],
  );
  const onPut = useCallback(
    (label: string, path: string, value: Value) => {
      keep();
      void onStep({
        label,
        under,
        edits: [value === null ? { op: 'remove', path: pointer(path) } : { path: pointer(path), value }],
      }).catch(() => undefined);
    },
    [onStep, under, keep],
  );
  const onJob = useCallback(
    (label: string, path: string, value: Value) =>
      void onStep({
        label,
        edits: [value === null ? { op: 'remove' as const, path } : { path, value }],
      }).catch(() => undefined),
    [onStep],
  );
  const onEdits = useCallback(
    (label: string, edits: readonly FileEdit[]) => {
      keep();
      void onStep({ label, under, edits: [...edits] }).catch(() => undefined);
    },
    [onStep, under, keep],
  );
  const kept = job.document['parts_list'];
  const lines = Array.isArray(kept) ? kept.length : 0;
  const onList = useCallback(
    (label: string, row: Record<string, unknown>) =>
      void onStep({ label, edits: [{ op: 'insert', path: '/parts_list/-', value: row }] }).catch(() => undefined),
    [onStep],
  );
  const onListText = useCallback(
    (row: ListRow, name: 'price' | 'source', text: string) => {
      const line = { part: row.part, shop: row.shop };
      const made = row.at === null ? [{ op: 'insert' as const, path: '/parts_list/-', value: line }] : [];
      const path = `/parts_list/${row.at ?? lines}/${name}`;
      return onStep({ label: `${row.part}: ${name}`, edits: [...made, { path, text }] }, true);
    },
    [onStep, lines],
  );
  const onPlate = useCallback(
    (plate: Record<string, unknown>) =>
      void onStep({
        label: 'a plate added',
        under,
        edits: [{ op: 'insert', path: '/fit/plates/-', value: plate }],
      }).catch(() => undefined),
    [onStep, under],
  );
  const onDay = useCallback(
    (day: string) =>
      onStep(
        {
          label: day === '' ? 'no day planned' : `work planned for ${day}`,
          edits: [day === '' ? { op: 'remove' as const, path: '/planned' } : { path: '/planned', value: day }],
        },
        true,
      ),
    [onStep],
  );
  const onSetup = useCallback((setup: string) => setParams({ plan: setup }, { replace: true }), [setParams]);
  return {
    job,
    view,
    steps,
    joint,
    onJoint: setKey,
    onSetup,
    onType,
    onPut,
    onJob,
    onList,
    onListText,
    onPlate,
    onDay,
    onEdits,
  };
}
