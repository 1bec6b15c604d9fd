/** The frame that the plots share: two scales in round steps, their ticks and their names. */
import { Line, Path, r2, Words } from '../drawings/ink';

export interface Scale {
  (value: number): number;
  ticks: number[];
  text: (value: number) => string;
}

const STEPS = [1, 2, 2.5, 5, 10];
/** A linear scale from `low` to `high` onto pixels, with some `count` of round ticks. */
export function scaleOf(low: number, high: number, from: number, to: number, count: number): Scale {
  const span = Math.max(1e-9, high - low);
  const rough = span / Math.max(1, count);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = (STEPS.find((s) => s * power >= rough) ?? 10) * power;
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  const digits = Math.max(0, -Math.floor(Math.log10(step) + 1e-9) + (step / power === 2.5 ? 1 : 0));
  const scale = ((value: number) => from + ((value - low) / span) * (to - from)) as Scale;
  scale.ticks = Array.from({ length: last - first + 1 }, (_, i) => (first + i) * step);
  scale.text = (value) => value.toFixed(digits);
  return scale;
}

interface AxesProps {
  x: Scale;
  y: Scale;
  left: number;
  right: number;
  top: number;
  bottom: number;
  xName: string;
  yName: string;
}
export function Axes({ x, y, left, right, top, bottom, xName, yName }: AxesProps) {
  return (
    <>
      {y.ticks.map((v) => (
        <Line key={`g${v}`} a={[left, y(v)]} b={[right, y(v)]} as="scale-line" />
      ))}
      <Path d={`M${left},${r2(top)}L${left},${bottom}L${right},${bottom}`} />
      {x.ticks.map((v) => (
        <g key={v}>
          <Line a={[x(v), bottom]} b={[x(v), bottom + 4]} />
          <Words x={x(v)} y={bottom + 15} at="middle">
            {x.text(v)}
          </Words>
        </g>
      ))}
      {y.ticks.map((v) => (
        <Words key={v} x={left - 6} y={y(v) + 4} at="end">
          {y.text(v)}
        </Words>
      ))}
      <Words x={right} y={bottom + 28} as="label-quiet" at="end">
        {xName}
      </Words>
      <Words x={left + 4} y={top - 4} as="label-quiet">
        {yName}
      </Words>
    </>
  );
}
