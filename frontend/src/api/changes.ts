/** Steps of a person on a job: made at once on the revision on screen, refused in words, undone and redone; the same on every page. */
import { useIsMutating, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { answered, client, isAway, ofJob, Refused, WAITS } from './client';
import { keys } from './keys';
import type { Page, PageName } from './pages';
import type { Changed, Job, Step } from './types';
import { storeStep, takeBack, wait, waitsFor } from './waiting';

/** A step; or what makes it of the page once those before it are stored, so that what is still on its way is in it too. */
export type Making = Step | ((view: Page['view']) => Step);

/** Whether a step of the job is on its way to the store. */
export const useStoring = (id: number) => useIsMutating({ mutationKey: keys.step(id) }) > 0;

/**
 * A row that is taken out of a list is named by its place there on screen: with it goes what it is, so that the server finds it though
 * the list has become another by then.
 */
function namingRow(step: Step, job: Job | undefined): Step {
  const [edit, ...more] = step.edits ?? [];
  const [, list, place] = /^(.*)\/(\d+)$/.exec(edit?.op === 'remove' ? edit.path : '') ?? [];
  if (!job || !edit || list === undefined || more.length > 0) return step;
  const plan = step.under === undefined ? null : job.setups.indexOf(step.under) - 1;
  const root = plan === null || list.startsWith('/vehicle') ? '' : plan < 0 ? '/as_found' : `/plans/${plan}`;
  const rows = `${root}${list}`.split('/').slice(1).reduce(below, job.document);
  if (!Array.isArray(rows) || Number(place) >= rows.length) return step;
  return { ...step, edits: [{ ...edit, row: { was: rows[Number(place)] as unknown, of: rows.length } }] };
}
const below = (here: unknown, name: string): unknown =>
  here !== null && typeof here === 'object' ? (here as Record<string, unknown>)[name] : undefined;

/**
 * Make a step on the revision that is on screen; what the page shows of it comes back with it, or is read where the server has others
 * to store first. A stale one brings the newer job and the refusal with both values. One at a time; who asks is not drawn again while it is on its way (`useStoring` tells).
 */
function useChange(id: number, page: PageName | null, setup: string | null) {
  const queries = useQueryClient();
  return useMemo(() => {
    const own = keys.page(id, page, setup);
    const here = () => queries.getQueryData<Page>(own);
    const base = () => here()?.job.revision ?? 0;
    const show = page === null ? null : { page, setup };
    const store = async ({ job, shown }: Changed) => {
      if (shown === null && page !== null) await queries.invalidateQueries({ queryKey: own });
      else queries.setQueryData(own, { job, view: shown });
      queries.removeQueries({ queryKey: keys.pages(id), type: 'inactive' });
    };
    const inTurn =
      <In>(send: (asked: In) => Promise<Changed>) =>
      (asked: In) =>
        queries
          .getMutationCache()
          .build<Changed, Error, In, unknown>(queries, {
            mutationKey: keys.step(id),
            scope: { id: `job-${id}` },
            mutationFn: send,
            onSuccess: store,
            // The newer job is here before the refusal is told: whoever answers it answers what is stored now.
            onError: async (error) => {
              if (error instanceof Refused && error.problem.status === 409)
                await queries.invalidateQueries({ queryKey: keys.pages(id) });
            },
          })
          .execute(asked);
    const change = inTurn(async (asked: Making) => {
      const step = typeof asked === 'function' ? namingRow(asked(here()?.view ?? null), here()?.job) : asked;
      const on = base();
      try {
        // What waits goes first: a later step must not overtake it.
        if (waitsFor(id)) throw new Refused(WAITS);
        return await storeStep(id, on, step, show);
      } catch (error) {
        if (!isAway(error)) throw error;
        wait(id, on, step);
        throw new Refused(WAITS);
      }
    });
    return {
      change: (asked: Making) => change(typeof asked === 'function' ? asked : namingRow(asked, here()?.job)),
      undo: inTurn(() =>
        answered(() => client.POST('/api/jobs/{job_id}/undo', { ...ofJob(id), body: { base: base(), show } })),
      ),
      redo: inTurn(() =>
        answered(() => client.POST('/api/jobs/{job_id}/redo', { ...ofJob(id), body: { base: base(), show } })),
      ),
    };
  }, [id, page, setup, queries]);
}

/** A sentence about what was refused; `mine` stores it all the same where another one was stored meanwhile. */
export interface Notice {
  text: string;
  mine?: () => void;
}

function both(problem: Refused['problem']): string {
  const [one] = problem.both;
  if (!one) return problem.detail;
  const written = (value: unknown) =>
    typeof value === 'string' || typeof value === 'number' ? String(value) : 'another one';
  return `Changed elsewhere since you looked: stored is ${written(one.stored)}, you entered ${written(one.yours)}. Nothing was overwritten.`;
}

export interface Steps {
  notice: Notice | null;
  onClose: () => void;
  /** Make a step; refused, it says so in `notice` and throws. `quiet`: a refused entry is said by its own field. */
  onStep: (step: Making, quiet?: boolean) => Promise<unknown>;
  onUndo: () => void;
  onRedo: () => void;
}

export function useSteps(job: Job, page: PageName | null, setup: string | null = null): Steps {
  const [notice, setNotice] = useState<Notice | null>(null);
  const { change, undo, redo } = useChange(job.id, page, setup);
  const refused = useCallback((error: unknown, again?: () => void) => {
    if (!(error instanceof Refused)) throw error;
    const { problem } = error;
    if (problem === WAITS) return; // said on every page
    setNotice(problem.status === 409 ? { text: both(problem), mine: again } : { text: problem.detail });
  }, []);
  const onStep = useCallback(
    async function step(edit: Making, quiet = false): Promise<unknown> {
      try {
        const answer = await change(edit);
        setNotice(null);
        return answer;
      } catch (error) {
        const own = quiet && error instanceof Refused && error.problem.status === 422;
        if (!own) refused(error, () => void step(edit).catch(() => undefined));
        throw error;
      }
    },
    [change, refused],
  );
  const canUndo = job.undo !== null;
  const canRedo = job.redo !== null;
  const onUndo = useCallback(() => {
    setNotice(null);
    if (takeBack(job.id)) return; // what waits is taken back first
    if (canUndo) undo(undefined).catch(refused);
  }, [canUndo, undo, refused, job.id]);
  const onRedo = useCallback(() => {
    setNotice(null);
    if (canRedo) redo(undefined).catch(refused);
  }, [canRedo, redo, refused]);
  const onClose = useCallback(() => setNotice(null), []);
  return { notice, onClose, onStep, onUndo, onRedo };
}
