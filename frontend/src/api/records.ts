/** Records of what happened at the vehicle: kept at once, on this device where nobody answers, and never twice. */
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { freshKey, isAway } from './client';
import { keys } from './keys';
import type { RecordIn } from './types';
import { storeRecord, useWaiting, waitWith } from './waiting';

const now = () => `${new Date().toISOString().slice(0, 19)}Z`;

export type Recorder = (label: string, kind: RecordIn['kind'], body: Record<string, unknown>) => Promise<void>;
/** Keep a record; refused, it throws with the reason. */
export function useRecorder(job: number): Recorder {
  const queries = useQueryClient();
  return useCallback(
    async (label, kind, body) => {
      const record: RecordIn = { key: freshKey(), kind, body, made_at: now() };
      try {
        await storeRecord(job, record);
        await queries.invalidateQueries({ queryKey: keys.pages(job) });
      } catch (error) {
        if (!isAway(error)) throw error;
        waitWith(job, label, record);
      }
    },
    [job, queries],
  );
}

/** Keep a record under a key that it has already: read from a file twice, it is kept once. */
export function useKeeper(job: number): (key: string, body: Record<string, unknown>) => Promise<void> {
  const queries = useQueryClient();
  return useCallback(
    async (key, body) => {
      const record: RecordIn = { key, kind: 'remark', body };
      await storeRecord(job, record);
      await queries.invalidateQueries({ queryKey: keys.pages(job) });
    },
    [job, queries],
  );
}

/** The records of a job that are made and not stored yet, in the order they were made. */
export function useUnsent(job: number): readonly RecordIn[] {
  const waiting = useWaiting();
  return useMemo(
    () => waiting.flatMap((w) => (w.job === job && w.record && w.refused === null ? [w.record] : [])),
    [waiting, job],
  );
}
/** What of a kind stands, by a name of its own: `stored` with what is not sent yet laid over it. */
export function laidOver<T extends { key: string | null }>(
  stored: T | null,
  unsent: readonly RecordIn[],
  own: (record: RecordIn) => T | null,
): T | null {
  return unsent.reduce<T | null>((at, record) => {
    if (record.kind === 'struck') return at !== null && record.body['of'] === at.key ? null : at;
    return own(record) ?? at;
  }, stored);
}
