/** Over the range of one dimension: the chance that every limit holds, with a valve dashed; the kept run tinted, what it is now marked. */
import { Box, Line, Path, Words, poly, type Point } from '../drawings/ink';

interface ChanceBandProps {
  points: readonly { value: number; chance: number; valve_chance: number | null }[];
  now: number;
  keep: readonly number[] | null;
  withValve: readonly number[] | null;
  /** The chance [1] from which a value is kept. */
  share: number;
  width: number;
  height: number;
  description: string;
  write: (value: number) => string;
}
export function ChanceBand(props: ChanceBandProps) {
  const { points, now, keep, withValve, share, width, height, description, write } = props;
  const low = points[0]?.value ?? 0;
  const high = points[points.length - 1]?.value ?? 1;
  const foot = height - 16;
  const x = (v: number) => 26 + ((v - low) / (high - low || 1)) * (width - 30);
  const y = (chance: number) => 4 + (1 - chance) * (foot - 4);
  const line = (of: (p: ChanceBandProps['points'][number]) => number): Point[] =>
    points.map((p) => [x(p.value), y(of(p))]);
  const valve = points.some((p) => p.valve_chance !== null);
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      {withValve && (
        <Box
          x={x(withValve[0] ?? low)}
          y={4}
          w={x(withValve[1] ?? high) - x(withValve[0] ?? low)}
          h={foot - 4}
          as="comfort"
        />
      )}
      {keep && <Box x={x(keep[0] ?? low)} y={4} w={x(keep[1] ?? high) - x(keep[0] ?? low)} h={foot - 4} as="tint" />}
      <Line a={[26, y(share)]} b={[width - 4, y(share)]} as="scale-line" />
      <Words x={22} y={y(share) + 4} at="end">
        {Math.round(share * 100)}
      </Words>
      <Line a={[26, foot]} b={[width - 4, foot]} as="thin" />
      {valve && <Path d={poly(line((p) => Math.max(p.chance, p.valve_chance ?? 0)))} as="found" />}
      <Path d={poly(line((p) => p.chance))} as="edge" />
      {now >= low && now <= high && <Line a={[x(now), 4]} b={[x(now), foot]} as="plan-line" />}
      <Words x={26} y={height - 3}>
        {write(low)}
      </Words>
      <Words x={width - 4} y={height - 3} at="end">
        {write(high)}
      </Words>
    </svg>
  );
}
