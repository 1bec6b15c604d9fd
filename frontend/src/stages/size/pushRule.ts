/** What the push rule shows, from what is looked at. */
import { useMemo } from 'react';
import type { PushRuleProps } from '../../charts/PushRule';
import { pushFor } from '../../chain/figures';
import { force, spoken } from '../../units/display';
import { decel } from '../../units/format';
import type { Reading } from './useSize';

const ROUND_STOPS = [0.2, 0.4, 0.6, 0.8, 1];

type Ruled = Pick<Reading, 'view' | 'now' | 'found' | 'behind' | 'state'>;
export function usePushRule({ view, now, found, behind, state }: Ruled, onPush: (n: number) => void): PushRuleProps {
  const stops = useMemo(
    () =>
      ROUND_STOPS.flatMap((z) => {
        const push = pushFor(state.curves, z);
        return push === null ? [] : [{ decel: z, push }];
      }),
    [state.curves],
  );
  const lock = useMemo(
    () => state.lock && { push: state.lock.push_n, decel: state.lock.decel_g, words: state.first_lock_words },
    [state.lock, state.first_lock_words],
  );
  return {
    push: now.push,
    range: view.push_range_n,
    effort: view.effort,
    limit: view.force_limit_n,
    found: found && Math.abs(found.now.push - now.push) > 1 ? found.now.push : null,
    behind,
    lock,
    stops,
    description: `Push, ${spoken(force(now.push))}, ${decel(now.decel)} g`,
    onPush,
  };
}
