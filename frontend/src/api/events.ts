/** Keeps the job on screen in step with what is stored: the server tells each new revision while the page is looked at. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Job } from './client';

export function useInStep(id: number): void {
  const queries = useQueryClient();
  useEffect(() => {
    let source: EventSource | null = null;
    const told = (event: MessageEvent<string>) => {
      const here = queries.getQueryData<Job>(['job', id]);
      if (here && Number(event.data) !== here.revision && queries.isMutating() === 0)
        void queries.invalidateQueries({ queryKey: ['job', id] });
    };
    // A browser opens few connections to one server: only the page that is seen holds one.
    const look = () => {
      source?.close();
      source = null;
      if (document.visibilityState !== 'visible') return;
      source = new EventSource(`/api/jobs/${id}/events`);
      source.onmessage = told;
    };
    look();
    document.addEventListener('visibilitychange', look);
    return () => {
      document.removeEventListener('visibilitychange', look);
      source?.close();
    };
  }, [id, queries]);
}
