/** The sheet of Measure from the server, what matters most, helpers and photographs. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client } from './client';
import type { Layout } from './types';

export const useSheet = (id: number, revision: number, setup: string) =>
  useQuery({
    queryKey: ['sheet', id, revision, setup],
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() => client.GET('/api/jobs/{job_id}/sheet', { params: { path: { job_id: id }, query: { setup } } })),
  });

export const useMatters = (id: number, revision: number, setup: string, asked: boolean) =>
  useQuery({
    queryKey: ['matters', id, revision, setup],
    enabled: asked,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() => client.GET('/api/jobs/{job_id}/matters', { params: { path: { job_id: id }, query: { setup } } })),
  });

export const useHelp = () =>
  useMutation({
    mutationFn: ({
      name,
      given,
      preferred,
    }: {
      name: string;
      given: Record<string, string>;
      preferred: Record<string, string>;
    }) => answered(() => client.POST('/api/help/{name}', { params: { path: { name } }, body: { given, preferred } })),
  });

export const useAddPhoto = (id: number) =>
  useMutation({
    mutationFn: (file: File) =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/photos', {
          params: { path: { job_id: id } },
          body: file as never,
          bodySerializer: (body: unknown) => body as File,
          headers: { 'Content-Type': file.type || 'application/octet-stream' },
        }),
      ),
  });
export const photoUrl = (id: number, sha256: string) => `/api/jobs/${id}/photos/${sha256}`;

export function useBeginJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { name: string; layout: Layout }) => answered(() => client.POST('/api/jobs/new', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['jobs'] }),
  });
}
