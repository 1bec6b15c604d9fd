/** What people ask, answered for one setup of a job. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered, client, lasting } from './client';
import { keys } from './keys';

export const useOftenAsked = (id: number, revision: number, setup: string | null) =>
  useQuery({
    queryKey: keys.oftenAsked(id, revision, setup),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/often-asked', {
          params: { path: { job_id: id }, query: setup === null ? {} : { setup } },
        }),
      ),
  });
