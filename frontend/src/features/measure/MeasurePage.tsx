/** Measure: what is on the vehicle, drawn from the numbers, with the fields in the drawing. */
import { useEffect, useMemo } from 'react';
import { useParams } from 'react-router';
import type { Job } from '../../api/client';
import { useInStep } from '../../api/events';
import { useJob } from '../../api/jobs';
import { useHelps } from '../../ui/Helps';
import { JobGate, Plain } from '../../ui/JobGate';
import { useMedia, WIDE } from '../../ui/useMedia';
import { EnterContext } from './entering';
import { MeasurePhone } from './MeasurePhone';
import { MeasureWide } from './MeasureWide';
import { entriesOf, useMeasure } from './useMeasure';

export function MeasurePage() {
  const { id } = useParams();
  return <JobGate query={useJob(Number(id))}>{(job) => <Ready job={job} />}</JobGate>;
}

const nothing = () => undefined;

function Ready({ job }: { job: Job }) {
  useInStep(job.id);
  const measure = useMeasure(job);
  const wide = useMedia(WIDE);
  const onNext = measure?.onNextUnknown;
  const onUndo = measure?.steps.onUndo;
  const onRedo = measure?.steps.onRedo;
  useEffect(() => {
    document.title = `${job.name}: Measure, Kobrix`;
  }, [job.name]);
  const targets = useMemo(
    () =>
      (measure?.sheet.sections ?? []).flatMap((section) =>
        entriesOf(section).map((e) => ({
          id: e.path,
          label: e.label,
          note: section.title,
          go: () => measure?.onGo(section.key, e.path),
        })),
      ),
    [measure],
  );
  const keys = useMemo(() => ({ n: () => onNext?.() }), [onNext]);
  const helps = useHelps({ job: job.id, targets, keys, onUndo: onUndo ?? nothing, onRedo: onRedo ?? nothing });
  if (!measure) {
    return (
      <Plain aria-busy="true">
        <p>Laying out the sheet.</p>
      </Plain>
    );
  }
  return (
    <EnterContext.Provider value={measure.entering}>
      {wide ? (
        <MeasureWide measure={measure} tools={helps.buttons} />
      ) : (
        <MeasurePhone measure={measure} tools={helps.buttons} />
      )}
      {helps.over}
    </EnterContext.Provider>
  );
}
