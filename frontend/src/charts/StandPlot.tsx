/** Readings over the push on what the model sees: the band of plausible vehicles, its middle dashed, each reading a mark. */
import type { BandPoint } from '../api/types';
import { Line, Path, Ring, Words, poly, type Point } from '../drawings/ink';

export interface Reading {
  key: string;
  force: number;
  value: number;
  /** Drawn but not counted. */
  quiet: boolean;
  as: 'ring' | 'square';
}
interface StandPlotProps {
  bands: readonly { points: readonly BandPoint[]; as: 'tint' | 'found-area' }[];
  readings: readonly Reading[];
  unit: string;
  write: (value: number) => string;
  push: (n: number) => string;
  pushUnit: string;
  width: number;
  height: number;
  description: string;
}
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000];
const marksTo = (most: number, many: number) => {
  const step = STEPS.find((s) => most / s <= many) ?? most;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step);
};

export function StandPlot(props: StandPlotProps) {
  const { bands, readings, unit, write, push, pushUnit, width, height, description } = props;
  const most = Math.max(1, ...bands.flatMap((b) => b.points.map((p) => p.force_n)), ...readings.map((r) => r.force));
  const top = Math.max(1, ...bands.flatMap((b) => b.points.map((p) => p.high)), ...readings.map((r) => r.value)) * 1.04;
  const [left, foot] = [46, height - 30];
  const x = (f: number) => left + (f / most) * (width - left - 10);
  const y = (v: number) => 10 + (1 - v / top) * (foot - 10);
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      {marksTo(top, 5).map((v) => (
        <g key={v}>
          <Line a={[left, y(v)]} b={[width - 10, y(v)]} as="scale-line" />
          <Words x={left - 6} y={y(v) + 4} at="end">
            {write(v)}
          </Words>
        </g>
      ))}
      <Words x={left + 4} y={14} as="label-quiet">
        {unit}
      </Words>
      {bands.map(({ points, as }) => {
        const low: Point[] = points.map((p) => [x(p.force_n), y(p.low)]);
        const high: Point[] = points.map((p) => [x(p.force_n), y(p.high)]);
        return (
          <g key={as}>
            <Path d={points.length === 0 ? '' : `${poly([...low, ...high.reverse()])}Z`} as={as} />
            <Path d={poly(points.map((p) => [x(p.force_n), y(p.mid)] as const))} as="found" />
          </g>
        );
      })}
      <Line a={[left, foot]} b={[width - 10, foot]} as="edge" />
      <Line a={[left, 10]} b={[left, foot]} as="edge" />
      {marksTo(most, width < 420 ? 4 : 6).map((f) => (
        <g key={f}>
          <Line a={[x(f), foot]} b={[x(f), foot + 5]} as="thin" />
          <Words x={x(f)} y={foot + 17} at="middle">
            {push(f)}
          </Words>
        </g>
      ))}
      <Words x={width - 10} y={height - 2} as="label-quiet" at="end">
        push, {pushUnit}
      </Words>
      {readings.map((r) =>
        r.as === 'ring' ? (
          <Ring
            key={r.key}
            x={x(r.force)}
            y={y(r.value)}
            r={4.5}
            as={r.quiet ? 'found paper' : 'plan-line plan-area'}
          />
        ) : (
          <Path key={r.key} d={`M${x(r.force) - 5},${y(r.value) - 5}h10v10h-10Z`} as={r.quiet ? 'found' : 'edge'} />
        ),
      )}
    </svg>
  );
}
