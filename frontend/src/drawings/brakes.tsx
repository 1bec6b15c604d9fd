/** Calipers in section, piston areas end on, rotors and drums in face view. */
import { memo } from 'react';
import { Arrow, arc, Box, Line, Path, polar, Ring, r2 } from './ink';

export interface CaliperShape {
  s: number;
  pistons: readonly number[];
  fixed: boolean;
  thickness: number;
  vented: boolean;
}
const LINING = 6;
const BACK = 2.2;
const PISTON = 13;
const spanOf = (c: CaliperShape) => c.pistons.reduce((sum, d) => sum + d * c.s, 0) + (c.pistons.length - 1) * 7 * c.s;
export const caliperHalf = (c: CaliperShape) => (c.thickness * c.s) / 2 + LINING + BACK + PISTON + 10;

/** Centres of pistons along the caliper, in px from its middle. */
export function pistonPlaces(pistons: readonly number[], s: number): number[] {
  const span = pistons.reduce((sum, d) => sum + d * s, 0) + (pistons.length - 1) * 7 * s;
  let at = -span / 2;
  return pistons.map((d) => {
    const centre = at + (d * s) / 2;
    at += d * s + 7 * s;
    return centre;
  });
}

function Disc({ x, y, t, H, vented }: { x: number; y: number; t: number; H: number; vented: boolean }) {
  const top = y - H - 7;
  const bottom = y + H + 7;
  const vanes: number[] = [];
  if (vented) for (let v = top + 4; v < bottom - 2; v += 9) vanes.push(v);
  const broken = (v: number) => `M${x - t - 3},${v + 2}l${t * 0.8},-3l${t * 0.5},5l${t * 0.7 + 6},-4`;
  return (
    <>
      {vented ? (
        <>
          <Box x={x - t} y={top} w={t * 0.62} h={bottom - top} as="section" />
          <Box x={x + t * 0.38} y={top} w={t * 0.62} h={bottom - top} as="section" />
          {vanes.map((v) => (
            <Line key={v} a={[x - t * 0.38, v]} b={[x + t * 0.38, v]} />
          ))}
        </>
      ) : (
        <Box x={x - t} y={top} w={2 * t} h={bottom - top} as="section" />
      )}
      <Path d={broken(top)} as="thin" />
      <Path d={broken(bottom)} as="thin" />
    </>
  );
}

/** Caliper in section through its pistons, seen from the hub outwards; the disc runs up and down. */
export const CaliperSection = memo(function CaliperSection(
  p: CaliperShape & { x: number; y: number; pressed: boolean },
) {
  const { x, y, s, fixed } = p;
  const t = (p.thickness * s) / 2;
  const span = spanOf(p);
  const H = span / 2 + 7;
  const places = pistonPlaces(p.pistons, s).map((v) => y + v);
  const a = t + LINING + BACK;
  const b = a + PISTON;
  const c = b + 4;
  const e = c + 6;
  const wet = p.pressed ? 'fluid edge' : 'edge paper';
  const side = (m: number) => {
    const at = (v1: number, v2: number) => Math.min(x + m * v1, x + m * v2);
    return (
      <g key={m}>
        <Box x={at(a + 3, e)} y={y - H} w={e - a - 3} h={2 * H} as={m < 0 ? 'section' : 'section-opposite'} />
        {fixed || m < 0 ? (
          places.map((v, i) => {
            const d = (p.pistons[i] ?? 0) * s;
            return (
              <g key={v}>
                <Box x={at(a + 3, c)} y={v - d / 2} w={c - a - 3} h={d} as={wet} />
                <Box x={at(a, b)} y={v - d / 2} w={PISTON} h={d} as="edge paper" />
                <Box x={at(a, b - 3)} y={v - d / 2 + 4} w={PISTON - 3} h={d - 8} as="thin paper" />
              </g>
            );
          })
        ) : (
          <Box x={at(a, a + 3)} y={y - H + 5} w={3} h={2 * H - 10} as="section-opposite" />
        )}
        <Box x={at(t, t + LINING)} y={y - span / 2 - 1} w={LINING} h={span + 2} as="lining" />
        <Box x={at(t + LINING, a)} y={y - span / 2 - 3} w={BACK} h={span + 6} as="solid" />
      </g>
    );
  };
  const clamp = (m: number, v: number) => (
    <g key={`${m}${v}`}>
      <Line a={[x + m * (a + 9), v]} b={[x + m * (t + 4), v]} as="clamp" />
      <Arrow x={x + m * t} y={v} turn={m < 0 ? 0 : 180} as="plan-area" long={9} half={3.4} />
    </g>
  );
  return (
    <>
      <Disc x={x} y={y} t={t} H={H} vented={p.vented} />
      {side(-1)}
      {side(1)}
      {!fixed &&
        [-1, 1].map((m) => (
          <Line key={m} a={[x - e + 2, y + m * (H - 3)]} b={[x + e + 4, y + m * (H - 3)]} as="centre" />
        ))}
      {p.pressed && places.map((v) => clamp(-1, v))}
      {p.pressed && (fixed ? places.map((v) => clamp(1, v)) : clamp(1, y))}
    </>
  );
});

