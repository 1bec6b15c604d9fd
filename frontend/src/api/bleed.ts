/** What Bleed asks beside its page: another run of the stand test, and what simulated gauges show. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import type { components } from './generated';
import { keys } from './keys';

export type Simulate = components['schemas']['SimulateIn'];

export const useRun = (id: number, revision: number, recorded: number, setup: string, run: number | null) =>
  useQuery({
    queryKey: keys.run(id, revision, recorded, setup, run ?? 0),
    enabled: run !== null,
    ...lasting(60_000),
    queryFn: () =>
      answered(() =>
        client.GET('/api/jobs/{job_id}/stand', { params: { path: { job_id: id }, query: { run: run ?? 1, setup } } }),
      ),
  });
export const useSimulatedGauges = (id: number) =>
  useMutation({
    mutationFn: (asked: Simulate) =>
      answered(() => client.POST('/api/jobs/{job_id}/gauges', { ...ofJob(id), body: asked })),
  });

export type Pushes = components['schemas']['PushesIn'];
export type Pumped = components['schemas']['PumpedIn'];
/** What pushes with a scale and a ruler tell, and what a pumped pedal tells. */
export const usePushes = (id: number) =>
  useMutation({
    mutationFn: (asked: Pushes) =>
      answered(() => client.POST('/api/jobs/{job_id}/pushes', { ...ofJob(id), body: asked })),
  });
export const usePumped = (id: number) =>
  useMutation({
    mutationFn: (asked: Pumped) =>
      answered(() => client.POST('/api/jobs/{job_id}/pumped', { ...ofJob(id), body: asked })),
  });
