/** What the push rule shows, from what is looked at. */
import { useMemo } from 'react';
import type { PushRuleProps } from '../../charts/PushRule';
import { decel } from '../../units/format';
import { force, spoken } from '../../units/shown';
import { pushFor } from './figures';
import type { Size } from './useSize';

const ROUND_STOPS = [0.2, 0.4, 0.6, 0.8, 1];

export function useRule({ job, now, found, behind, state, onPush }: Size): PushRuleProps {
  const { view } = job;
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
    said: `Push, ${spoken(force(now.push))}, ${decel(now.decel)} g`,
    onPush,
  };
}
