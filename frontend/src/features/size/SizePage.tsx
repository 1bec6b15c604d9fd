/** Size: the force line of one setup over the one as found, the push, and what it means. */
import { useEffect } from 'react';
import { Button } from 'react-aria-components';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import type { Job } from '../../api/client';
import { useJob } from '../../api/jobs';
import { useMedia } from '../../ui/useMedia';
import { Findings } from './Findings';
import { PlanTabs } from './PlanTabs';
import { SizePhone } from './SizePhone';
import { SizeSheet } from './SizeSheet';
import { useSize } from './useSize';

const Plain = styled.main`
  max-width: 640px;
  margin: 0 auto;
  padding: var(--s40) var(--s16);
  font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  h1 {
    font: var(--w-most) var(--t-result) / var(--tight) var(--letter);
    margin-bottom: var(--s12);
  }
  > p {
    margin: var(--s8) 0;
  }
  a {
    color: inherit;
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--target);
    padding: 0 var(--s16);
    margin-top: var(--s12);
  }
`;

const Missing = styled.ul`
  padding-left: var(--s18);
`;

export function SizePage() {
  const { id } = useParams();
  const job = useJob(Number(id));
  if (job.data) return <Ready job={job.data} />;
  if (job.isError) {
    return (
      <Plain>
        <h1>This job cannot be shown</h1>
        <p>{job.error.message}</p>
        <Button onPress={() => void job.refetch()}>Try again</Button>
        <p>
          <Link to="/">All jobs</Link>
        </p>
      </Plain>
    );
  }
  return (
    <Plain aria-busy="true">
      <p>Opening the job.</p>
    </Plain>
  );
}

function Ready({ job }: { job: Job }) {
  const size = useSize(job);
  const wide = useMedia('(min-width: 1248px)');
  const onUndo = 'onUndo' in size ? size.onUndo : undefined;
  const onRedo = 'onRedo' in size ? size.onRedo : undefined;
  useEffect(() => {
    document.title = `${job.name}: Size, Kobrix`;
  }, [job.name]);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      const field = event.target instanceof HTMLInputElement && event.target.type === 'text';
      if (field) return;
      event.preventDefault();
      (event.shiftKey ? onRedo : onUndo)?.();
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [onUndo, onRedo]);

  if ('incomplete' in size) {
    const { incomplete } = size;
    return (
      <Plain>
        <h1>{job.name}</h1>
        <PlanTabs setups={job.view.setups} using={incomplete.key} onUse={size.use} />
        {incomplete.note ? (
          <>
            <p>Not drawn yet: {incomplete.note}.</p>
            {incomplete.findings.length > 0 && <Findings findings={incomplete.findings} onMend={() => undefined} />}
          </>
        ) : (
          <>
            <p>The force line of {incomplete.name} still needs:</p>
            <Missing>
              {(incomplete.needs['decel'] ?? []).map((path) => (
                <li key={path}>{path.split('.').pop()?.replace(/_/g, ' ')}</li>
              ))}
            </Missing>
            <p>
              Nothing is assumed that is not in the table of defaults. Open a file that has them, or choose another
              setup.
            </p>
          </>
        )}
        <p>
          <Link to="/">All jobs</Link>
        </p>
      </Plain>
    );
  }
  return wide ? <SizeSheet size={size} /> : <SizePhone size={size} />;
}
