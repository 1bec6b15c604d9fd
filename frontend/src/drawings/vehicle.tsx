/** Tyre on the road and the vehicle in side view; generic bodies, never a make. */
import { memo } from 'react';
import type { MeasureSheet } from '../api/types';
import { Line, Path, polar, Ring, r2 } from './ink';

/** Tyre in face view standing on the road. */
export const TyreFace = memo(function TyreFace({ x, y, r, rim }: { x: number; y: number; r: number; rim: number }) {
  return (
    <>
      <Ring x={x} y={y} r={r} as="edge paper" />
      <Ring x={x} y={y} r={r - 3.2} as="thin" />
      <Ring x={x} y={y} r={rim + 2} as="thin" />
      <Ring x={x} y={y} r={rim} />
      <Ring x={x} y={y} r={rim * 0.8} as="thin" />
      {Array.from({ length: 10 }, (_, i) => (
        <Line key={i} a={polar(x, y, rim * 0.34, i * 36 + 18)} b={polar(x, y, rim * 0.74, i * 36 + 18)} />
      ))}
      <Ring x={x} y={y} r={rim * 0.28} as="edge paper" />
    </>
  );
});

/** The sign of a centre of gravity. */
export const CentreMark = memo(function CentreMark({ x, y }: { x: number; y: number }) {
  const q = 4.5;
  return (
    <>
      <Ring x={x} y={y} r={q} as="edge paper" />
      <Path
        d={`M${r2(x)},${r2(y)}l0,${-q}a${q},${q} 0 0 1 ${q},${q}ZM${r2(x)},${r2(y)}l0,${q}a${q},${q} 0 0 1 ${-q},${-q}Z`}
        as="solid"
      />
    </>
  );
});

interface CarProps {
  x: number;
  y: number;
  s: number;
  wheelbase: number;
  radius: number;
  height: number;
  front: number;
}
/** Estate in side view, front axle at x, road at y; its centre of gravity from the numbers. */
export const CarSide = memo(function CarSide({ x, y, s, wheelbase, radius, height, front }: CarProps) {
  const X = (mm: number) => x + mm * s;
  const Y = (mm: number) => y - mm * s;
  const at = (a: number, b: number) => `${r2(X(a))},${r2(Y(b))}`;
  const arch = r2(radius * s * 1.25);
  const rear = wheelbase;
  const body =
    `M${at(-640, 300)}L${at(-690, 420)}L${at(-680, 640)}L${at(-620, 790)}L${at(480, 900)}L${at(1000, 1350)}` +
    `L${at(1180, 1395)}L${at(rear + 220, 1370)}L${at(rear + 530, 1290)}L${at(rear + 670, 860)}L${at(rear + 710, 520)}` +
    `L${at(rear + 680, 330)}L${at(rear + 380, 300)}A${arch},${arch} 0 0 0 ${at(rear - 380, 300)}L${at(380, 300)}` +
    `A${arch},${arch} 0 0 0 ${at(-380, 300)}Z`;
  const glass =
    `M${at(640, 920)}L${at(1060, 1290)}L${at(1560, 1310)}L${at(1560, 905)}Z` +
    `M${at(1640, 905)}L${at(1640, 1310)}L${at(rear - 220, 1300)}L${at(rear - 220, 895)}Z` +
    `M${at(rear - 140, 893)}L${at(rear - 140, 1298)}L${at(rear + 380, 1250)}L${at(rear + 500, 880)}Z`;
  return (
    <>
      <Path d={body} as="edge paper" />
      <Path d={glass} as="thin" />
      <Path d={`M${at(-670, 660)}L${at(rear + 690, 700)}M${at(1600, 890)}L${at(1600, 340)}`} as="thin" />
      {[0, wheelbase].map((w) => (
        <g key={w}>
          <Ring x={X(w)} y={Y(radius)} r={radius * s} as="edge paper" />
          <Ring x={X(w)} y={Y(radius)} r={radius * s * 0.62} as="thin" />
        </g>
      ))}
      <CentreMark x={X(wheelbase * (1 - front))} y={Y(height)} />
    </>
  );
});

interface SideProps {
  x: number;
  y: number;
  s: number;
  wheelbase: number;
  radius: number;
}
const Wheel = ({ x, y, r }: { x: number; y: number; r: number }) => (
  <>
    <Ring x={x} y={y - r} r={r} as="edge paper" />
    <Ring x={x} y={y - r} r={r * 0.72} as="thin" />
    <Ring x={x} y={y - r} r={2.5} as="solid" />
  </>
);
/** Corner points in mm from the front axle on the road, as path data. */
const shape = ({ x, y, s }: SideProps) => {
  const at = ([a, b]: readonly [number, number]) => `${r2(x + a * s)},${r2(y - b * s)}`;
  return (points: readonly (readonly [number, number])[]) => `M${points.map(at).join('L')}`;
};

