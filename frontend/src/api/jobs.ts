/** The jobs on this machine: listed, added, begun, put away; how the stages of one stand. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import { keys } from './keys';
import type { Layout } from './types';

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => answered(() => client.GET('/api/jobs')) });

/** What was put away, to be brought back. */
export const useAway = () =>
  useQuery({
    queryKey: keys.away,
    queryFn: () => answered(() => client.GET('/api/jobs', { params: { query: { away: true } } })),
  });

/** Invented vehicles that can be opened as a job. */
export const useExamples = () =>
  useQuery({
    queryKey: keys.examples,
    staleTime: Infinity,
    queryFn: () => answered(() => client.GET('/api/jobs/examples')),
  });

/** A job at a glance. */
export const useCard = (id: number, revision: number) =>
  useQuery({
    queryKey: keys.card(id, revision),
    ...lasting(300_000),
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/card', ofJob(id))),
  });

/** Open a copy of an example, or of a job; a job by another name. */
export function useWall() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: keys.jobs });
  const example = useMutation({
    mutationFn: (key: string) => answered(() => client.POST('/api/jobs/examples/{key}', { params: { path: { key } } })),
    onSuccess,
  });
  const copy = useMutation({
    mutationFn: (id: number) => answered(() => client.POST('/api/jobs/{job_id}/copy', ofJob(id))),
    onSuccess,
  });
  const rename = useMutation({
    mutationFn: ({ id, base, name }: { id: number; base: number; name: string }) =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/changes', {
          ...ofJob(id),
          body: { base, follow: false, label: 'name of the job', edits: [{ path: '/name', value: name }] as never },
        }),
      ),
    onSuccess: (changed) => {
      queries.removeQueries({ queryKey: keys.pages(changed.job.id) });
      return onSuccess();
    },
  });
  return { example, copy, rename };
}

/** The stages in their order, and how each stands at a revision. */
export const useStages = (id: number, revision: number, recorded = 0) =>
  useQuery({
    queryKey: keys.stages(id, revision, recorded),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/stages', ofJob(id))),
  });

/** A file as it stands, to a place that takes one. */
const asFile = (text: string) => ({
  body: text as never,
  bodySerializer: (body: unknown) => body as string,
  headers: { 'Content-Type': 'application/json' },
});

/** What is in a file, before it is opened. */
export const lookAtFile = (text: string) => answered(() => client.POST('/api/jobs/look', asFile(text)));

export function useAddJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (text: string) => answered(() => client.POST('/api/jobs', asFile(text))),
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
