/** A figure with its doubt on a common scale: P5 to P95, the figure as it is, and the limit. */
import type { Percentiles } from '../../api/types';
import { Line, Ring } from '../../drawings/ink';

interface WhiskerProps {
  value: number;
  range: Percentiles | null;
  most: number;
  limit: number;
  on: boolean;
}
const WIDE = 60;
export function Whisker({ value, range, most, limit, on }: WhiskerProps) {
  const x = (v: number) => 3 + Math.min(1, v / most) * (WIDE - 6);
  const as = on ? 'plan-line' : 'edge';
  return (
    <svg width={WIDE} height="18" aria-hidden="true">
      <Line a={[3, 9]} b={[WIDE - 3, 9]} as="scale-line" />
      <Line a={[x(limit), 1]} b={[x(limit), 17]} as="limit-heavy" />
      {range && (
        <>
          <Line a={[x(range.p5), 9]} b={[x(range.p95), 9]} as={as} />
          <Line a={[x(range.p5), 5]} b={[x(range.p5), 13]} as={as} />
          <Line a={[x(range.p95), 5]} b={[x(range.p95), 13]} as={as} />
        </>
      )}
      <Ring x={x(value)} y={9} r={3.6} as={on ? 'plan-area' : 'solid'} />
    </svg>
  );
}
