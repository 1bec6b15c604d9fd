/** Why a setup is worth buying, how sure it is, and what it costs, in words. */
import type { Kept as Row } from '../../api/types';
import { percent } from '../../ui/ChanceBar';
import { decel } from '../../units/format';

/** How much later the rear locks, P5 to P95, and the chances worth saying, the greatest first. */
export function chances(row: Row): string {
  const likely = Object.entries(row.doubt?.chances ?? {})
    .filter(([, share]) => share >= 0.01)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 3)
    .map(([id, share]) => `${Math.round(share * 100)} % ${LIMITS[id] ?? id}`);
  const margin = row.doubt?.margin_g;
  const later = margin ? `rear locks ${decel(margin.p5)} to ${decel(margin.p95)} g later; ` : '';
  const pads = row.doubt?.order_by_friction ? 'the front is first only by its pads; ' : '';
  return `${pads}${later}${likely.length > 0 ? `chance of ${likely.join(', ')}` : 'within every limit in all trials'}`;
}

const LIMITS: Record<string, string> = {
  no_stop: 'no such stop',
  rear_first: 'rear first',
  early_lock: 'early lock',
  effort: 'too hard',
  travel: 'too long',
  stroke: 'a chamber is spent',
  slippery: 'rear first when slippery',
  sharing: 'against the sharing rule',
  lost_circuit: 'too little left',
};

/** In how many of 100 plausible vehicles every limit is held. */
export const holds = (row: Row): string => (row.joint_chance === null ? '' : percent(row.joint_chance));

/** The first reasons, or that nothing beats it. */
export const reasonsOf = (row: Row): string =>
  [...(row.beaten ? ['another beats it'] : []), ...row.reasons].slice(0, 2).join('; ') || 'nothing beats it';

export const extraCost = (row: Row): string =>
  row.price === null ? 'not known' : row.price === 0 ? '0' : `+${Math.round(row.price)}`;
