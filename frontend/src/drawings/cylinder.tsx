/** The master cylinder in section and end on, pipes, hoses and nuts. */
import { memo } from 'react';
import { Box, Line, Path, Ring, r2 } from './ink';

export interface CylinderShape {
  x: number;
  y: number;
  bore: number;
  found: number;
  length: number;
  wall: number;
  push: number;
  tandem: boolean;
  fluid: boolean;
}
export const cylinderHalf = (bore: number, wall: number) => bore / 2 + wall;
/** Where the side port's pipe leaves, right of the first piston's land. */
export const sidePort = (x: number, push: number) => x + 14 + push + 34;

const springPath = (xa: number, xb: number, y: number) => {
  let d = `M${r2(xa)},${y + 9}`;
  for (let i = 1; i <= 7; i++) d += `L${r2(xa + ((xb - xa) * i) / 7)},${y + (i % 2 ? -9 : 9)}`;
  return d;
};

const Piston = ({ x, y, w, h }: { x: number; y: number; w: number; h: number }) => (
  <>
    <Box x={x} y={y - h} w={w} h={2 * h} as="edge paper" />
    <Box x={x + 6} y={y - h} w={w - 12} h={5} as="thin paper" />
    <Box x={x + 6} y={y + h - 5} w={w - 12} h={5} as="thin paper" />
    <Path d={`M${r2(x + w)},${y - h + 1}l-4,0l0,5zM${r2(x + w)},${y + h - 1}l-4,0l0,-5z`} as="solid" />
    <Line a={[x, y]} b={[x + w, y]} as="centre" />
  </>
);

/** Cylinder in section, bore axis at y, left face at x; all px. The first piston moves by push, the second by half. */
export const CylinderSection = memo(function CylinderSection(p: CylinderShape) {
  const { x, y, length, push } = p;
  const h = p.bore / 2;
  const H = h + p.wall;
  const x2 = x + length;
  const end = x2 - 13;
  const p1 = x + 14 + push;
  const p2 = x + 78 + push / 2;
  const wet = p.fluid ? 'fluid' : 'paper';
  const wall = (m: number) => {
    const q = (v: number) => y + m * v;
    return `M${x},${q(H)}L${x2},${q(H)}L${x2},${q(4)}L${end},${q(4)}L${end},${q(h)}L${x},${q(h)}Z`;
  };
  const foot = (fx: number) => (
    <>
      <Box x={fx - 5} y={y - H - 7} w={10} h={7} as="edge paper" />
      <Line a={[fx - 1.5, y - H]} b={[fx - 1.5, y - h]} />
      <Line a={[fx + 1.5, y - H]} b={[fx + 1.5, y - h]} />
    </>
  );
  const top = y - H;
  return (
    <>
      <Box x={p1 + 26} y={y - h} w={(p.tandem ? p2 : end) - p1 - 26} h={p.bore} as={wet} />
      {p.tandem && <Box x={p2 + 24} y={y - h} w={end - p2 - 24} h={p.bore} as={wet} />}
      <Box x={end} y={y - 4} w={13} h={8} as={wet} />
      <Path d={wall(-1)} as="section" />
      <Path d={wall(1)} as="section-opposite" />
      <Path d={springPath(p1 + 26, p.tandem ? p2 : end, y)} as={p.fluid ? 'spring' : 'thin'} />
      {p.tandem && <Path d={springPath(p2 + 24, end, y)} as={p.fluid ? 'spring' : 'thin'} />}
      <Piston x={p1} y={y} w={26} h={h} />
      {p.tandem && <Piston x={p2} y={y} w={24} h={h} />}
      {foot(x + 52)}
      {p.tandem && foot(x + 116)}
      <Path
        d={`M${x + 40},${top - 7}L${x + 130},${top - 7}L${x + 134},${top - 19}L${x + 36},${top - 19}Z`}
        as="edge paper"
      />
      <Line a={[x + 39, top - 12]} b={[x + 131, top - 12]} as="fluid-line" />
      {p.found > p.bore &&
        [-1, 1].map((m) => (
          <g key={m}>
            <Box
              x={x + 0.7}
              y={m < 0 ? y - p.found / 2 : y + h}
              w={end - x - 1.4}
              h={p.found / 2 - h}
              as="found-area"
            />
            <Line a={[x + 2, y + (m * p.found) / 2]} b={[end - 2, y + (m * p.found) / 2]} as="found" />
          </g>
        ))}
      {p.found > 0 &&
        p.found < p.bore &&
        [-1, 1].map((m) => (
          <Line key={m} a={[x + 2, y + (m * p.found) / 2]} b={[end - 2, y + (m * p.found) / 2]} as="found" />
        ))}
    </>
  );
});

