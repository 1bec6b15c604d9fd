/** The jobs on this machine, and a file to begin another with. */
import styled from 'styled-components';
import { useJobs, usePutAway } from '../../api/jobs';
import { NotStored } from '../StageRoute';
import { Wordmark } from '../../page/Wordmark';
import { Backups } from './Backups';
import { Devices, Examples, PutAway } from './Drawer';
import { Empty } from './Empty';
import { JobCard } from './JobCard';
import { NewJob } from './NewJob';
import { OpenFile } from './OpenFile';

const Page = styled.div`
  max-width: 1280px;
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
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(260px, 290px);
    gap: 0 var(--s28);
    padding-top: var(--s24);
  }
  footer {
    padding-top: var(--s16);
    color: var(--ink-2);
  }
  footer a {
    display: inline-flex;
    align-items: center;
    min-height: var(--target);
    color: inherit;
  }
  @media (max-width: 800px) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const Sheets = styled.ul`
  list-style: none;
  padding: 0;
  margin: 0 0 var(--s16);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 280px), 1fr));
  gap: var(--s16);
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
  const { away, back } = usePutAway();
  return (
    <Page>
      <NotStored />
      <header>
        <Wordmark />
        <h1>Jobs</h1>
      </header>
      <main style={{ visibility: jobs.isPending ? 'hidden' : undefined }}>
        <div>
          {jobs.isError && <Wrong role="alert">{jobs.error.message}</Wrong>}
          <Sheets>
            {(jobs.data ?? []).map((job) => (
              <JobCard key={job.id} job={job} onAway={() => away.mutate(job.id)} />
            ))}
          </Sheets>
          {jobs.data?.length === 0 && <Empty />}
          <p role="status" className="visually-hidden">
            {away.data ? `${away.data.name} is kept for later.` : ''}
          </p>
          <PutAway onBack={(id) => back.mutate(id)} />
          <Devices />
          <Examples />
          <OpenFile />
          <Backups />
        </div>
        <NewJob />
      </main>
      <footer>
        <a href="/third-party.txt" target="_blank" rel="noreferrer">
          What Kobrix is built with, and its licences
        </a>
      </footer>
    </Page>
  );
}
