import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, RouterProvider, useNavigate, useParams } from 'react-router';
import { useEffect, type ComponentType } from 'react';
import { Button } from 'react-aria-components';
import { jobQuery, useJobs } from '../api/jobs';
import { Hatches } from '../drawings/ink';
import { Plain } from '../ui/JobGate';
import { ChooseInk } from '../ui/Choose';
import { PlanInk } from '../ui/PlanTools';

const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false } } });

// What a first page needs of the server is asked for while its code is still on the way.
const job = /^\/jobs\/(\d+)\//.exec(window.location.pathname)?.[1];
if (job) void queries.prefetchQuery(jobQuery(Number(job)));

/** With one job on the machine there is nothing to choose: it opens at once. */
function Home({ page: Page }: { page: ComponentType }) {
  const jobs = useJobs();
  const go = useNavigate();
  const only = jobs.data?.length === 1 ? jobs.data[0] : undefined;
  useEffect(() => {
    if (only && window.history.length <= 2) void go(`/jobs/${only.id}/size`, { replace: true });
  }, [only, go]);
  return <Page />;
}

/** Another job is another page: nothing of the first one's looking stays. */
function Keyed({ page: Page }: { page: ComponentType }) {
  const { id } = useParams();
  return (
    <div key={id}>
      <Page />
    </div>
  );
}
const stage = (page: ComponentType) => ({ element: <Keyed page={page} /> });

/** A fault of our own, said plainly; nothing that was stored is lost by it. */
const Broken = () => (
  <Plain role="alert">
    <h1>This page broke</h1>
    <p>That is a fault of Kobrix. Everything that was entered is stored; load the page again to go on.</p>
    <Button onPress={() => window.location.reload()}>Load it again</Button>
    <p>
      <a href="/">All jobs</a>
    </p>
  </Plain>
);

// A stage's code is fetched when it is gone to: the first page does not wait for the others.
const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      {
        path: '/',
        lazy: async () => ({ element: <Home page={(await import('../features/jobs/JobsPage')).JobsPage} /> }),
      },
      {
        path: '/jobs/:id/measure',
        lazy: async () => stage((await import('../features/measure/MeasurePage')).MeasurePage),
      },
      { path: '/jobs/:id/size', lazy: async () => stage((await import('../features/size/SizePage')).SizePage) },
      { path: '/jobs/:id/match', lazy: async () => stage((await import('../features/match/MatchPage')).MatchPage) },
      { path: '*', lazy: async () => ({ Component: (await import('../features/jobs/JobsPage')).JobsPage }) },
    ],
  },
]);

/** The first page's code is there: what is drawn before it would be drawn twice. */
export const ready = new Promise<void>((done) => {
  if (router.state.initialized) done();
  else router.subscribe(({ initialized }) => initialized && done());
});

// A page is drawn in one go: nothing else on it has to be kept moving meanwhile.
export const App = () => (
  <QueryClientProvider client={queries}>
    <Hatches />
    <ChooseInk />
    <PlanInk />
    <RouterProvider router={router} useTransitions={false} />
  </QueryClientProvider>
);
