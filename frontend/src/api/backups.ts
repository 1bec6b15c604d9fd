/** Copies of the whole database: the daily ones, and one put back. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { answered, client } from './client';
import { keys } from './keys';

export const useBackups = (open: boolean) =>
  useQuery({
    queryKey: keys.backups,
    enabled: open,
    retry: false,
    queryFn: () => answered(() => client.GET('/api/backups')),
  });
/** Everything that is shown is of before: the page begins anew. */
export const useRestore = () =>
  useMutation({
    mutationFn: (name: string) =>
      answered(() => client.POST('/api/backups/{name}/restore', { params: { path: { name } } })),
  });
