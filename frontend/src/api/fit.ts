/** What Fit asks beside its page: what a fitting in the hand may be, and what a part must be. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import type { components } from './generated';
import { keys } from './keys';

export type Hand = components['schemas']['HandIn'];
export type HandPart = components['schemas']['HandPart'];
export type Limits = Record<string, string>;

export const useFitting = () =>
  useMutation({ mutationFn: (hand: Hand) => answered(() => client.POST('/api/fitting', { body: hand })) });
export const partsCsvUrl = (id: number, setup: string) =>
  `/api/jobs/${id}/parts.csv?setup=${encodeURIComponent(setup)}`;
export const yardCardUrl = (id: number, setup: string) =>
  `/api/jobs/${id}/yard.html?setup=${encodeURIComponent(setup)}`;

export const plateUrl = (id: number, setup: string, at: number, kind: string, paper: string) =>
  `/api/jobs/${id}/plates/${at}.${kind}?paper=${paper}&setup=${encodeURIComponent(setup)}`;

/** The bands of a setup; asked for once somebody wants to see them. */
export const useYard = (id: number, revision: number, setup: string, limits: Limits, enabled: boolean) =>
  useQuery({
    queryKey: keys.yard(id, revision, setup, limits),
    enabled,
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() => client.POST('/api/jobs/{job_id}/yard', { ...ofJob(id), body: { setup, limits, part: null } })),
  });
export const useYardPart = (id: number, setup: string, limits: Limits) =>
  useMutation({
    mutationFn: (part: HandPart) =>
      answered(() => client.POST('/api/jobs/{job_id}/yard/part', { ...ofJob(id), body: { setup, limits, part } })),
  });

/** The library ranked for what a setup needs at an axle. */
export const useDonors = (id: number, revision: number, setup: string, axle: 'front' | 'rear') =>
  useQuery({
    queryKey: keys.donors(id, revision, setup, axle),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/donors', { params: { path: { job_id: id }, query: { setup, axle } } }),
      ),
  });
/** A table of parts looked at or taken into the library; a part taken out. */
export function useLibrary() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: keys.library });
  const add = useMutation({
    mutationFn: (body: { text: string; keep: boolean }) => answered(() => client.POST('/api/library', { body })),
    onSuccess,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answered(() => client.DELETE('/api/library/{part_id}', { params: { path: { part_id: id } } })),
    onSuccess,
  });
  return { add, remove };
}
export const LIBRARY_CSV = '/api/library.csv';
/** Every setup as a route; asked for once somebody wants to see them. */
export const useRoutes = (id: number, revision: number) =>
  useQuery({
    queryKey: keys.routes(id, revision),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/routes', ofJob(id))),
  });
