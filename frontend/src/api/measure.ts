/** What Measure asks beside its page: the sheet of another stage's finder, sensitivity and helpers. */
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { answered, client, lasting } from './client';
import { keys } from './keys';

/** The sheet of a setup, for pages that only look things up in it. */
export const useSheet = (id: number, revision: number, setup: string, enabled = true) =>
  useQuery({
    queryKey: keys.sheet(id, revision, setup),
    enabled,
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() => client.GET('/api/jobs/{job_id}/measure', { params: { path: { job_id: id }, query: { setup } } })),
  });

export const useSensitivity = (id: number, revision: number, setup: string, enabled: boolean) =>
  useQuery({
    queryKey: keys.sensitivity(id, revision, setup),
    enabled,
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/sensitivity', { params: { path: { job_id: id }, query: { setup } } }),
      ),
  });

interface Given {
  name: string;
  given: Record<string, string>;
  preferred: Record<string, string>;
}
export const useHelper = () =>
  useMutation({
    mutationFn: ({ name, given, preferred }: Given) =>
      answered(() => client.POST('/api/help/{name}', { params: { path: { name } }, body: { given, preferred } })),
  });
