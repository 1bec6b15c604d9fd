/** What each change bought: the core's gain of every link, looked up between its samples. */
import type { GainCurves } from '../api/types';
import { sampleAt } from './figures';

export type BandSide = 'front' | 'rear' | 'whole';
/** Whether the setup behind is looked at where it stops alike, or where it is pushed alike. */
export type Match = 'stop' | 'push';
export interface Gain {
  /** Link whose shoulder it is: 1 pedal, 2 booster, 3 cylinder, 4 valve, 5 brakes, 6 rotors, 7 tyres. */
  link: number;
  name: string;
  gain: number;
}

/** Where in the drawing each of the core's links stands. */
const PLACES: Record<string, number> = {
  pin: 1,
  booster: 2,
  bore: 3,
  valve: 4,
  pistons: 5,
  brakes: 5,
  rotors: 6,
  tyres: 7,
};
const SAME = 0.005;

/** A list with what cannot be compared left out, at a push: null where either of its neighbours is missing. */
function between(list: readonly (number | null)[], [i, t]: readonly [number, number]): number | null {
  const a = list[i] ?? null;
  const b = t > 0 ? (list[i + 1] ?? null) : a;
  return a === null || b === null ? null : a + t * (b - a);
}

const sideOf = (gains: GainCurves, match: Match, side: BandSide) =>
  (match === 'stop' ? gains.same_stop : gains.same_push)[side];

/** The gains that are not one at a push, in the order of the links; null where the two cannot be compared there. */
export function gainsAt(
  gains: GainCurves | null,
  pushes: readonly number[],
  push: number,
  match: Match,
  side: BandSide,
): Gain[] | null {
  const own = gains && sideOf(gains, match, side);
  if (!own) return null;
  const at = sampleAt(pushes, push);
  if (between(own.product, at) === null) return null;
  const found: Gain[] = [];
  for (const [name, list] of Object.entries(own.links)) {
    const gain = between(list, at);
    if (gain === null) return null;
    if (Math.abs(gain - 1) > SAME) found.push({ link: PLACES[name] ?? 0, name, gain });
  }
  return found.sort((a, b) => a.link - b.link);
}

/** The side that changed most, for the first look. */
export function mostChanged(gains: GainCurves | null, pushes: readonly number[], push: number, match: Match): BandSide {
  const change = (side: BandSide) => {
    const own = gains && sideOf(gains, match, side);
    const product = own ? between(own.product, sampleAt(pushes, push)) : null;
    return product === null || product <= 0 ? -1 : Math.abs(Math.log(product));
  };
  return change('rear') > change('front') ? 'rear' : 'front';
}
