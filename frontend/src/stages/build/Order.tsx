/** The order of the groups as a ladder: every half-done state a box, above the line what may be driven so, the best way bold. */
import type { OrderView } from '../../api/types';
import { Box, Line, Path, Words } from '../../drawings/ink';
import { force, written } from '../../units/display';
import { percent } from '../../units/format';

const HIGH = 46;
const GAP = 10;
const TOP = 24;

type State = OrderView['states'][number];
export function Ladder({ order, width }: { order: OrderView; width: number }) {
  const count = order.groups.length;
  const columns = Array.from({ length: count + 1 }, (_, n) => order.states.filter((s) => s.done.length === n));
  const step = width / (count + 1);
  const wide = Math.min(132, step - 22);
  const most = Math.max(...columns.map((c) => c.filter((s) => s.may_drive).length));
  const under = Math.max(...columns.map((c) => c.filter((s) => !s.may_drive).length));
  const line = TOP + most * (HIGH + GAP) + 8;
  const height = line + (under > 0 ? 22 + under * (HIGH + GAP) : 18);
  const at = (state: State): readonly [number, number] => {
    const column = columns[state.done.length] ?? [];
    const same = column.filter((s) => s.may_drive === state.may_drive);
    const n = same.indexOf(state);
    const y = state.may_drive ? TOP + n * (HIGH + GAP) : line + 22 + n * (HIGH + GAP);
    return [state.done.length * step + 2, y];
  };
  const edges = order.states.flatMap((a) =>
    order.states
      .filter((b) => b.done.length === a.done.length + 1 && a.done.every((d) => b.done.includes(d)))
      .map((b) => ({ a, b, best: a.on_best && b.on_best })),
  );
  const said = order.states
    .map(
      (s) =>
        `${s.done.length === 0 ? 'as found' : s.done.join(' and ')}: ${s.may_drive ? 'may be driven slowly' : s.dangers.join(', ')}`,
    )
    .join('; ');
  return (
    <svg width={width} height={height} role="img" aria-label={`Half-done states. ${said}`}>
      <Words x={2} y={14} as="label-strong">
        may be driven so, slowly
      </Words>
      {edges.map(({ a, b, best }) => {
        const [x1, y1] = at(a);
        const [x2, y2] = at(b);
        const mid = (x1 + wide + x2) / 2;
        return (
          <Path
            key={`${a.letters}>${b.letters}`}
            d={`M${x1 + wide},${y1 + HIGH / 2}C${mid},${y1 + HIGH / 2} ${mid},${y2 + HIGH / 2} ${x2},${y2 + HIGH / 2}`}
            as={best ? 'plan-line' : a.may_drive && b.may_drive ? 'thin' : 'found'}
          />
        );
      })}
      {under > 0 && (
        <>
          <Line a={[0, line]} b={[width, line]} as="limit-danger" />
          <Words x={2} y={line + 14} as="label-danger">
            not on the road, only on stands
          </Words>
        </>
      )}
      {order.states.map((state) => {
        const [x, y] = at(state);
        return (
          <g key={state.letters}>
            <Box x={x} y={y} w={wide} h={HIGH} as={state.on_best ? 'edge paper' : 'thin paper'} />
            <Words x={x + 7} y={y + 18} as={state.may_drive ? 'label-strong' : 'label-danger'}>
              {state.letters === '' ? 'as found' : state.letters}
            </Words>
            {state.push_n !== null && (
              <Words x={x + wide - 6} y={y + 18} at="end">
                {written(force(state.push_n))}
              </Words>
            )}
            <Words x={x + 7} y={y + 36} as="label-quiet">
              {state.dangers[0] !== undefined && wide > 110
                ? state.dangers[0]
                : state.chance !== null
                  ? `rear first ${percent(state.chance)}`
                  : ''}
            </Words>
          </g>
        );
      })}
    </svg>
  );
}
