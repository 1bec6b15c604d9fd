/** Size: the force line of one setup over the one as found, the push, and what it means. */
import { useMemo } from 'react';
import { useSheet } from '../../api/measure';
import { Plain } from '../../page/JobGate';
import { focusNext } from '../../page/entering';
import { later } from '../../page/later';
import { StagePage, type StageProps } from '../../page/StagePage';
import { useShown } from '../../units/preference';
import { useTargets } from './finderTargets';
import { SizePhone } from './SizePhone';
import { SizeSheet } from './SizeSheet';
import { useSize } from './useSize';

const Laying = () => (
  <Plain aria-busy="true">
    <p>Laying out the sheet.</p>
  </Plain>
);
const Empty = later(async () => (await import('./Empty')).Empty, Laying);

export function SizePage({ job, view, stages }: StageProps<'size'>) {
  // Another unit is another sheet: every figure on it is written anew. What is looked at stays.
  const units = useShown();
  const size = useSize(job, view);
  const { reading, steps, acts, used } = size;
  const key = used?.key ?? '';
  const wanting = view.sheets[key];
  const sheet = useSheet(job.id, job.revision, key, wanting === undefined);
  const targets = useTargets(view.setups, job.id, key, reading, wanting ?? sheet.data, acts);
  const keys = useMemo(
    () => ({
      n: () => {
        if (reading === null) focusNext(document.activeElement as HTMLElement, true);
      },
    }),
    [reading],
  );
  return (
    <StagePage
      job={job}
      stages={stages}
      stage="size"
      title="Size"
      setup={key}
      targets={targets}
      keys={keys}
      onUndo={steps.onUndo}
      onRedo={steps.onRedo}
    >
      {(head, wide) =>
        reading === null ? (
          wanting ? (
            <Empty head={head} view={view} setup={key} sheet={wanting} steps={steps} onUse={acts.onUse} />
          ) : (
            <Laying />
          )
        ) : wide ? (
          <SizeSheet key={units} head={head} reading={reading} look={size.look} acts={acts} steps={steps} />
        ) : (
          <SizePhone key={units} head={head} reading={reading} look={size.look} acts={acts} steps={steps} />
        )
      }
    </StagePage>
  );
}
