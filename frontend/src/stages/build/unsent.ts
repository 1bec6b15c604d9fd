/** Build as it stands on this device: steps that are done and not stored yet are done. */
import { laidOver } from '../../api/records';
import type { BuildView, RecordIn, WorkStep } from '../../api/types';

type Done = NonNullable<WorkStep['done']>;
const text = (value: unknown) => (typeof value === 'string' ? value : '');

export function withUnsent(view: BuildView, unsent: readonly RecordIn[]): BuildView {
  const own = unsent.filter((r) => r.kind === 'struck' || (r.kind === 'signed' && r.body['setup'] === view.setup));
  if (own.length === 0) return view;
  const doneOf = (step: WorkStep) =>
    laidOver<Done>(step.done, own, ({ kind, key, body, made_at }) =>
      kind === 'signed' && body['step'] === step.key
        ? {
            key,
            at: made_at ?? '',
            by: text(body['by']),
            torque: text(body['torque_nm']),
            source: text(body['source']),
            note: '',
          }
        : null,
    );
  const days = view.days.map((day) => {
    const steps = day.steps.map((step) => ({ ...step, done: doneOf(step) }));
    const done = new Set(steps.filter((s) => s.done !== null).map((s) => s.key));
    return {
      ...day,
      done: done.size,
      steps: steps.map((s) => ({ ...s, waits: s.waits.filter((key) => !done.has(key)) })),
    };
  });
  const steps = days.flatMap((d) => d.steps);
  return {
    ...view,
    days,
    done: steps.filter((s) => s.done !== null).length,
    signed: steps.filter((s) => s.critical && s.done !== null).length,
    now: steps.find((s) => s.done === null && s.waits.length === 0 && s.part === '')?.key ?? null,
  };
}
