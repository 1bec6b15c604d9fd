/** Steps of a person on a job: made at once, refused in words, undone and redone; the same in every stage. */
import { useCallback, useState } from 'react';
import { Refused, type Job } from './client';
import { useChange, type Step } from './jobs';

export interface Said {
  text: string;
  mine?: () => void;
}

function both(problem: Refused['problem']): string {
  const [one] = problem.both ?? [];
  if (!one) return problem.detail;
  const shown = (value: unknown) =>
    typeof value === 'string' || typeof value === 'number' ? String(value) : 'another one';
  return `Changed elsewhere since you looked: stored is ${shown(one['stored'])}, you entered ${shown(one['yours'])}. Nothing was overwritten.`;
}

export interface Steps {
  message: Said | null;
  onClose: () => void;
  /** Make a step; refused, it says so in `message` and throws. `quiet`: a refused entry is said by its own field. */
  onStep: (step: Step, quiet?: boolean) => Promise<unknown>;
  onUndo: () => void;
  onRedo: () => void;
}

export function useSteps(job: Job): Steps {
  const [message, setMessage] = useState<Said | null>(null);
  const { change, undo, redo } = useChange(job.id);
  const refused = useCallback((error: unknown, again?: () => void) => {
    if (!(error instanceof Refused)) throw error;
    const { problem } = error;
    setMessage(problem.status === 409 ? { text: both(problem), mine: again } : { text: problem.detail });
  }, []);
  const onStep = useCallback(
    async function step(edit: Step, quiet = false): Promise<unknown> {
      try {
        const answer = await change(edit);
        setMessage(null);
        return answer;
      } catch (error) {
        const own = quiet && error instanceof Refused && error.problem.status === 422;
        if (!own) refused(error, () => void step(edit).catch(() => undefined));
        throw error;
      }
    },
    [change, refused],
  );
  const onUndo = useCallback(() => {
    setMessage(null);
    if (job.can_undo) undo(undefined).catch(refused);
  }, [job.can_undo, undo, refused]);
  const onRedo = useCallback(() => {
    setMessage(null);
    if (job.can_redo) redo(undefined).catch(refused);
  }, [job.can_redo, redo, refused]);
  const onClose = useCallback(() => setMessage(null), []);
  return { message, onClose, onStep, onUndo, onRedo };
}
