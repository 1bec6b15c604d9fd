/** Pressure through the valve: what comes out of each line against what goes in, and where the push stands on it. */
import { memo } from 'react';
import { Path, poly, Ring, Words, type Point } from '../drawings/ink';
import { perKilopascal, pressure } from '../units/display';
import { Axes, scaleOf } from './axes';

export interface ValveLine {
  name: string;
  front: boolean;
  /** Inlet and outlet in kPa, rising with the push. */
  points: readonly Point[];
  at: Point;
}
interface ValveCurveProps {
  width: number;
  height: number;
  lines: readonly ValveLine[];
  description: string;
}

export const ValveCurve = memo(function ValveCurve({ width, height, lines, description }: ValveCurveProps) {
  const left = 34;
  const right = width - 12;
  const top = 14;
  const bottom = height - 32;
  const k = perKilopascal();
  const most = Math.max(1000, ...lines.flatMap((l) => l.points.map(([i]) => i))) * k;
  const x = scaleOf(0, most, left, right, 5);
  const y = scaleOf(0, most, bottom, top, 4);
  const at = ([i, o]: Point): Point => [x(i * k), y(o * k)];
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      <Axes
        {...{ x, y, left, right, top, bottom }}
        xName={`from the cylinder, ${pressure(0).unit}`}
        yName={`to the brakes, ${pressure(0).unit}`}
      />
      {lines.map((l) => (
        <g key={l.name}>
          <Path d={poly(l.points.map(at))} as={l.front ? 'plan-line' : 'other-plan'} />
          <Ring x={at(l.at)[0]} y={at(l.at)[1]} r={5} as="plan-area" />
          <Words x={at(l.at)[0] + 8} y={at(l.at)[1] + (l.front ? -6 : 14)} as="label-plan">
            {`${l.name} ${pressure(l.at[1]).v}`}
          </Words>
        </g>
      ))}
    </svg>
  );
});
