/** Rotor temperatures over a series of slow-downs: up at each, down between. */
import { memo } from 'react';
import { Path, poly, Words, type Point } from '../drawings/ink';
import { Axes, scaleOf } from './axes';
import { heatOf, shownHeat } from '../units/display';

interface PeaksProps {
  width: number;
  height: number;
  rows: readonly { name: string; peaks: readonly number[]; starts: readonly number[] }[];
  description: string;
}
export const Peaks = memo(function Peaks({ width, height, rows, description }: PeaksProps) {
  const left = 34;
  const right = width - 40;
  const top = 14;
  const bottom = height - 32;
  const count = Math.max(1, ...rows.map((r) => r.peaks.length));
  const x = scaleOf(0, count, left, right, Math.min(count, 8));
  const most = Math.max(100, ...rows.flatMap((r) => r.peaks)) * 1.05;
  const up = scaleOf(shownHeat(0), shownHeat(most), bottom, top, 4);
  const y = (c: number) => up(shownHeat(c));
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      <Axes {...{ x, y: up, left, right, top, bottom }} xName="slow-downs" yName={heatOf(0).unit} />
      {rows.map((r, i) => {
        const points = r.peaks.flatMap((peak, n): Point[] => [
          [x(n + 0.3), y(r.starts[n] ?? peak)],
          [x(n + 0.6), y(peak)],
        ]);
        const last = r.peaks[r.peaks.length - 1] ?? 0;
        return (
          <g key={r.name}>
            <Path d={poly(points)} as={i === 0 ? 'plan-line' : 'other-plan'} />
            <Words x={right + 4} y={y(last) + 4} as={i === 0 ? 'label-plan' : 'label-strong'}>
              {r.name.slice(0, 6)}
            </Words>
          </g>
        );
      })}
    </svg>
  );
});
