/** Size: the force line of one setup over the one as found, the push, and what it means. */
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import type { Job } from '../../api/client';
import { useInStep } from '../../api/events';
import { useJob } from '../../api/jobs';
import { useHelps } from '../../ui/Helps';
import { JobGate, Plain } from '../../ui/JobGate';
import { useMedia, WIDE } from '../../ui/useMedia';
import { PlanTabs } from '../../ui/PlanTabs';
import { SizePhone } from './SizePhone';
import { SizeSheet } from './SizeSheet';
import { useTargets } from './targets';
import { usePreferred } from '../../units/preference';
import { useSize } from './useSize';

const Missing = styled.ul`
  padding-left: var(--s18);
`;

export function SizePage() {
  const { id } = useParams();
  const { shownForce, shownPressure } = usePreferred();
  return (
    <JobGate query={useJob(Number(id))}>{(job) => <Ready key={`${shownForce} ${shownPressure}`} job={job} />}</JobGate>
  );
}

function Ready({ job }: { job: Job }) {
  useInStep(job.id);
  const size = useSize(job);
  const wide = useMedia(WIDE);
  const steps = 'incomplete' in size ? size.steps : size;
  const { onUndo, onRedo } = steps;
  useEffect(() => {
    document.title = `${job.name}: Size, Kobrix`;
  }, [job.name]);
  const targets = useTargets(job, size);
  const helps = useHelps({ job: job.id, targets, onUndo, onRedo });

  if ('incomplete' in size) {
    const { incomplete } = size;
    return (
      <Plain>
        {helps.over}
        <h1>{job.name}</h1>
        <PlanTabs setups={job.view.setups} using={incomplete.key} onUse={size.use} />
        <p>The force line of {incomplete.name} still needs:</p>
        <Missing>
          {(incomplete.needs['decel'] ?? []).map((path) => (
            <li key={path}>{path.split('.').pop()?.replace(/_/g, ' ')}</li>
          ))}
        </Missing>
        <p>
          <Link to={`/jobs/${job.id}/measure?plan=${encodeURIComponent(incomplete.key)}`}>Measure them</Link>
        </p>
        <p>
          <Link to="/">All jobs</Link>
        </p>
      </Plain>
    );
  }
  return (
    <>
      {wide ? <SizeSheet size={size} tools={helps.buttons} /> : <SizePhone size={size} tools={helps.buttons} />}
      {helps.over}
    </>
  );
}
