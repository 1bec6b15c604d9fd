import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, RouterProvider, useNavigate } from 'react-router';
import { useEffect, type ComponentType } from 'react';
import { Button } from 'react-aria-components';
import { useJobs } from '../api/jobs';
import { pageQuery } from '../api/pages';
import { Hatches } from '../drawings/ink';
import { Plain } from '../page/JobGate';
import { PlanInk } from '../page/PlanTools';
import { ChooseInk } from '../ui/Choose';
import { StageRoute } from './StageRoute';
import { STAGES } from './stages';

// What was stored is drawn before whoever stored it goes on: to the next entry that is not known, say.
notifyManager.setScheduler(queueMicrotask);
const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false } } });

// What a first page needs of the server is asked for while its code is still on the way.
const [, first, at] = /^\/jobs\/(\d+)\/(\w+)/.exec(window.location.pathname) ?? [];
const known = STAGES.find((stage) => stage.path === at);
if (known) {
  const setup = known.setup === undefined ? null : new URLSearchParams(window.location.search).get(known.setup);
  void queries.prefetchQuery(pageQuery(Number(first), known.page, setup));
}

// Whoever begins at the address of the machine, and not on a page of it, is led on once at most.
let led = window.location.pathname !== '/';
/** With one job on the machine there is nothing to choose: it opens at once, but nobody who comes back here is sent away. */
function Home({ page: Page }: { page: ComponentType }) {
  const jobs = useJobs().data;
  const go = useNavigate();
  useEffect(() => {
    if (led || jobs === undefined) return;
    led = true;
    const [only] = jobs;
    if (only && jobs.length === 1) void go(`/jobs/${only.id}/size`, { replace: true });
  }, [jobs, go]);
  return <Page />;
}

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

const wall = async () => (await import('./jobs/JobsPage')).JobsPage;
const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', lazy: async () => ({ element: <Home page={await wall()} /> }) },
      ...STAGES.map(({ path, page, setup, load }) => ({
        path: `/jobs/:id/${path}`,
        lazy: async () => ({ element: <StageRoute path={path} page={page} setup={setup} component={await load()} /> }),
      })),
      { path: '*', lazy: async () => ({ Component: await wall() }) },
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
