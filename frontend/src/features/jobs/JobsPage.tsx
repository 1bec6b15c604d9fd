/** The jobs on this machine, and a file to begin another with. */
import { useState } from 'react';
import { Button, DropZone, FileTrigger, type FileDropItem } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useAddJob, useJobs } from '../../api/jobs';
import { Wordmark } from '../../ui/Wordmark';
import { counted } from '../../units/format';

const Page = styled.div`
  max-width: 960px;
  margin: 0 auto;
  padding: var(--s8) var(--s16) var(--s40);
  font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  header {
    display: flex;
    align-items: center;
    gap: var(--s24);
    min-height: var(--row-strip);
    border-bottom: var(--r-heavy) solid var(--ink);
  }
  h1 {
    font: var(--w-strong) var(--t-title) / var(--one) var(--letter);
  }
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
`;
const Sheets = styled.ul`
  list-style: none;
  padding: 0;
  margin: var(--s24) 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 280px), 1fr));
  gap: var(--s16);
  a {
    display: block;
    height: 100%;
    color: inherit;
    text-decoration: none;
    border: var(--r-heavy) solid var(--ink);
    padding: var(--s14);
  }
  a:hover {
    background: var(--sunk);
  }
  p {
    color: var(--ink-2);
  }
`;
const Drop = styled(DropZone)`
  border: var(--r-outline) dashed var(--ink-2);
  padding: var(--s16);
  p {
    color: var(--ink-2);
    margin: var(--s4) 0 var(--s10);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--target);
    padding: 0 var(--s16);
    font: var(--w-strong) var(--t-head) / var(--one) var(--text);
  }
  &[data-drop-target] {
    background: var(--sunk);
  }
`;
const Wrong = styled.p`
  &&& {
    color: var(--danger);
    white-space: pre-line;
    font-weight: var(--w-strong);
  }
`;

export function JobsPage() {
  const jobs = useJobs();
  const add = useAddJob();
  const go = useNavigate();
  const [wrong, setWrong] = useState<string | null>(null);
  const open = async (file: File | undefined) => {
    if (!file) return;
    setWrong(null);
    try {
      const job = await add.mutateAsync(await file.text());
      void go(`/jobs/${job.id}/size`);
    } catch (error) {
      setWrong(`${file.name}: ${error instanceof Error ? error.message : 'it cannot be read'}`);
    }
  };
  return (
    <Page>
      <header>
        <Wordmark />
        <h1>Jobs</h1>
      </header>
      <main>
        {jobs.isError && <Wrong role="alert">{jobs.error.message}</Wrong>}
        <Sheets>
          {(jobs.data ?? []).map((job) => (
            <li key={job.id}>
              <Link to={`/jobs/${job.id}/size`}>
                <h2>{job.name}</h2>
                <p>
                  {counted(job.plans.length, 'plan', 'plans')}: {job.plans.join(', ')}
                </p>
                <p>changed {new Date(job.changed_at).toLocaleString()}</p>
              </Link>
            </li>
          ))}
        </Sheets>
        {jobs.data?.length === 0 && <p>No job is stored yet. Open a file in the kobrix format to begin.</p>}
        <Drop
          onDrop={(event) => {
            const item = event.items.find((i): i is FileDropItem => i.kind === 'file');
            void item?.getFile().then(open);
          }}
        >
          <h2>Open a file</h2>
          <p>
            Drop a .kobrix.json here, or choose one: a job or a single setup. It is checked first, and never overwrites
            a job.
          </p>
          <FileTrigger acceptedFileTypes={['application/json', '.json']} onSelect={(files) => void open(files?.[0])}>
            <Button>Choose a file</Button>
          </FileTrigger>
          {wrong && <Wrong role="alert">{wrong}</Wrong>}
        </Drop>
      </main>
    </Page>
  );
}
