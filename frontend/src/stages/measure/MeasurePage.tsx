/** Measure: what is on the vehicle, drawn from the numbers, with the fields in the drawing. */
import { useMemo } from 'react';
import { StagePage, type StageProps } from '../../page/StagePage';
import { EnterContext } from '../../page/entering';
import { MeasurePhone } from './MeasurePhone';
import { MeasureWide } from './MeasureWide';
import { entriesOf, useMeasure } from './useMeasure';

export function MeasurePage({ job, view, stages }: StageProps<'measure'>) {
  const measure = useMeasure(job, view);
  const { onGo, onNextUnknown, steps } = measure;
  const targets = useMemo(
    () =>
      view.sections.flatMap((section) =>
        entriesOf(section).map((e) => ({
          id: e.path,
          label: e.label,
          note: section.title,
          go: () => onGo(section.key, e.path),
        })),
      ),
    [view, onGo],
  );
  const keys = useMemo(() => ({ n: onNextUnknown }), [onNextUnknown]);
  return (
    <EnterContext.Provider value={measure.entering}>
      <StagePage
        job={job}
        stages={stages}
        stage="measure"
        title="Measure"
        setup={view.setup}
        targets={targets}
        keys={keys}
        onUndo={steps.onUndo}
        onRedo={steps.onRedo}
      >
        {(head, wide) =>
          wide ? <MeasureWide head={head} measure={measure} /> : <MeasurePhone head={head} measure={measure} />
        }
      </StagePage>
    </EnterContext.Provider>
  );
}