interface AreasProps {
  x: number;
  y: number;
  s: number;
  pistons: readonly number[];
  found: readonly number[];
}
/** Piston areas of one side end on; as found behind, or dashed in front where it was smaller. */
export const PistonAreas = memo(function PistonAreas({ x, y, s, pistons, found }: AreasProps) {
  const places = pistonPlaces(pistons, s);
  const was = pistonPlaces(found, s);
  const largest = Math.max(0, ...pistons);
  const behind = (found[0] ?? 0) > largest || pistons.length > found.length;
  return (
    <>
      {behind && was.map((v, i) => <Ring key={v} x={x} y={y + v} r={((found[i] ?? 0) * s) / 2} as="found-shape" />)}
      {places.map((v, i) => (
        <Ring key={v} x={x} y={y + v} r={((pistons[i] ?? 0) * s) / 2} as="bore-area" />
      ))}
      {!behind && was.map((v, i) => <Ring key={v} x={x} y={y + v} r={((found[i] ?? 0) * s) / 2} as="found" />)}
    </>
  );
});

interface RotorProps {
  x: number;
  y: number;
  s: number;
  diameter: number;
  padHeight: number;
  found: number;
}
/** Disc in face view: pad at the left, swept band, as found behind or dashed in front. */
export const RotorFace = memo(function RotorFace({ x, y, s, diameter, padHeight, found }: RotorProps) {
  const R = (diameter / 2) * s;
  const ro = (diameter / 2 - 1.5) * s;
  const ri = Math.max(4, ro - padHeight * s);
  const hub = Math.min(30 * s, ri * 0.6);
  const was = (found / 2) * s;
  const point = (r: number, d: number) => polar(x, y, r, d).map(r2).join(',');
  const pad = `M${point(ro, 153)}A${r2(ro)},${r2(ro)} 0 0 1 ${point(ro, 207)}L${point(ri, 207)}A${r2(ri)},${r2(ri)} 0 0 0 ${point(ri, 153)}Z`;
  return (
    <>
      {found > diameter && <Ring x={x} y={y} r={was} as="found-shape" />}
      <Ring x={x} y={y} r={R} as="edge paper" />
      <circle cx={x} cy={y} r={r2((ro + ri) / 2)} className="swept" style={{ strokeWidth: r2(ro - ri) }} />
      {found > 0 && found < diameter && (
        <>
          <circle
            cx={x}
            cy={y}
            r={r2((R + was) / 2)}
            className="gained-ring"
            style={{ strokeWidth: r2(Math.max(0, R - was - 1.3)) }}
          />
          <Ring x={x} y={y} r={was} as="found" />
        </>
      )}
      <Ring x={x} y={y} r={ri} as="thin" />
      <Ring x={x} y={y} r={ri * 0.76} as="thin" />
      <Ring x={x} y={y} r={hub} as="edge paper" />
      {[45, 135, 225, 315].map((d) => {
        const [bx, by] = polar(x, y, (ri * 0.76 + hub) / 2, d);
        return <Ring key={d} x={bx} y={by} r={1.5} as="thin" />;
      })}
      <Path d={pad} as="lining" />
    </>
  );
});

