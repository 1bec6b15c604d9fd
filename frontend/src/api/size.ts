/** What Size asks beside its page: the figures of exactly one push, a failure, a working, heat, setups side by side, an edit tried. */
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import { keys } from './keys';
import type { Edit, FileEdit, HeatIn } from './types';

/** A push [N] or a deceleration [g]. */
export interface Asked {
  by: 'push' | 'decel';
  value: number;
}
/** Which line is meant: of a setup, a control path, a load state by its place. */
export interface LineAsked {
  setup: string;
  path: string;
  load: number;
}

/** The core's figures for exactly what is asked, once the push is at rest. */
export const useMoment = (id: number, revision: number, line: LineAsked, asked: Asked | null) =>
  useQuery({
    queryKey: keys.moment(id, revision, line, asked),
    enabled: asked !== null,
    ...lasting(30_000),
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/moment', {
          ...ofJob(id),
          body: { ...line, ...(asked?.by === 'push' ? { pedal_force_n: asked.value } : { decel_g: asked?.value }) },
        }),
      ),
  });

/** The range of pushes with one failure in it. */
export const useFailed = (id: number, revision: number, line: LineAsked, reach: number, failure: string | null) =>
  useQuery({
    queryKey: keys.failed(id, revision, line, reach, failure),
    enabled: failure !== null && line.setup !== '',
    ...lasting(60_000),
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/failed', {
          ...ofJob(id),
          body: { ...line, failure: failure ?? '', reach_n: reach },
        }),
      ),
  });

/** Every setup judged with its trials: follows the page by a moment. */
export const useVerdicts = (id: number, revision: number, ready = true) =>
  useQuery({
    queryKey: keys.verdicts(id, revision),
    enabled: ready,
    ...lasting(60_000),
    queryFn: () => answered(() => client.GET('/api/jobs/{job_id}/verdicts', ofJob(id))),
  });

/** What would mend a setup's findings, once they have been tried. */
export const useMends = (id: number, revision: number, setup: string, ready: boolean) =>
  useQuery({
    queryKey: keys.mends(id, revision, setup),
    enabled: ready && setup !== '',
    ...lasting(60_000),
    queryFn: () =>
      answered(() => client.GET('/api/jobs/{job_id}/mends', { params: { path: { job_id: id }, query: { setup } } })),
  });

/** How every figure at one push came about. */
export const useWorking = (id: number, revision: number, line: LineAsked, push: number | null) =>
  useQuery({
    queryKey: keys.working(id, revision, line, push),
    enabled: push !== null,
    ...lasting(30_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/working', { ...ofJob(id), body: { ...line, pedal_force_n: push ?? 0 } }),
      ),
  });

/** What a setup would be with some edits below it, none for the setup as it is; nothing is stored. */
export const useTry = (id: number) =>
  useMutation({
    mutationFn: (tried: { setup: string; edits: readonly (Edit | FileEdit)[] }) =>
      answered(() =>
        client.POST('/api/jobs/{job_id}/try', {
          ...ofJob(id),
          body: { setup: tried.setup, under: tried.setup, edits: [...tried.edits] },
        }),
      ),
  });

/** How hot every rotor gets in a series of slow-downs. */
export const useHeat = (id: number, revision: number, asked: Omit<HeatIn, 'ambient_c'>) =>
  useQuery({
    queryKey: keys.heat(id, revision, asked),
    enabled: asked.setup !== '',
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() => client.POST('/api/jobs/{job_id}/heat', { ...ofJob(id), body: { ...asked, ambient_c: '20' } })),
  });

/** Every entry and result of all setups of a job, side by side. */
export const useCompare = (id: number, revision: number, load: number, against: string) =>
  useQuery({
    queryKey: keys.compare(id, revision, load, against),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/compare', { params: { path: { job_id: id }, query: { load, against } } }),
      ),
  });
