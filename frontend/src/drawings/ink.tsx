/** The few marks that every drawing is made of: numbers in, SVG out. Pixels are CSS pixels, so text sizes are real. */
import { memo, type ReactNode } from 'react';

export type Point = readonly [number, number];
export const r2 = (n: number) => Math.round(n * 100) / 100;
const radians = (degrees: number) => (degrees * Math.PI) / 180;
export const polar = (cx: number, cy: number, r: number, degrees: number): Point => [
  cx + r * Math.cos(radians(degrees)),
  cy + r * Math.sin(radians(degrees)),
];
export const poly = (points: readonly Point[]) =>
  points.length === 0 ? '' : 'M' + points.map(([x, y]) => `${r2(x)},${r2(y)}`).join('L');
/** An arc of a circle as path data; without its first move when it continues another line. */
export function arc(cx: number, cy: number, r: number, from: number, to: number, continues = false): string {
  const [x0, y0] = polar(cx, cy, r, from);
  const [x1, y1] = polar(cx, cy, r, to);
  const flags = `${Math.abs(to - from) > 180 ? 1 : 0} ${to > from ? 1 : 0}`;
  return `${continues ? '' : `M${r2(x0)},${r2(y0)}`}A${r2(r)},${r2(r)} 0 ${flags} ${r2(x1)},${r2(y1)}`;
}

interface LineProps {
  a: Point;
  b: Point;
  as?: string;
  /** Width in pixels where the numbers say it, not the ink. */
  wide?: number;
}
const widthOf = (wide?: number) => (wide === undefined ? undefined : { strokeWidth: r2(wide) });
const sameLine = (p: LineProps, q: LineProps) =>
  p.a[0] === q.a[0] &&
  p.a[1] === q.a[1] &&
  p.b[0] === q.b[0] &&
  p.b[1] === q.b[1] &&
  p.as === q.as &&
  p.wide === q.wide;
// The marks are memoised: while a push is scrubbed most of a drawing stands still.
export const Line = memo(function Line({ a, b, as = 'thin', wide }: LineProps) {
  return <line x1={r2(a[0])} y1={r2(a[1])} x2={r2(b[0])} y2={r2(b[1])} className={as} style={widthOf(wide)} />;
}, sameLine);
export const Path = memo(function Path({ d, as = 'edge', wide }: { d: string; as?: string; wide?: number }) {
  return <path d={d} className={as} style={widthOf(wide)} />;
});
interface BoxProps {
  x: number;
  y: number;
  w: number;
  h: number;
  as?: string;
}
export const Box = memo(function Box({ x, y, w, h, as = 'edge' }: BoxProps) {
  return <rect x={r2(x)} y={r2(y)} width={r2(Math.max(0, w))} height={r2(Math.max(0, h))} className={as} />;
});
export const Ring = memo(function Ring({ x, y, r, as = 'edge' }: { x: number; y: number; r: number; as?: string }) {
  return <circle cx={r2(x)} cy={r2(y)} r={r2(Math.max(0, r))} className={as} />;
});
interface WordsProps {
  x: number;
  y: number;
  as?: string;
  at?: 'start' | 'middle' | 'end';
  children: ReactNode;
}
export const Words = memo(function Words({ x, y, as, at = 'start', children }: WordsProps) {
  return (
    <text x={r2(x)} y={r2(y)} textAnchor={at} className={as}>
      {children}
    </text>
  );
});
interface FigureProps {
  x: number;
  y: number;
  as?: string;
  at?: 'start' | 'middle' | 'end';
  v: string;
  unit: string;
}
/** A figure with its unit. */
export const Figure = memo(function Figure({ x, y, as = 'figure', at = 'start', v, unit }: FigureProps) {
  return (
    <text x={r2(x)} y={r2(y)} textAnchor={at} className={as}>
      {`${v} `}
      <tspan className="unit">{unit}</tspan>
    </text>
  );
});
interface ArrowProps {
  x: number;
  y: number;
  turn: number;
  as?: string;
  long?: number;
  half?: number;
}
/** A filled arrow with its tip at x, y; turn 0 points right. */
export const Arrow = memo(function Arrow({ x, y, turn, as = 'arrow', long = 8, half = 1.5 }: ArrowProps) {
  return (
    <path
      d={`M0,0L${-r2(long)},${-r2(half)}L${-r2(long)},${r2(half)}Z`}
      transform={`translate(${r2(x)},${r2(y)}) rotate(${r2(turn)})`}
      className={as}
    />
  );
});
interface DimensionProps {
  x1: number;
  x2: number;
  y: number;
  label: string;
  gap: number;
  as?: string;
}
/** A dimension with its figure in a gap of the line. */
export const Dimension = memo(function Dimension({ x1, x2, y, label, gap, as = 'gain' }: DimensionProps) {
  const middle = (x1 + x2) / 2;
  return (
    <>
      <Line a={[x1, y]} b={[middle - gap / 2, y]} />
      <Line a={[middle + gap / 2, y]} b={[x2, y]} />
      <Arrow x={x1} y={y} turn={180} />
      <Arrow x={x2} y={y} turn={0} />
      <Words x={middle} y={y + 4.5} as={as} at="middle">
        {label}
      </Words>
    </>
  );
});
/** Text on a patch of paper, so that lines behind it stay readable. */
export const Tag = memo(function Tag({
  x,
  y,
  as = 'label',
  at = 'start',
  children,
}: WordsProps & { children: string }) {
  const wide = children.length * 6.3;
  const left = at === 'end' ? x - wide : at === 'middle' ? x - wide / 2 : x;
  return (
    <>
      <Box x={left - 2} y={y - 11} w={wide + 4} h={15} as="paper" />
      <Words x={x} y={y} as={as} at={at}>
        {children}
      </Words>
    </>
  );
});
interface BalloonProps {
  x: number;
  y: number;
  n: number;
  on?: boolean;
}
export const Balloon = memo(function Balloon({ x, y, n, on = false }: BalloonProps) {
  return (
    <>
      <Ring x={x} y={y} r={8.5} as={on ? 'edge on' : 'edge'} />
      <Words x={x} y={y + 4.2} as={on ? 'balloon on' : 'balloon'} at="middle">
        {n}
      </Words>
    </>
  );
});
export const Ground = memo(function Ground({ x1, x2, y }: { x1: number; x2: number; y: number }) {
  return (
    <>
      <Line a={[x1, y]} b={[x2, y]} as="edge" />
      <Box x={x1} y={y} w={x2 - x1} h={5} as="ground" />
    </>
  );
});

const hatch = (id: string, size: number, turn: number, as: string, paper = false) => (
  <pattern id={id} width={size} height={size} patternUnits="userSpaceOnUse" patternTransform={`rotate(${turn})`}>
    {paper && <rect width={size} height={size} className="paper" />}
    <line x1={0} y1={0} x2={0} y2={size} className={as} />
  </pattern>
);
/** The hatches that all drawings share; stands once on a page. */
export const Hatches = () => (
  <svg width="0" height="0" className="visually-hidden" aria-hidden="true">
    <defs>
      {hatch('hatch', 4, 45, 'hatch-ink')}
      {hatch('hatch2', 4, -45, 'hatch-ink')}
      {hatch('good', 6, 45, 'hatch-good')}
      {hatch('plan-hatched', 4, 45, 'hatch-plan', true)}
      {hatch('ground', 6, 45, 'hatch-ground')}
      {hatch('wide', 9, 45, 'hatch-found')}
      {hatch('beyond-limit', 8, 45, 'hatch-danger')}
      {hatch('fallen-bar', 4, -45, 'hatch-danger', true)}
    </defs>
  </svg>
);
