/** Searches on the server: what one may be made of, begun, looked at while it runs, stopped. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client } from './client';
import type { Ask, Match } from './types';

const LOOK = 120; // ms between two looks at a search under way
const key = (id: number) => ['match', id] as const;
const path = (id: number) => ({ params: { path: { job_id: id } } });

export const useMatchChoices = (id: number, revision: number, setup: string) =>
  useQuery({
    queryKey: ['match choices', id, revision, setup],
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/match/choices', { params: { path: { job_id: id }, query: { setup } } }),
      ),
  });

/** The job's last search, looked at again and again while it runs. */
export const useMatchState = (id: number) =>
  useQuery({
    queryKey: key(id),
    retry: false,
    staleTime: Infinity,
    refetchInterval: (query) => (query.state.data?.state === 'running' ? LOOK : false),
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/match', path(id))),
  });

export function useSearch(id: number) {
  const queries = useQueryClient();
  const onSuccess = (match: Match) => queries.setQueryData(key(id), match);
  const begin = useMutation({
    mutationFn: (ask: Ask) => answered(() => client.POST('/api/jobs/{job_id}/match', { ...path(id), body: ask })),
    onSuccess,
  });
  const stop = useMutation({
    mutationFn: () => answered(() => client.DELETE('/api/jobs/{job_id}/match', path(id))),
    onSuccess,
  });
  return { begin, stop };
}
