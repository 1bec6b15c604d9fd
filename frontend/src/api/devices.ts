/** Phones and tablets that are let in: listed, one more by a link, one taken off. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client } from './client';
import { keys } from './keys';

export const useDevices = () =>
  useQuery({ queryKey: keys.devices, queryFn: () => answered(() => client.GET('/api/devices')) });
export function useDoor() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: keys.devices });
  const link = useMutation({ mutationFn: () => answered(() => client.POST('/api/devices/link')) });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answered(() => client.DELETE('/api/devices/{device_id}', { params: { path: { device_id: id } } })),
    onSuccess,
  });
  return { link, remove };
}
