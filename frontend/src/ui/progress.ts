/** How each stage stands, from what the server says of the job. */
import type { JobView } from '../api/types';
import type { Progress } from './Mark';
import type { StageName } from './StageStrip';

export type Stages = Partial<Record<StageName, { state: Progress; words: string }>>;

/** Of the plans the one that stands best: without a danger it is in doubt while a caution stands. */
function sizedOf({ setups }: JobView): Progress {
  const plans = setups.length > 1 ? setups.slice(1) : setups;
  const levels = plans.filter((p) => p.solved).map((p) => p.level);
  if (levels.length === 0) return 'empty';
  if (levels.some((level) => level !== 'danger' && level !== 'caution')) return 'ready';
  return levels.includes('caution') ? 'doubt' : 'begun';
}

export function progressOf(view: JobView): Stages {
  const { done, total, doubted } = view.measured;
  const measured: Progress = done === 0 ? 'empty' : done < total ? 'begun' : doubted > 0 ? 'doubt' : 'ready';
  const sized = sizedOf(view);
  const told: Record<Progress, string> = {
    empty: 'empty',
    begun: `begun: ${done} of ${total}`,
    doubt: `doubt: ${doubted} unsure`,
    ready: 'ready',
  };
  return {
    Measure: { state: measured, words: told[measured] },
    Size: { state: sized, words: sized === 'doubt' ? 'doubt: cautions' : sized },
  };
}