/** The bore end on: what the force is divided by; as found behind it. */
export const BoreEnd = memo(function BoreEnd(p: { x: number; y: number; s: number; bore: number; found: number }) {
  const { x, y, s } = p;
  const out = Math.max(p.bore, p.found) / 2;
  return (
    <>
      <Ring x={x} y={y} r={out * s + 5} />
      {p.found > p.bore && <Ring x={x} y={y} r={(p.found / 2) * s} as="found-shape" />}
      <Ring x={x} y={y} r={(p.bore / 2) * s} as="bore-area" />
      {p.found > 0 && p.found < p.bore && <Ring x={x} y={y} r={(p.found / 2) * s} as="found" />}
      <Line a={[x - 36, y]} b={[x + 36, y]} as="centre" />
      <Line a={[x, y - 36]} b={[x, y + 36]} as="centre" />
    </>
  );
});

export const Pipe = memo(function Pipe({ d, wet }: { d: string; wet: boolean }) {
  return (
    <>
      <Path d={d} as="pipe" />
      {wet && <Path d={d} as="pipe-fluid" />}
    </>
  );
});

export const Nut = memo(function Nut({ x, y, down = false }: { x: number; y: number; down?: boolean }) {
  return down ? (
    <>
      <Box x={x - 6} y={y - 4} w={12} h={8} as="edge paper" />
      <Line a={[x - 2, y - 4]} b={[x - 2, y + 4]} />
      <Line a={[x + 2, y - 4]} b={[x + 2, y + 4]} />
    </>
  ) : (
    <>
      <Box x={x - 4} y={y - 6} w={8} h={12} as="edge paper" />
      <Line a={[x - 4, y - 2]} b={[x + 4, y - 2]} />
      <Line a={[x - 4, y + 2]} b={[x + 4, y + 2]} />
    </>
  );
});

/** A hose lying along x (or standing, when upright), with its nuts; braided ones are cross-hatched. */
export const Hose = memo(function Hose(p: { x1: number; x2: number; y: number; braided?: boolean }) {
  const { x1, x2, y, braided = false } = p;
  const turns: number[] = [];
  for (let x = x1 + 2; x < x2 - 4; x += 5) turns.push(x);
  return (
    <>
      <Box x={x1} y={y - 5} w={x2 - x1} h={10} as="edge paper" />
      {turns.map((x) => (
        <g key={x}>
          <Line a={[x, y + 5]} b={[x + 5, y - 5]} />
          {braided && <Line a={[x, y - 5]} b={[x + 5, y + 5]} />}
        </g>
      ))}
      <Nut x={x1 - 2} y={y} />
      <Nut x={x2 + 2} y={y} />
    </>
  );
});

/** A proportioning valve in a line; a phantom where there is none. */
export const ValveBody = memo(function ValveBody({ x, y, present }: { x: number; y: number; present: boolean }) {
  return present ? (
    <>
      <Box x={x - 13} y={y - 13} w={26} h={26} as="edge paper" />
      <Path d={`M${x - 8},${y + 8}L${x},${y}L${x + 8},${y - 2.5}`} as="plan-line" />
    </>
  ) : (
    <Box x={x - 13} y={y - 13} w={26} h={26} as="phantom" />
  );
});
