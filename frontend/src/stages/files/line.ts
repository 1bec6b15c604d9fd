/** The force line of a setup at the stop that is wanted, or at its first lock before that, with the one as found behind it. */
import type { GainCurves, SetupView, SizeView } from '../../api/types';
import { figuresAt, figuresOf, pushFor } from '../../chain/figures';
import type { FoundLine } from '../../chain/geometry';

export interface DrawnLine extends FoundLine {
  name: string;
  found: FoundLine | null;
  gains: GainCurves | null;
}
const pathOf = (setup: SetupView | undefined) => {
  const solved = setup?.solved?.paths.at(-1);
  const state = solved?.states[0];
  return solved && state ? { solved, state } : null;
};

/** Null where the setup cannot be solved yet. */
export function drawnLine(view: SizeView, name: string): DrawnLine | null {
  const own = pathOf(view.setups.find((s) => s.key === name));
  if (!own) return null;
  const { solved, state } = own;
  const { lock, at_stop: stop, curves } = state;
  const locks = lock !== null && (view.wanted_decel_g ?? 0) > lock.decel_g;
  const push = locks ? lock.push_n : (stop?.pedal_force_n ?? lock?.push_n ?? view.push_range_n);
  const sampled = figuresAt(curves, push, solved.system);
  const exact = !locks && stop ? figuresOf(stop, solved.system) : null;
  const now = exact ? { ...exact, idealShare: sampled.idealShare } : sampled;
  const first = view.setups[0];
  const was = first && first.key !== name ? pathOf(first) : null;
  const before = was && pushFor(was.state.curves, now.decel);
  const found = was && before !== null ? { ...was, now: figuresAt(was.state.curves, before, was.solved.system) } : null;
  return { name, solved, state, now, found, gains: state.gains };
}
