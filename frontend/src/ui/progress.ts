/** How each stage stands, from what the server says of the job. */
import type { JobView } from '../api/types';
import type { Progress } from './Mark';
import type { StageName } from './StageStrip';

export type Stages = Partial<Record<StageName, { state: Progress; words: string }>>;

export function progressOf(view: JobView): Stages {
  const { done, total } = view.measured;
  const measured: Progress = done === 0 ? 'empty' : done < total ? 'begun' : 'ready';
  const plan = view.setups[1] ?? view.setups[0];
  const sized: Progress = !plan?.solved
    ? 'empty'
    : plan.level === 'danger' || plan.level === 'caution'
      ? 'begun'
      : 'ready';
  return {
    Measure: { state: measured, words: measured === 'begun' ? `begun: ${done} of ${total}` : measured },
    Size: { state: sized, words: sized },
  };
}