interface SketchProps {
  kind: 'car' | 'truck' | 'motorcycle' | 'aircraft';
  tail: boolean;
  /** In mm; what is not known is drawn as usual. */
  wheelbase: number | null;
  height: number | null;
  share: number | null;
  x: number;
  y: number;
  /** px/mm, or the wheelbase in px. */
  s?: number;
  wide?: number;
}
const USUAL_MM = { car: 2500, truck: 3300, motorcycle: 1420, aircraft: 1600 };
const TAIL_MM = 4400; // from the main wheels to one under the tail
/** A wheelbase to draw by where it is not known, in mm. */
export const usualWheelbase = (kind: SketchProps['kind'], tail: boolean) =>
  kind === 'aircraft' && tail ? TAIL_MM : USUAL_MM[kind];
/** Whether an aircraft stands on its tail: its braked wheels are the front ones. */
export const onItsTail = (sheet: MeasureSheet) =>
  sheet.kind === 'aircraft' && sheet.sections.some((section) => section.axle === 'front');
/** A vehicle in side view by its kind, front axle at x, road at y. */
export function VehicleSide({ kind, tail, wheelbase, height, share, x, y, s, wide = 180 }: SketchProps) {
  const long = wheelbase ?? usualWheelbase(kind, tail);
  const shape = { x, y, s: s ?? wide / long, wheelbase: long, radius: kind === 'aircraft' ? 180 : 300 };
  if (kind === 'motorcycle') return <BikeSide {...shape} />;
  if (kind === 'aircraft') return <AircraftSide {...shape} tail={tail} />;
  return <CarSide {...shape} height={height ?? 550} front={share ?? 0.55} />;
}

/** Motorcycle in side view, front axle at x, road at y. */
export const BikeSide = memo(function BikeSide(p: SideProps) {
  const d = shape(p);
  const L = p.wheelbase;
  const r = p.radius;
  return (
    <>
      <Wheel x={p.x} y={p.y} r={r * p.s} />
      <Wheel x={p.x + L * p.s} y={p.y} r={r * p.s} />
      <Path
        d={d([
          [0, r],
          [0.2 * L, 760],
          [0.24 * L, 930],
        ])}
        as="heavy"
      />
      <Path
        d={d([
          [0.2 * L, 960],
          [0.33 * L, 950],
        ])}
      />
      <Path
        d={
          d([
            [0.22 * L, 820],
            [0.36 * L, 870],
            [0.55 * L, 800],
            [0.66 * L, 770],
            [1.06 * L, 830],
            [1.1 * L, 780],
            [0.72 * L, 690],
            [0.6 * L, 560],
            [0.3 * L, 640],
          ]) + 'Z'
        }
        as="edge paper"
      />
      <Path
        d={
          d([
            [0.36 * L, 600],
            [0.42 * L, 330],
            [0.66 * L, 330],
            [0.64 * L, 560],
          ]) + 'Z'
        }
        as="edge paper"
      />
      <Path
        d={
          d([
            [0.62 * L, 420],
            [L, r],
          ]) +
          d([
            [0.8 * L, 640],
            [0.9 * L, 360],
          ])
        }
      />
      <Path
        d={
          d([
            [0.38 * L, 480],
            [0.64 * L, 480],
          ]) +
          d([
            [0.37 * L, 540],
            [0.64 * L, 540],
          ])
        }
        as="thin"
      />
    </>
  );
});

/** Light aircraft in side view, front wheel at x, ground at y; `tail`: the third wheel is under the tail. */
export const AircraftSide = memo(function AircraftSide(p: SideProps & { tail: boolean }) {
  const d = shape(p);
  const L = p.wheelbase;
  const long = p.tail ? L * 1.08 : L * 1.75;
  const nose = p.tail ? -0.16 * L : -0.3 * L;
  return (
    <>
      <Path
        d={
          d([
            [nose, 760],
            [nose + 0.08 * L, 930],
            [0.25 * L, 1000],
            [0.42 * L, 1290],
            [0.85 * L, 1290],
            [0.95 * L, 1080],
            [long, 1010],
            [long + 0.02 * L, 1480],
            [long - 0.18 * L, 1440],
            [long - 0.3 * L, 1040],
          ]) +
          d([
            [long, 1010],
            [long, 880],
            [0.9 * L, 640],
            [0.2 * L, 600],
            [nose + 0.06 * L, 640],
            [nose, 760],
          ])
        }
        as="edge paper"
      />
      <Path
        d={d([
          [nose - 0.02 * L, 450],
          [nose - 0.02 * L, 1070],
        ])}
        as="heavy"
      />
      <Path
        d={d([
          [0.28 * L, 1300],
          [1.0 * L, 1330],
        ])}
        as="heavy"
      />
      <Path
        d={
          d([
            [0.3 * L, 1010],
            [0.45 * L, 1260],
            [0.62 * L, 1260],
            [0.62 * L, 1010],
          ]) + 'Z'
        }
        as="thin"
      />
      <Path
        d={
          d([
            [0, p.radius],
            [0.02 * L, 640],
          ]) +
          d([
            [L, p.radius],
            [L * (p.tail ? 1 : 0.92), p.tail ? 900 : 650],
          ])
        }
      />
      <Wheel x={p.x} y={p.y} r={p.radius * p.s} />
      <Wheel x={p.x + L * p.s} y={p.y} r={p.radius * p.s * (p.tail ? 0.6 : 1)} />
    </>
  );
});
