/** Keeps the job on screen in step with what is stored: the server tells each new revision and record while the page is looked at. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { keys } from './keys';
import type { Page } from './pages';

// Whether the server answers, as the line to it has it.
let there = true;
const listeners = new Set<() => void>();
function tell(now: boolean): void {
  if (now === there) return;
  there = now;
  listeners.forEach((changed) => changed());
}
function listen(changed: () => void) {
  listeners.add(changed);
  return () => listeners.delete(changed);
}
export const useThere = (): boolean => useSyncExternalStore(listen, () => there);

export function useInStep(id: number): void {
  const queries = useQueryClient();
  useEffect(() => {
    let source: EventSource | null = null;
    const heard = (event: MessageEvent<string>) => {
      const here = queries.getQueriesData<Page>({ queryKey: keys.pages(id), type: 'active' });
      const other = here.some(([, page]) => page && `${page.job.revision} ${page.job.recorded}` !== event.data);
      if (other && queries.isMutating() === 0) void queries.invalidateQueries({ queryKey: keys.pages(id) });
    };
    // A browser opens few connections to one server: only the page that is seen holds one.
    const look = () => {
      source?.close();
      source = null;
      if (document.visibilityState !== 'visible') return;
      source = new EventSource(`/api/jobs/${id}/events`);
      source.onmessage = heard;
      source.onopen = () => {
        if (!there) void queries.invalidateQueries({ queryKey: keys.pages(id) });
        tell(true);
      };
      source.onerror = () => tell(false);
    };
    look();
    document.addEventListener('visibilitychange', look);
    return () => {
      document.removeEventListener('visibilitychange', look);
      source?.close();
    };
  }, [id, queries]);
}
