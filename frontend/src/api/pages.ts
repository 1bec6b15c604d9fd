/** A page of a job: the job as stored and what the page shows of it, always of one revision. */
import { useQuery, type QueryClient } from '@tanstack/react-query';
import { answered, client, isAway, ofJob } from './client';
import { keys } from './keys';
import type { Changed, Job } from './types';

type View = NonNullable<Changed['shown']>;
/** The pages that show something of a job, which the server has at their own names. */
export type PageName = View['page'];
export interface Page<V extends View | null = View | null> {
  job: Job;
  view: V;
}
export type ViewOf<P extends PageName> = Extract<View, { page: P }>;

/** One of the server's pages: each is read in the same way at its own name. */
const fetchView = (id: number, page: PageName, setup: string | null) =>
  answered<View>(() =>
    client.GET(`/api/jobs/{job_id}/${page}`, {
      params: { path: { job_id: id }, ...(setup === null ? {} : { query: { setup } }) },
    } as never),
  );

/** Both are asked for at once; where somebody stored a step between the two, again. */
async function fetchPage(id: number, page: PageName | null, setup: string | null): Promise<Page> {
  for (;;) {
    const [job, view] = await Promise.all([
      answered(() => client.GET('/api/jobs/{job_id}', ofJob(id))),
      page === null ? null : fetchView(id, page, setup),
    ]);
    if (view === null || view.revision === job.revision) return { job, view };
  }
}

/** A page that was read while a step was stored may be older than what that step brought: a revision never goes back. */
async function newest(queries: QueryClient, id: number, page: PageName | null, setup: string | null): Promise<Page> {
  const read = await fetchPage(id, page, setup);
  const here = queries.getQueryData<Page>(keys.page(id, page, setup));
  return here && here.job.revision > read.job.revision ? here : read;
}

export const pageQuery = (id: number, page: PageName | null, setup: string | null) => ({
  queryKey: keys.page(id, page, setup),
  queryFn: ({ client: queries }: { client: QueryClient }) => newest(queries, id, page, setup),
  retry: false,
  staleTime: Infinity,
});
/** The page, kept on screen while another of its setups is on the way. */
export const usePage = (id: number, page: PageName | null, setup: string | null) =>
  useQuery({
    ...pageQuery(id, page, setup),
    refetchOnWindowFocus: 'always',
    // A server that came back is noticed by itself.
    refetchInterval: (query) => (isAway(query.state.error) ? 2000 : false),
    placeholderData: (before: Page | undefined) => (before?.job.id === id ? before : undefined),
  });
