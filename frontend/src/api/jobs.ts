/** The jobs on this machine: listed, added, begun, put away; how the stages of one stand. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import { keys } from './keys';
import type { Layout } from './types';

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => answered(() => client.GET('/api/jobs')) });

/** The stages in their order, and how each stands at a revision. */
export const useStages = (id: number, revision: number) =>
  useQuery({
    queryKey: keys.stages(id, revision),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/stages', ofJob(id))),
  });

export function useAddJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (text: string) =>
      answered(() =>
        client.POST('/api/jobs', {
          body: text as never,
          bodySerializer: (body: unknown) => body as string,
          headers: { 'Content-Type': 'application/json' },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.jobs }),
  });
}

export function useNewJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { name: string; layout: Layout }) => answered(() => client.POST('/api/jobs/new', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.jobs }),
  });
}

/** Take a job off the list, and bring it back. */
export function usePutAway() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: keys.jobs });
  const away = useMutation({
    mutationFn: (id: number) => answered(() => client.DELETE('/api/jobs/{job_id}', ofJob(id))),
    onSuccess,
  });
  const back = useMutation({
    mutationFn: (id: number) => answered(() => client.POST('/api/jobs/{job_id}/back', ofJob(id))),
    onSuccess,
  });
  return { away, back };
}

/** Bring a job round that was left so that it cannot be opened. */
export function useBringRound(id: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => answered(() => client.POST('/api/jobs/{job_id}/round', ofJob(id))),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.pages(id) }),
  });
}

/** A push [N] or a stop [g] as a person typed it; refused in words. */
export const readTyped = (name: 'pedal_force_n' | 'decel_g', text: string, preferred: string) =>
  answered(() => client.POST('/api/look', { body: { name, text, preferred } })).then((read) => read.value);
