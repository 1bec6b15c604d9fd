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
  busy: boolean;
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
  const { mutateAsync } = change;
  const onStep = useCallback(
    async function step(edit: Step, quiet = false): Promise<unknown> {
      try {
        const answer = await mutateAsync(edit);
        setMessage(null);
        return answer;
      } catch (error) {
        const own = quiet && error instanceof Refused && error.problem.status === 422;
        if (!own) refused(error, () => void step(edit).catch(() => undefined));
        throw error;
      }
    },
    [mutateAsync, refused],
  );
  const { mutate: undoOne } = undo;
  const { mutate: redoOne } = redo;
  const onUndo = useCallback(() => {
    setMessage(null);
    if (job.can_undo) undoOne(undefined, { onError: (error) => refused(error) });
  }, [job.can_undo, undoOne, refused]);
  const onRedo = useCallback(() => {
    setMessage(null);
    if (job.can_redo) redoOne(undefined, { onError: (error) => refused(error) });
  }, [job.can_redo, redoOne, refused]);
  const onClose = useCallback(() => setMessage(null), []);
  return {
    message,
    busy: change.isPending || undo.isPending || redo.isPending,
    onClose,
    onStep,
    onUndo,
    onRedo,
  };
}
