/**
 * Changes that could not be stored because nobody answered: kept in the browser's store, over a reload too, and sent in their order
 * as soon as somebody does. What is refused then stays, with the reason, until a person drops it or says it again.
 */
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { answered, client, isAway, ofJob, Refused } from './client';
import { keys } from './keys';
import { letGo, withPictures } from './pictures';
import type { RecordIn, ShowIn, Step } from './types';

export interface Waiting {
  id: string;
  job: number;
  /** The revision that it was made on. */
  base: number;
  /** A step on the job, or a record of what happened. */
  step: Step;
  record?: RecordIn;
  /** Why it was refused once it was sent; null while it waits. */
  refused: string | null;
}

const KEY = 'kobrix-waiting';
const EVERY_MS = 1500;
const listeners = new Set<() => void>();
let kept: readonly Waiting[] | null = null;

function read(): readonly Waiting[] {
  if (kept !== null) return kept;
  try {
    kept = JSON.parse(window.localStorage.getItem(KEY) ?? '[]') as Waiting[];
  } catch {
    kept = []; // what was kept cannot be read
  }
  return kept;
}
function write(next: readonly Waiting[]): void {
  kept = next;
  try {
    window.localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // no room: it waits as long as this page is open
  }
  listeners.forEach((changed) => changed());
}
if (typeof window !== 'undefined')
  window.addEventListener('storage', (event) => {
    if (event.key !== KEY) return;
    kept = null;
    listeners.forEach((changed) => changed());
  });
function listen(changed: () => void) {
  listeners.add(changed);
  return () => listeners.delete(changed);
}
export const useWaiting = (): readonly Waiting[] => useSyncExternalStore(listen, read);

const placesOf = (step: Step) => JSON.stringify([step.under, step.plan, step.edits?.map((e) => e.path)]);
/**
 * Keep a step until it can be stored; set again at the same places, or of the same gesture, the newer one is kept. What else is put into
 * a list is another each time.
 */
export function wait(job: number, base: number, step: Step): void {
  const sets = !step.plan && (step.edits ?? []).every(({ op = 'set' }) => op === 'set');
  const same = (w: Waiting) =>
    w.job === job &&
    w.step.under === step.under &&
    ((sets && placesOf(w.step) === placesOf(step)) || (step.gesture !== undefined && w.step.gesture === step.gesture));
  const others = read().filter((w) => !same(w));
  write([...others, { id: `${Date.now()}-${others.length}`, job, base, step, refused: null }]);
}
/** Keep a record until it can be stored: it has its key, and cannot be stored twice. */
export const waitWith = (job: number, label: string, record: RecordIn): void =>
  write([...read(), { id: record.key, job, base: 0, step: { label }, record, refused: null }]);
export function dropWaiting(id: string): void {
  const dropped = read().find((w) => w.id === id);
  write(read().filter((w) => w.id !== id));
  void letGo(dropped);
}
/** Take back what was made last of what waits for a job; whether there was any. */
export function takeBack(job: number): boolean {
  const last = read().findLast((w) => w.job === job && w.record === undefined);
  if (last) dropWaiting(last.id);
  return last !== undefined;
}
export const waitsFor = (job: number) =>
  read().some((w) => w.job === job && w.refused === null && w.record === undefined);

/** Keep a record, its photographs first. */
export async function storeRecord(job: number, record: RecordIn) {
  const body = await withPictures(job, record);
  const kept = await answered(() => client.POST('/api/jobs/{job_id}/records', { ...ofJob(job), body }));
  void letGo(record);
  return kept;
}
/** Make a step on a revision, its photographs first; `show`: what of the job comes back with it. */
export async function storeStep(job: number, base: number, step: Step, show: ShowIn | null) {
  const whole = await withPictures(job, step);
  const made = await answered(() =>
    client.POST('/api/jobs/{job_id}/changes', {
      ...ofJob(job),
      // What is left out of a step stands for its default.
      body: { base, show, follow: false, ...whole, edits: (whole.edits ?? []) as never },
    }),
  );
  void letGo(step);
  return made;
}

/** Send what waits, one after the other, until nobody answers. Each job goes on from the revision that its last step made. */
async function sendAll(queries: QueryClient): Promise<void> {
  for (let next = firstOf(); next; next = firstOf()) {
    const { id, job, base, step } = next;
    try {
      if (next.record) {
        await storeRecord(job, next.record);
        await queries.invalidateQueries({ queryKey: keys.pages(job) }); // shown from here until the page has it
        write(read().filter((w) => w.id !== id));
      } else {
        const { revision } = (await storeStep(job, base, step, null)).job;
        const moved = (w: Waiting) => (w.job === job && w.base === base ? { ...w, base: revision } : w);
        write(read().flatMap((w) => (w.id === id ? [] : [moved(w)])));
      }
    } catch (error) {
      if (!(error instanceof Refused) || isAway(error)) return;
      const refused = error.message;
      write(read().map((w) => (w.id === id ? { ...w, refused } : w)));
    }
    void queries.invalidateQueries({ queryKey: keys.pages(job) });
  }
}
const firstOf = () => read().find((w) => w.refused === null);
/** Of all open pages one sends: what waits is kept for all of them. */
async function send(queries: QueryClient): Promise<void> {
  const one = async () => {
    kept = null;
    await sendAll(queries);
  };
  if (!('locks' in navigator)) return one();
  await navigator.locks.request('kobrix-waiting', { ifAvailable: true }, (lock) => (lock ? one() : undefined));
}

/** Sends what waits as soon as it can; asks before a page is closed that still has something to send. */
export function useSending(): { waiting: readonly Waiting[]; onSend: () => void } {
  const queries = useQueryClient();
  const waiting = useWaiting();
  const some = waiting.some((w) => w.refused === null);
  useEffect(() => {
    if (!some) return;
    const go = () => void send(queries);
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    const timer = window.setInterval(go, EVERY_MS);
    window.addEventListener('online', go);
    window.addEventListener('beforeunload', ask);
    return () => {
      window.clearInterval(timer);
      window.removeEventListener('online', go);
      window.removeEventListener('beforeunload', ask);
    };
  }, [some, queries]);
  return { waiting, onSend: () => void send(queries) };
}
