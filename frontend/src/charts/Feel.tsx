/** Feel: effort against travel at the one stop wanted; each standard bore solved, each setup a mark. */
import { memo } from 'react';
import { Button, Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import type { EffortBand } from '../api/types';
import { Box, Line, Path, poly, Ring, Words, type Point } from '../drawings/ink';
import { DragRing } from '../ui/DragRing';

import { force, lengthOf, perMillimetre, perNewton, spoken, written } from '../units/display';
import { Axes, scaleOf } from './axes';

export interface FeelDot {
  name: string;
  bore: number;
  push: number;
  travel: number;
  own: boolean;
}
export interface FeelMark {
  name: string;
  kind: 'plan' | 'found' | 'other';
  push: number;
  travel: number;
}
interface FeelProps {
  width: number;
  height: number;
  dots: readonly FeelDot[];
  marks: readonly FeelMark[];
  effort: EffortBand | null;
  limit: number;
  good: number | null;
  room: number | null;
  description: string;
  onBore: ((dot: FeelDot) => void) | null;
  /** The person's own lines, null where none is drawn; moved, or drawn back to the end to take them away. */
  own: { push: number | null; travel: number | null };
  onOwn: (of: 'push' | 'travel', value: number | null, gesture: string) => Promise<unknown>;
}

const Over = styled.div`
  position: relative;
  .dot {
    position: absolute;
    width: 24px;
    height: 24px;
    border: 0;
    border-radius: 50%;
    padding: 0;
    background: none;
    cursor: pointer;
  }
  .dot[data-hovered] {
    border: var(--r-outline) solid var(--plan);
  }
  .dot[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
    outline-offset: 0;
  }
  @media print, (pointer: coarse) {
    .dot {
      display: none;
    }
  }
`;

const NEAR = { x: 90, y: 22 };
/** How far below its mark the words of a setup stand: beside it, or out of the way of the plan's mark where that is near. */
function clearOf(plan: Point | undefined, [x, y]: Point): number {
  if (!plan || plan[0] < x - 8 || plan[0] > x + NEAR.x || Math.abs(plan[1] - y) > NEAR.y) return 4;
  return plan[1] - y > 8 ? -8 : 18;
}

/** Room of a bore's name; near the right end it stands to the left of its dot. */
const NAME_W = 46;
const NAME_H = 15;
const END = 36;

export const Feel = memo(function Feel(p: FeelProps) {
  const { width, height, dots, marks, effort, room } = p;
  const left = 40;
  const right = width - 12;
  const top = 14;
  const bottom = height - 32;
  const plan = marks.find((m) => m.kind === 'plan');
  const shown = dots.filter((d) => d.push < Math.max(1.25 * p.limit, ...marks.map((m) => m.push * 1.05)));
  const pushes = [...shown.map((d) => d.push), ...marks.map((m) => m.push)];
  const travels = [...shown.map((d) => d.travel), ...marks.map((m) => m.travel)];
  const most = Math.max(room ?? 0, ...travels) * 1.02;
  const least = Math.max(0, Math.min(...travels) - 12);
  const long = perMillimetre();
  const along = scaleOf(least * long, most * long, left, right, 4);
  const x = (mm: number) => along(mm * long);
  const k = perNewton();
  const highest = Math.max(p.limit * 1.1, ...pushes) * 1.04 * k;
  const up = scaleOf(0, highest, bottom, top, 4);
  const y = (n: number) => up(n * k);
  const floor = room !== null ? x(room) : null;
  const places = marks.map((m): Point => [x(m.travel), y(m.push)]);
  const roomAt = ([dx, dy]: Point) => !places.some(([mx, my]) => Math.abs(mx - dx - 12) < 24 && Math.abs(my - dy) < 20);
  // A bore is named where its name stands clear of those before it and of the setups' marks.
  const named = new Map<string, Point>();
  const begins = ([dx]: Point) => (dx > right - END ? dx - NAME_W : dx);
  for (const d of shown) {
    const at: Point = [x(d.travel), y(d.push)];
    const clear = [...named.values()].every(
      (other) => Math.abs(begins(other) - begins(at)) > NAME_W || Math.abs(other[1] - at[1]) > NAME_H,
    );
    if (!d.own && clear && roomAt(at)) named.set(d.name, at);
  }
  const own = plan && ([x(plan.travel), y(plan.push)] as Point);
  return (
    <Over style={{ width, height }}>
      <svg width={width} height={height} role="img" aria-label={p.description}>
        {effort && p.good !== null && (
          <Box
            x={left}
            y={y(effort.good)}
            w={Math.max(0, x(p.good) - left)}
            h={y(effort.low) - y(effort.good)}
            as="comfort"
          />
        )}
        <Axes
          {...{ x: along, y: up, left, right, top, bottom }}
          xName={`pedal travel, ${lengthOf(0).unit}`}
          yName={force(0).unit}
        />
        <Line a={[left, y(p.limit)]} b={[right, y(p.limit)]} as="limit" />
        <Words x={right - 2} y={y(p.limit) - 4} as="label label-danger" at="end">
          {written(force(p.limit))} limit
        </Words>
        {p.own.push !== null && (
          <>
            <Line a={[left, y(p.own.push)]} b={[right, y(p.own.push)]} as="own-line" />
            <Words x={right - 2} y={y(p.own.push) - 4} as="label-plan" at="end">
              {`yours ${written(force(p.own.push))}`}
            </Words>
          </>
        )}
        {p.own.travel !== null && (
          <>
            <Line a={[x(p.own.travel), top]} b={[x(p.own.travel), bottom]} as="own-line" />
            <Words
              x={x(p.own.travel) + (x(p.own.travel) > right - 80 ? -16 : 16)}
              y={bottom - 5}
              as="label-plan"
              at={x(p.own.travel) > right - 80 ? 'end' : 'start'}
            >
              {`yours ${lengthOf(p.own.travel).v}`}
            </Words>
          </>
        )}
        {floor !== null && floor < right && (
          <>
            <Box x={floor} y={top} w={7} h={bottom - top} as="ground" />
            <Line a={[floor, top]} b={[floor, bottom]} as="edge" />
          </>
        )}
        {shown.length > 1 && <Path d={poly(shown.map((d): Point => [x(d.travel), y(d.push)]))} as="edge" />}
        {plan && (
          <>
            <Line a={[left, y(plan.push)]} b={[x(plan.travel), y(plan.push)]} as="plan-thin" />
            <Line a={[x(plan.travel), y(plan.push)]} b={[x(plan.travel), bottom]} as="plan-thin" />
          </>
        )}
        {shown.map((d) => (
          <g key={d.name}>
            <Ring x={x(d.travel)} y={y(d.push)} r={3.2} as="edge paper" />
            {named.has(d.name) && (
              <Words
                x={x(d.travel) + (x(d.travel) > right - END ? -2 : 7)}
                y={y(d.push) - (x(d.travel) > right - END ? 8 : 3)}
                at={x(d.travel) > right - END ? 'end' : 'start'}
              >
                {d.name.replace(' in', '')}
              </Words>
            )}
          </g>
        ))}
        {marks.map((m) => {
          const [mx, my] = [x(m.travel), y(m.push)];
          if (m.kind === 'plan') {
            return (
              <g key={m.name}>
                <Ring x={mx} y={my} r={6} as="plan-area" />
                <Words x={mx + 9} y={my - 6} as="label-plan">
                  {m.name}
                </Words>
              </g>
            );
          }
          if (m.kind === 'found') {
            return (
              <g key={m.name}>
                <Ring x={mx} y={my} r={5} as="found-shape" />
                <Words x={mx + 9} y={my + clearOf(own, [mx, my])} as="label-found">
                  {`${m.name} ${force(m.push).v}`}
                </Words>
              </g>
            );
          }
          const near = own !== undefined && Math.abs(own[0] - mx) < 24 && Math.abs(own[1] - my) < 26;
          return (
            <g key={m.name}>
              <Box x={mx - 4.5} y={my - 4.5} w={9} h={9} as="other-mark" />
              <Words
                x={near && own[0] >= mx ? mx - 9 : mx + 9}
                y={near && own[1] >= my ? my - 3 : my + 12}
                as="label-strong"
                at={near && own[0] >= mx ? 'end' : 'start'}
              >
                {m.name}
              </Words>
            </g>
          );
        })}
      </svg>
      <DragRing
        label="Your own limit of the push"
        value={p.own.push ?? p.limit}
        least={20}
        most={p.limit}
        step={5}
        perPixel={-(highest / k) / (bottom - top)}
        left={`${left + 14}px`}
        top={`${y(p.own.push ?? p.limit)}px`}
        text={(n) => (n >= p.limit ? 'none' : written(force(n)))}
        onTake={(n, gesture) => p.onOwn('push', n >= p.limit ? null : n, gesture)}
      />
      {room !== null && (
        <DragRing
          label="Your own limit of the travel"
          value={p.own.travel ?? room}
          least={10}
          most={room}
          step={1}
          along="x"
          perPixel={(most - least) / (right - left)}
          left={`${x(p.own.travel ?? room)}px`}
          top={`${bottom - 12}px`}
          text={(mm) => (mm >= room ? 'none' : written(lengthOf(mm)))}
          onTake={(mm, gesture) => p.onOwn('travel', mm >= room ? null : mm, gesture)}
        />
      )}
      {p.onBore && (
        // One stop for the Tab key; arrows go from bore to bore.
        <Toolbar aria-label="Standard bores">
          {shown.map((d) => (
            <Button
              key={d.name}
              className="dot"
              aria-label={`Bore ${d.name}: ${spoken(force(d.push))}, ${spoken(lengthOf(d.travel))}`}
              style={{ left: x(d.travel) - 12, top: y(d.push) - 12 }}
              onPress={() => p.onBore?.(d)}
            />
          ))}
        </Toolbar>
      )}
    </Over>
  );
});
