/** Jobs from the server: read, change as one step, undo, redo, and the figures of exactly one push. */
import { keepPreviousData, useIsMutating, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { answered, client, type EditIn, type Job, Refused } from './client';
import type { Step } from './types';

const jobKey = (id: number) => ['job', id] as const;

export const useJobs = () => useQuery({ queryKey: ['jobs'], queryFn: () => answered(() => client.GET('/api/jobs')) });

export const jobQuery = (id: number) => ({
  queryKey: jobKey(id),
  queryFn: () => answered(() => client.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } })),
  retry: false,
  staleTime: Infinity,
});
export const useJob = (id: number) => useQuery({ ...jobQuery(id), refetchOnWindowFocus: 'always' });

export type { Step } from './types';

const stepKey = (id: number) => ['step', id] as const;
/** Whether a step of the job is on its way to the store. */
export const useStoring = (id: number) => useIsMutating({ mutationKey: stepKey(id) }) > 0;

/**
 * Make a step on the revision that is on screen; a stale one brings the newer job and the refusal with both values.
 * One at a time; who asks is not drawn again while it is on its way (`useStoring` tells).
 */
export function useChange(id: number) {
  const queries = useQueryClient();
  return useMemo(() => {
    const params = { path: { job_id: id } };
    const base = () => queries.getQueryData<Job>(jobKey(id))?.revision ?? 0;
    const inTurn =
      <In>(send: (asked: In) => Promise<Job>) =>
      (asked: In) =>
        queries
          .getMutationCache()
          .build<Job, Error, In, unknown>(queries, {
            mutationKey: stepKey(id),
            scope: { id: `job-${id}` },
            mutationFn: send,
            onSuccess: (job) => void queries.setQueryData(jobKey(id), job),
            onError: (error) => {
              if (error instanceof Refused && error.problem.status === 409)
                void queries.invalidateQueries({ queryKey: jobKey(id) });
            },
          })
          .execute(asked);
    return {
      change: inTurn((step: Step) =>
        answered(() => client.POST('/api/jobs/{job_id}/changes', { params, body: { base: base(), ...step } })),
      ),
      undo: inTurn(() => answered(() => client.POST('/api/jobs/{job_id}/undo', { params, body: { base: base() } }))),
      redo: inTurn(() => answered(() => client.POST('/api/jobs/{job_id}/redo', { params, body: { base: base() } }))),
    };
  }, [id, queries]);
}

export interface Asked {
  by: 'push' | 'decel';
  value: number;
}

/** The core's figures for exactly what is asked, once the push is at rest. */
export const useMoment = (
  id: number,
  revision: number,
  setup: string,
  path: string,
  load: number,
  asked: Asked | null,
) =>
  useQuery({
    queryKey: ['moment', id, revision, setup, path, load, asked?.by, asked?.value],
    enabled: asked !== null,
    retry: false,
    staleTime: Infinity,
    gcTime: 30_000,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/moment', {
          params: { path: { job_id: id } },
          body: {
            setup,
            path,
            load,
            ...(asked?.by === 'push' ? { pedal_force_n: asked.value } : { decel_g: asked?.value }),
          },
        }),
      ),
  });

/** A push [N] or a stop [g] as a person typed it; refused in words. */
export const readLook = (name: 'pedal_force_n' | 'decel_g', text: string, preferred: string) =>
  answered(() => client.POST('/api/look', { body: { name, text, preferred } })).then((read) => read.value);

/** The range of pushes with one failure in it. */
export const useFailed = (
  id: number,
  revision: number,
  setup: string,
  path: string,
  load: number,
  reach: number,
  failure: string | null,
) =>
  useQuery({
    queryKey: ['failed', id, revision, setup, path, load, reach, failure],
    enabled: failure !== null && setup !== '',
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/failed', {
          params: { path: { job_id: id } },
          body: { setup, path, load, failure: failure ?? '', reach_n: reach },
        }),
      ),
  });

/** How every figure at one push came about. */
export const useWorking = (
  id: number,
  revision: number,
  setup: string,
  path: string,
  load: number,
  push: number | null,
) =>
  useQuery({
    queryKey: ['working', id, revision, setup, path, load, push],
    enabled: push !== null,
    retry: false,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/working', {
          params: { path: { job_id: id } },
          body: { setup, path, load, pedal_force_n: push ?? 0 },
        }),
      ),
  });

/** What a setup would be with some edits; nothing is stored. */
export const useTry = (id: number) =>
  useMutation({
    mutationFn: (tried: { setup: string; edits: EditIn[] }) =>
      answered(() => client.POST('/api/jobs/{job_id}/try', { params: { path: { job_id: id } }, body: tried })),
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

/** Take a job off the list, and bring it back. */
export function usePutAway() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: ['jobs'] });
  const path = (id: number) => ({ params: { path: { job_id: id } } });
  const away = useMutation({
    mutationFn: (id: number) => answered(() => client.DELETE('/api/jobs/{job_id}', path(id))),
    onSuccess,
  });
  const back = useMutation({
    mutationFn: (id: number) => answered(() => client.POST('/api/jobs/{job_id}/back', path(id))),
    onSuccess,
  });
  return { away, back };
}

export interface HeatAsked {
  setup: string;
  load: number;
  speed_from_kmh: string;
  speed_to_kmh: string;
  cooling_time_s: string;
  cooling_speed_kmh: string;
  stops: number;
}
/** How hot every rotor gets in a series of slow-downs. */
export const useHeat = (id: number, revision: number, asked: HeatAsked) =>
  useQuery({
    queryKey: ['heat', id, revision, asked],
    enabled: asked.setup !== '',
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/heat', {
          params: { path: { job_id: id } },
          body: { ...asked, ambient_c: '20' },
        }),
      ),
  });

/** Every entry and result of all setups of a job, side by side. */
export const useCompare = (id: number, revision: number, load: number, against: string, asked: boolean) =>
  useQuery({
    queryKey: ['compare', id, revision, load, against],
    enabled: asked,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/compare', { params: { path: { job_id: id }, query: { load, against } } }),
      ),
  });
