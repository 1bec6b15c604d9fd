import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, RouterProvider, useNavigate, useParams } from 'react-router';
import { useEffect, type ReactNode } from 'react';
import { useJobs } from '../api/jobs';
import { Hatches } from '../drawings/ink';
import { JobsPage } from '../features/jobs/JobsPage';
import { SizePage } from '../features/size/SizePage';

const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false } } });

/** With one job on the machine there is nothing to choose: it opens at once. */
function Home() {
  const jobs = useJobs();
  const go = useNavigate();
  const only = jobs.data?.length === 1 ? jobs.data[0] : undefined;
  useEffect(() => {
    if (only && window.history.length <= 2) void go(`/jobs/${only.id}/size`, { replace: true });
  }, [only, go]);
  return <JobsPage />;
}

/** Another job is another page: nothing of the first one's looking stays. */
function Keyed({ children }: { children: ReactNode }) {
  const { id } = useParams();
  return <div key={id}>{children}</div>;
}

const router = createBrowserRouter([
  { path: '/', element: <Home /> },
  {
    path: '/jobs/:id/size',
    element: (
      <Keyed>
        <SizePage />
      </Keyed>
    ),
  },
  { path: '*', element: <JobsPage /> },
]);

export const App = () => (
  <QueryClientProvider client={queries}>
    <Hatches />
    <RouterProvider router={router} />
  </QueryClientProvider>
);
