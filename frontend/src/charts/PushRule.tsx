/** The push as a rule: newtons above, the stop they give below, comfort hatched, the limit heavy, the lock a triangle. */
import { memo } from 'react';
import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import type { EffortBand } from '../api/types';
import { Box, Line, Path, r2, Words } from '../drawings/ink';
import { useWidth } from '../ui/useWidth';
import { decel, lock as lockText } from '../units/format';
import { force, perNewton, written } from '../units/display';

const Rule = styled(Slider<number>)`
  height: var(--row-ctl);
  padding: var(--s4) var(--s12) 0 var(--s10);
  touch-action: none;
  &[data-touch] {
    height: 56px;
  }
  .track {
    height: 40px;
    cursor: pointer;
  }
  .thumb {
    top: 21px;
    width: 18px;
    height: 18px;
    border-radius: 50%;
    background: var(--paper);
    border: var(--r-handle) solid var(--plan);
    cursor: grab;
  }
  .thumb[data-dragging] {
    cursor: grabbing;
  }
  .thumb[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
    outline-offset: var(--s2);
  }
  .thumb::before {
    content: '';
    position: absolute;
    left: calc(50% - var(--r-outline));
    bottom: 100%;
    height: 12px;
    width: var(--r-heavy);
    background: var(--plan);
  }
  .thumb::after {
    content: '';
    position: absolute;
    inset: -14px;
  }
  @media print {
    .thumb {
      display: none;
    }
  }
  &[data-touch] .thumb {
    top: 25px;
    width: 22px;
    height: 22px;
  }
`;

export interface PushRuleProps {
  push: number;
  range: number;
  effort: EffortBand | null;
  limit: number;
  found: number | null;
  lock: { push: number; decel: number; words: string } | null;
  /** Pushes at round decelerations, for the scale below. */
  /** What the mark of the setup behind is called. */
  behind: string;
  stops: readonly { decel: number; push: number }[];
  description: string;
  touch?: boolean;
  onPush: (push: number) => void;
}

export const PushRule = memo(function PushRule({
  push,
  range,
  effort,
  limit,
  found,
  behind,
  lock,
  stops,
  description,
  touch = false,
  onPush,
}: PushRuleProps) {
  const [ref, width] = useWidth<HTMLDivElement>(touch ? 358 : 620);
  const w = Math.max(60, width);
  const X = (n: number) => (n / range) * w;
  const y0 = touch ? 18 : 14;
  const y1 = y0 + 14;
  // Ticks are round in the unit that is shown.
  const k = perNewton();
  const [fine, coarse] = k === 1 ? [50, touch ? 200 : 100] : [10, touch ? 50 : 20];
  const ticks = Array.from({ length: Math.floor((range * k) / fine) + 1 }, (_, i) => i * fine);
  const end = found === null ? 0 : Math.min(w, X(found) + 34);
  const onLimit = end > X(limit) - 36 && end - 72 < X(limit) + 36;
  const named = found !== null && X(found) - X(push) > 100 && !onLimit ? end : null;
  const clear = (n: number, by: number) =>
    Math.abs(X(n) - X(push)) > by && (named === null || X(n) > named + 14 || named - X(n) > 112);
  const words = lock
    ? touch
      ? `${lock.words}, ${written(force(lock.push))}`
      : `${lock.words} at ${written(force(lock.push))}, ${lockText(lock.decel)} g`
    : '';
  const lockX = lock ? X(Math.min(lock.push, range)) : 0;
  const wordsWide = words.length * 5.9;
  const wordsEnd = lockX + 8 + wordsWide > w;
  const wordsX = wordsEnd ? Math.max(0, lockX - 8 - wordsWide) : lockX + 7;
  const comfort = effort ? `good ${force(effort.low).v} to ${written(force(effort.good))}` : '';
  const comfortFits = !touch && effort && !wordsEnd && lockX + wordsWide + 150 < w;
  return (
    <Rule
      value={Math.min(push, range)}
      minValue={0}
      maxValue={range}
      step={1}
      aria-label="Push"
      data-touch={touch || undefined}
      onChange={onPush}
    >
      <SliderTrack className="track">
        <div ref={ref}>
          <svg width="100%" height="44" aria-hidden="true">
            {effort && <Box x={X(effort.low)} y={y0} w={X(effort.good) - X(effort.low)} h={14} as="comfort" />}
            <Box x={0} y={y0} w={w} h={14} />
            {ticks.map((n) => (
              <Line key={n} a={[X(n / k), y0]} b={[X(n / k), y0 + (n % (2 * fine) === 0 ? 7 : 4)]} />
            ))}
            {ticks
              .filter((n) => n % coarse === 0 && clear(n / k, 16) && Math.abs(X(n / k) - X(limit)) > 40)
              .map((n) => (
                <Words key={n} x={X(n / k)} y={y0 - 4} at={n ? 'middle' : 'start'}>
                  {n}
                </Words>
              ))}
            <Line a={[X(limit), y0 - 1]} b={[X(limit), y1]} as="limit-heavy" />
            {Math.abs(X(limit) - X(push)) > 40 && (
              <Words x={X(limit)} y={y0 - 4} as="label label-danger" at="middle">
                {written(force(limit))} limit
              </Words>
            )}
            {found !== null && (
              <>
                <Line a={[X(found), y0 - 2]} b={[X(found), y1 + 2]} as="found" />
                {named !== null && (
                  <Words x={named} y={y0 - 4} as="figure-found" at="end">
                    {behind} {force(found).v}
                  </Words>
                )}
              </>
            )}
            {!touch &&
              stops.map((s) => (
                <g key={s.decel}>
                  <Line a={[X(s.push), y1]} b={[X(s.push), y1 - 6]} />
                  {(wordsEnd
                    ? X(s.push) < lockX - 12 - wordsWide || X(s.push) > lockX + 10
                    : X(s.push) < lockX - 10) && (
                    <Words x={X(s.push)} y={y1 + 13} at="middle">
                      {decel(s.decel).replace(/0$/, '')}
                    </Words>
                  )}
                </g>
              ))}
            <g className="onpaper">
              <Line a={[X(Math.min(push, range)), 0]} b={[X(Math.min(push, range)), y1 + 4]} as="plan-line" />
            </g>
            {lock && lock.push <= range && (
              <>
                <Path d={`M${r2(lockX)},${y1 + 1}l3.5,6l-7,0z`} as="solid" />
                <Words x={wordsX} y={y1 + 13} as="label">
                  {words}
                </Words>
              </>
            )}
            {comfortFits && (
              <Words x={w} y={y1 + 13} as="label label-good" at="end">
                {comfort}
              </Words>
            )}
          </svg>
        </div>
        <SliderThumb className="thumb" aria-label={description} />
      </SliderTrack>
    </Rule>
  );
});
