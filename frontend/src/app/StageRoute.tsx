/** One stage of one job: its page once the job is there, in words when it is not; kept in step with what is stored. */
import type { ComponentType } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { DAMAGED, Refused } from '../api/client';
import { useInStep, useThere } from '../api/events';
import { useBringRound, useStages } from '../api/jobs';
import { usePage, type Page, type PageName } from '../api/pages';
import { dropWaiting, useSending } from '../api/waiting';
import { JobGate } from '../page/JobGate';
import type { AnyStage } from '../page/StagePage';
import { Waits } from '../page/Waits';
import { useSettled } from '../ui/useSettled';
import { capital } from '../units/format';
import { useShown } from '../units/preference';
import { STAGES } from './stages';

interface Route {
  path: string;
  page: PageName | null;
  setup: string | undefined;
  component: ComponentType<AnyStage>;
}
/** Another job or stage is another page: nothing of the first one's looking stays. */
export function StageRoute(route: Route) {
  const id = Number(useParams()['id']);
  return <OfJob key={`${id} ${route.path}`} id={id} {...route} />;
}

function OfJob({ id, page, setup, component }: Route & { id: number }) {
  const [params] = useSearchParams();
  const query = usePage(id, page, setup === undefined ? null : params.get(setup));
  const { mutate } = useBringRound(id);
  const damaged = query.error instanceof Refused && query.error.problem.type === DAMAGED;
  if (!query.data) return <JobGate query={query} onBringRound={damaged ? () => mutate() : null} />;
  return <Ready page={query.data} component={component} />;
}

const SETTLED_MS = 300;
const AWAY_MS = 1000; // a line that is opened again at once is not told of
// Until it is known how they stand, those that are open are there all the same.
const OPEN: AnyStage['stages'] = STAGES.filter((stage) => stage.page !== null).map(({ path }) => ({
  title: capital(path),
  path,
  state: 'empty',
  words: '',
}));
/** How the stages stand follows once the job has rested: a drag does not ask for it at each place. */
function Ready({ page, component: Component }: { page: Page; component: Route['component'] }) {
  const { job, view } = page;
  useInStep(job.id);
  useShown(); // another unit: what the page itself writes is written anew
  const stages = useStages(job.id, useSettled(job.revision, SETTLED_MS), job.recorded);
  return (
    <>
      <NotStored />
      <Component job={job} view={view} stages={stages.data ?? OPEN} />
    </>
  );
}

/** What waits to be stored, of whichever job. */
export function NotStored() {
  const { waiting, onSend } = useSending();
  const there = useSettled(useThere(), AWAY_MS);
  const said = waiting.map(({ id, step, refused }) => ({ id, label: step.label, refused }));
  return <Waits there={there} waiting={said} onSend={onSend} onDrop={dropWaiting} />;
}
