/** Recordings of a drive: looked into, and stops out of them kept. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { answered, client, ofJob } from './client';
import { keys } from './keys';
import type { RecordingView } from './types';

/** What a person says of the columns: number of the column to what it is of and its unit. */
export type Said = Record<string, [string, string]>;

const bytes = (file: File) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as File,
  headers: { 'Content-Type': 'application/octet-stream' },
});
const told = (said: Said) => (Object.keys(said).length === 0 ? {} : { columns: JSON.stringify(said) });

export interface Look {
  file: File;
  said: Said;
  signal: AbortSignal;
}
export function useLook(job: number) {
  return useMutation<RecordingView, Error, Look>({
    mutationFn: ({ file, said, signal }) =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/recordings/look', {
          params: { path: { job_id: job }, query: told(said) },
          ...bytes(file),
          signal,
        }),
      ),
  });
}

export interface Keep {
  file: File;
  said: Said;
  set: string;
  stops: readonly number[];
}
export function useKeep(job: number) {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: keys.pages(job) });
  const keep = useMutation<unknown, Error, Keep>({
    mutationFn: ({ file, said, set, stops }) =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/recordings/keep', {
          params: { path: { job_id: job }, query: { ...told(said), set, stops: stops.join(','), source: file.name } },
          ...bytes(file),
        }),
      ),
    onSuccess,
  });
  const simulate = useMutation<unknown, Error, string>({
    mutationFn: (set) =>
      answered(() => client.POST('/api/jobs/{job_id}/recordings/simulated', { ...ofJob(job), body: { set } })),
    onSuccess,
  });
  return { keep, simulate };
}
