/** Searches on the server: what one may be made of, begun, looked at while it runs, stopped. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import { keys } from './keys';
import type { Search, SearchState } from './types';

const POLL_MS = 120; // between two looks at a search under way

/** Of several controls one is searched: by name, or the first. */
export const useMatchChoices = (id: number, revision: number, setup: string, control: string | null) =>
  useQuery({
    queryKey: keys.choices(id, revision, setup, control),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/match/choices', {
          params: { path: { job_id: id }, query: { setup, ...(control === null ? {} : { control }) } },
        }),
      ),
  });

/** The job's last search, looked at again and again while it runs. */
export const useSearchState = (id: number) =>
  useQuery({
    queryKey: keys.search(id),
    retry: false,
    staleTime: Infinity,
    refetchInterval: (query) => (query.state.data?.state === 'running' ? POLL_MS : false),
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/match', ofJob(id))),
  });

/** One after the other, in the order of the presses: two on their way at once may arrive the other way round. */
export function useSearch(id: number) {
  const queries = useQueryClient();
  const scope = { id: `search-${id}` };
  const onSuccess = async (state: SearchState) => {
    await queries.cancelQueries({ queryKey: keys.search(id) }); // a look at the search before, that is still on its way
    queries.setQueryData(keys.search(id), state);
  };
  const begin = useMutation({
    scope,
    mutationFn: (search: Search) =>
      answered(() => client.POST('/api/jobs/{job_id}/match', { ...ofJob(id), body: search })),
    onSuccess,
  });
  const stop = useMutation({
    scope,
    mutationFn: () => answered(() => client.DELETE('/api/jobs/{job_id}/match', ofJob(id))),
    onSuccess,
  });
  return { begin, stop };
}