interface DrumProps {
  x: number;
  y: number;
  s: number;
  diameter: number;
  cylinder: number;
}
/** Drum, open face: drum wall cut, two shoes between the wheel cylinder (top) and the anchor (bottom). */
export const DrumFace = memo(function DrumFace({ x, y, s, diameter, cylinder }: DrumProps) {
  const r = (diameter / 2) * s;
  const ro = r + 8 * s;
  const h = 0.8 * r;
  const l = r - Math.max(2.4, 5 * s);
  const ring = (radius: number, sweep: number) =>
    `M${r2(x - radius)},${y}A${r2(radius)},${r2(radius)} 0 1 ${sweep} ${r2(x + radius)},${y}A${r2(radius)},${r2(radius)} 0 1 ${sweep} ${r2(x - radius)},${y}Z`;
  const shoe = (m: number) => {
    const point = (radius: number, d: number) =>
      polar(x, y, radius, m + d)
        .map(r2)
        .join(',');
    return (
      <g key={m}>
        <Path
          d={`M${point(r - 1, -55)}A${r2(r - 1)},${r2(r - 1)} 0 0 1 ${point(r - 1, 55)}L${point(l, 55)}A${r2(l)},${r2(l)} 0 0 0 ${point(l, -55)}Z`}
          as="lining"
        />
        <Path d={arc(x, y, l - 14 * s, m - 50, m + 50)} as="edge" />
      </g>
    );
  };
  const b = Math.max(5, cylinder * s);
  const wide = 30 * s;
  return (
    <>
      <path d={ring(ro, 1) + ring(r, 0)} className="section" fillRule="evenodd" />
      {[0, 180].map(shoe)}
      <Box x={x - wide} y={y - h - b / 2} w={2 * wide} h={b} as="edge paper" />
      <Box x={x - wide * 0.3} y={y - h - b / 2} w={wide * 0.6} h={b} as="fluid" />
      <Ring x={x} y={y + h} r={Math.max(1.6, 5 * s)} as="edge solid" />
    </>
  );
});

/** A wheel cylinder in section: two pistons pushed apart, up and down, by the fluid between. */
export const WheelCylinder = memo(function WheelCylinder(p: {
  x: number;
  y: number;
  s: number;
  bore: number;
  pressed: boolean;
}) {
  const half = (p.bore * p.s) / 2;
  return (
    <>
      <Box x={p.x - half - 6} y={p.y - 24} w={6} h={48} as="section" />
      <Box x={p.x + half} y={p.y - 24} w={6} h={48} as="section-opposite" />
      <Box x={p.x - half} y={p.y - 7} w={2 * half} h={14} as={p.pressed ? 'fluid' : 'paper'} />
      {[-1, 1].map((m) => (
        <g key={m}>
          <Box x={p.x - half} y={p.y + m * 16 - 9} w={2 * half} h={18} as="edge paper" />
          {p.pressed && <Line a={[p.x, p.y + m * 19]} b={[p.x, p.y + m * 28]} as="clamp" />}
          {p.pressed && <Arrow x={p.x} y={p.y + m * 36} turn={m * 90} as="plan-area" long={9} half={3.4} />}
        </g>
      ))}
    </>
  );
});
export const wheelCylinderHalf = (bore: number, s: number) => (bore * s) / 2 + 6;
