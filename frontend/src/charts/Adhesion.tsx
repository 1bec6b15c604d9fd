/** Adhesion used by each axle against deceleration, with what UN R13-H asks of the sharing. */
import { memo } from 'react';
import { Line, Path, poly, Ring, Words, type Point } from '../drawings/ink';
import { Axes, scaleOf } from './axes';

interface AdhesionProps {
  width: number;
  height: number;
  /** Deceleration and adhesion used, for each axle that brakes. */
  front: readonly Point[];
  rear: readonly Point[];
  at: { decel: number; front: number | null; rear: number | null };
  grip: number;
  car: boolean;
  description: string;
}

export const Adhesion = memo(function Adhesion(p: AdhesionProps) {
  const { width, height, at } = p;
  const left = 34;
  const right = width - 12;
  const top = 14;
  const bottom = height - 32;
  const x = scaleOf(0, 1, left, right, 5);
  const y = scaleOf(0, 1.2, bottom, top, 4);
  const inside = (points: readonly Point[]) =>
    poly(points.filter(([z, f]) => z <= 1 && f <= 1.2).map(([z, f]): Point => [x(z), y(f)]));
  // z ≥ 0.1 + 0.7(k − 0.2) for k from 0.2 to 0.8, drawn as the greatest k at each z.
  const most = (k: number): Point => [x(0.1 + 0.7 * (k - 0.2)), y(k)];
  return (
    <svg width={width} height={height} role="img" aria-label={p.description}>
      <Axes {...{ x, y, left, right, top, bottom }} xName="deceleration, g" yName="adhesion used" />
      <Line a={[x(0), y(0)]} b={[x(1), y(1)]} as="thin" />
      {p.car && (
        <>
          <Path d={poly([most(0.2), most(0.8)])} as="limit" />
          <Words x={most(0.8)[0]} y={most(0.8)[1] - 5} as="label label-danger" at="end">
            most that is allowed
          </Words>
        </>
      )}
      <Line a={[left, y(p.grip)]} b={[right, y(p.grip)]} as="heavy" />
      <Words x={right} y={y(p.grip) - 4} as="label-quiet" at="end">
        grip
      </Words>
      <Path d={inside(p.front)} as="plan-line" />
      <Path d={inside(p.rear)} as="other-plan" />
      {p.front.length > 0 && at.front !== null && at.front <= 1.2 && (
        <>
          <Ring x={x(at.decel)} y={y(at.front)} r={5} as="plan-area" />
          <Words x={x(at.decel) + 8} y={y(at.front) + 4} as="label-plan">
            {`front ${at.front.toFixed(2)}`}
          </Words>
        </>
      )}
      {p.rear.length > 0 && at.rear !== null && at.rear <= 1.2 && (
        <>
          <Ring x={x(at.decel)} y={y(at.rear)} r={4} as="other-mark" />
          <Words x={x(at.decel) + 8} y={y(at.rear) + 14} as="label-strong">
            {`rear ${at.rear.toFixed(2)}`}
          </Words>
        </>
      )}
    </svg>
  );
});
