/** Jobs from the server: read, change as one step, undo, redo, and the figures of exactly one push. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client, type EditIn, type Job, Refused } from './client';

const jobKey = (id: number) => ['job', id] as const;

export const useJobs = () => useQuery({ queryKey: ['jobs'], queryFn: () => answered(() => client.GET('/api/jobs')) });

export const useJob = (id: number) =>
  useQuery({
    queryKey: jobKey(id),
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } })),
    retry: false,
    staleTime: Infinity,
    refetchOnWindowFocus: 'always',
  });

export interface Step {
  label: string;
  edits: EditIn[];
  gesture?: string;
}

/** Make a step on the revision that is on screen; a stale one brings the newer job and the refusal with both values. */
export function useChange(id: number) {
  const queries = useQueryClient();
  const keep = (job: Job) => queries.setQueryData(jobKey(id), job);
  const base = () => queries.getQueryData<Job>(jobKey(id))?.revision ?? 0;
  const path = { path: { job_id: id } };
  const onError = (error: Error) => {
    if (error instanceof Refused && error.problem.status === 409)
      void queries.invalidateQueries({ queryKey: jobKey(id) });
  };
  const change = useMutation({
    scope: { id: `job-${id}` },
    mutationFn: (step: Step) =>
      answered(() => client.POST('/api/jobs/{job_id}/changes', { params: path, body: { base: base(), ...step } })),
    onSuccess: keep,
    onError,
  });
  const undo = useMutation({
    scope: { id: `job-${id}` },
    mutationFn: () => answered(() => client.POST('/api/jobs/{job_id}/undo', { params: path, body: { base: base() } })),
    onSuccess: keep,
    onError,
  });
  const redo = useMutation({
    scope: { id: `job-${id}` },
    mutationFn: () => answered(() => client.POST('/api/jobs/{job_id}/redo', { params: path, body: { base: base() } })),
    onSuccess: keep,
    onError,
  });
  return { change, undo, redo };
}

export interface Asked {
  by: 'push' | 'decel';
  value: number;
}

/** The core's figures for exactly what is asked, once the push is at rest. */
export const useMoment = (id: number, revision: number, setup: string, load: number, asked: Asked | null) =>
  useQuery({
    queryKey: ['moment', id, revision, setup, load, asked?.by, asked?.value],
    enabled: asked !== null,
    retry: false,
    staleTime: Infinity,
    gcTime: 30_000,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/moment', {
          params: { path: { job_id: id } },
          body: { setup, load, ...(asked?.by === 'push' ? { pedal_force_n: asked.value } : { decel_g: asked?.value }) },
        }),
      ),
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
    onSuccess: () => queries.invalidateQueries({ queryKey: ['jobs'] }),
  });
}
