/** Build as it stands on this device: steps that are done and not stored yet are done, what was noted and not stored is there. */
import { laidOver } from '../../api/records';
import type { BuildView, RecordIn, SeenView, WorkStep } from '../../api/types';

type Done = NonNullable<WorkStep['done']>;
const text = (value: unknown) => (typeof value === 'string' ? value : '');

export function withUnsent(view: BuildView, unsent: readonly RecordIn[]): BuildView {
  const here = (r: RecordIn) => (r.kind === 'signed' || r.kind === 'seen') && r.body['setup'] === view.setup;
  const own = unsent.filter((r) => r.kind === 'struck' || here(r));
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
  const seenAt = (step: WorkStep) =>
    own.flatMap(({ kind, key, body, made_at }): SeenView[] =>
      kind === 'seen' && body['step'] === step.key
        ? [
            {
              key,
              at: made_at ?? '',
              words: text(body['words']),
              sha256: typeof body['sha256'] === 'string' ? body['sha256'] : null,
              bag: typeof body['bag'] === 'number' ? body['bag'] : null,
              goes_back: typeof body['goes_back'] === 'boolean' ? body['goes_back'] : null,
            },
          ]
        : [],
    );
  const days = view.days.map((day) => {
    const steps = day.steps.map((step) => ({ ...step, done: doneOf(step), seen: [...step.seen, ...seenAt(step)] }));
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
