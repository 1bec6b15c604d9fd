/** The pedal ratio through the stroke: level for a straight rod, a curve under a linkage. */
import { memo } from 'react';
import { Path, poly, Ring, Words, type Point } from '../drawings/ink';
import { Axes, scaleOf } from './axes';
import { lengthOf, perMillimetre } from '../units/display';

interface RatioCurveProps {
  width: number;
  height: number;
  /** Pedal travel in mm and ratio. */
  points: readonly Point[];
  at: Point;
  description: string;
}
export const RatioCurve = memo(function RatioCurve({ width, height, points, at, description }: RatioCurveProps) {
  const left = 34;
  const right = width - 12;
  const top = 14;
  const bottom = height - 32;
  const ratios = points.map(([, i]) => i);
  const k = perMillimetre();
  const long = scaleOf(0, Math.max(10, ...points.map(([mm]) => mm)) * k, left, right, 5);
  const x = (mm: number) => long(mm * k);
  const y = scaleOf(Math.min(...ratios, at[1]) * 0.85, Math.max(...ratios, at[1]) * 1.1, bottom, top, 4);
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      <Axes {...{ x: long, y, left, right, top, bottom }} xName={`pedal travel, ${lengthOf(0).unit}`} yName="ratio" />
      <Path d={poly(points.map(([mm, i]): Point => [x(mm), y(i)]))} as="plan-line" />
      <Ring x={x(at[0])} y={y(at[1])} r={5} as="plan-area" />
      <Words x={x(at[0]) + 8} y={y(at[1]) - 6} as="label-plan">
        {at[1].toFixed(2)}
      </Words>
    </svg>
  );
});
