/** Tyre on the road and the vehicle in side view; generic bodies, never a make. */
import { memo } from 'react';
import { Line, Path, polar, Ring, r2 } from './ink';

/** Tyre in face view standing on the road. */
export const TyreFace = memo(function TyreFace({ x, y, r, rim }: { x: number; y: number; r: number; rim: number }) {
  return (
    <>
      <Ring x={x} y={y} r={r} as="edge fpaper" />
      <Ring x={x} y={y} r={r - 3.2} as="thin" />
      <Ring x={x} y={y} r={rim + 2} as="thin" />
      <Ring x={x} y={y} r={rim} />
      <Ring x={x} y={y} r={rim * 0.8} as="thin" />
      {Array.from({ length: 10 }, (_, i) => (
        <Line key={i} a={polar(x, y, rim * 0.34, i * 36 + 18)} b={polar(x, y, rim * 0.74, i * 36 + 18)} />
      ))}
      <Ring x={x} y={y} r={rim * 0.28} as="edge fpaper" />
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
  const cx = X(wheelbase * (1 - front));
  const cy = Y(height);
  const q = 4.5;
  return (
    <>
      <Path d={body} as="edge fpaper" />
      <Path d={glass} as="thin" />
      <Path d={`M${at(-670, 660)}L${at(rear + 690, 700)}M${at(1600, 890)}L${at(1600, 340)}`} as="thin" />
      {[0, wheelbase].map((w) => (
        <g key={w}>
          <Ring x={X(w)} y={Y(radius)} r={radius * s} as="edge fpaper" />
          <Ring x={X(w)} y={Y(radius)} r={radius * s * 0.62} as="thin" />
        </g>
      ))}
      <Ring x={cx} y={cy} r={q} as="edge fpaper" />
      <Path
        d={`M${r2(cx)},${r2(cy)}l0,${-q}a${q},${q} 0 0 1 ${q},${q}ZM${r2(cx)},${r2(cy)}l0,${q}a${q},${q} 0 0 1 ${-q},${-q}Z`}
        as="solid"
      />
    </>
  );
});
