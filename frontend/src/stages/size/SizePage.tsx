/** Size: the force line of one setup over the one as found, the push, and what it means. */
import styled from 'styled-components';
import { Link } from 'react-router';
import { useSheet } from '../../api/measure';
import { Plain } from '../../page/JobGate';
import { PlanTabs } from '../../page/PlanTabs';
import { StagePage, type StageProps } from '../../page/StagePage';
import { usePreferred } from '../../units/preference';
import { useTargets } from './finderTargets';
import { SizePhone } from './SizePhone';
import { SizeSheet } from './SizeSheet';
import { useSize } from './useSize';

/** Another unit is another page: every figure on it is written anew. */
export function SizePage(props: StageProps<'size'>) {
  const { shownForce, shownPressure } = usePreferred();
  return <Ready key={`${shownForce} ${shownPressure}`} {...props} />;
}

function Ready({ job, view, stages }: StageProps<'size'>) {
  const size = useSize(job, view);
  const { reading, steps, acts, used } = size;
  const key = used?.key ?? '';
  const sheet = useSheet(job.id, job.revision, key);
  const targets = useTargets(view.setups, job.id, key, reading, sheet.data, acts);
  return (
    <StagePage
      job={job}
      stages={stages}
      stage="size"
      title="Size"
      targets={targets}
      onUndo={steps.onUndo}
      onRedo={steps.onRedo}
    >
      {(head, wide) =>
        reading === null ? (
          <Incomplete job={job.id} name={job.name} view={view} size={size} />
        ) : wide ? (
          <SizeSheet head={head} reading={reading} look={size.look} acts={acts} steps={steps} />
        ) : (
          <SizePhone head={head} reading={reading} look={size.look} acts={acts} steps={steps} />
        )
      }
    </StagePage>
  );
}

const Missing = styled.ul`
  padding-left: var(--s18);
`;
interface IncompleteProps {
  job: number;
  name: string;
  view: StageProps<'size'>['view'];
  size: ReturnType<typeof useSize>;
}
/** What a setup still needs before it can be pushed. */
function Incomplete({ job, name, view, size: { used, acts } }: IncompleteProps) {
  return (
    <Plain>
      <h1>{name}</h1>
      <PlanTabs setups={view.setups} using={used?.key ?? ''} onUse={acts.onUse} />
      <p>The force line of {used?.name} still needs:</p>
      <Missing>
        {(used?.needs.decel ?? []).map((path) => (
          <li key={path}>{path.split('.').pop()?.replace(/_/g, ' ')}</li>
        ))}
      </Missing>
      <p>
        <Link to={`/jobs/${job}/measure?plan=${encodeURIComponent(used?.key ?? '')}`}>Measure them</Link>
      </p>
      <p>
        <Link to="/">All jobs</Link>
      </p>
    </Plain>
  );
}
