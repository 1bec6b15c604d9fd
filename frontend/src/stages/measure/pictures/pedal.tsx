/** The pedal or lever at rest, to scale, with its room; what to measure from where to where. */
import { Arrow, arc, Box, Line, Path, polar, r2, Ring, type Point } from '../../../drawings/ink';
import { PedalArm, pedalPoint } from '../../../drawings/pedal';
import type { Drawn } from '../Picture';

const REST = -8;
const rad = (d: number) => (d * Math.PI) / 180;
const Target = ({ at }: { at: Point }) => (
  <>
    <Ring x={at[0]} y={at[1]} r={4.5} as="edge paper" />
    <Line a={[at[0] - 9, at[1]]} b={[at[0] + 9, at[1]]} />
    <Line a={[at[0], at[1] - 9]} b={[at[0], at[1] + 9]} />
  </>
);

interface PedalNumbers {
  a: number | null;
  b: number | null;
  travel: number | null;
  free: number | null;
  /** With wall and floor around it. */
  car: boolean;
  here: string | null;
}
/** Usual sizes stand in where nothing is measured yet, so that there is something to measure on. */
export function pedalPicture(n: PedalNumbers): Drawn {
  const a = n.a ?? (n.car ? 290 : 150);
  const b = Math.min(n.b ?? a / 5, a * 0.9);
  const travel = n.travel ?? a / 2;
  const s = 467 / a;
  const px = 312;
  const py = 66;
  const full = REST + (travel / a) * (180 / Math.PI);
  const pin = pedalPoint(px, py, b * s, REST);
  const pad = pedalPoint(px, py, a * s, REST);
  const out = (p: Point, d: number): Point => [p[0] - d * Math.cos(rad(-REST)), p[1] - d * Math.sin(rad(-REST))];
  const fx = px + 220;
  const floor = 596;
  const ry = pin[1] + (fx - pin[0]) * Math.tan(rad(2));
  const A = [out([px, py], 176), out(pad, 176)] as const;
  const B = [out([px, py], 62), out(pin, 62)] as const;
  const R = a * s + 40;
  const P = (r: number, deg: number) => polar(px, py, r, deg);
  const a0 = 90 - REST;
  const a1 = 90 - full;
  const [e0, e1] = [P(R, a0), P(R, a1)];
  const free = n.free ?? 0;
  const Rf = a * s - 46;
  const f0 = P(Rf, a0);
  const hot = (key: string) => (n.here === key ? 'plan-thin' : 'thin');
  const ah = (key: string) => (n.here === key ? 'plan-area' : 'arrow');
  const mid = (p: Point, q: Point): Point => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const [ma, mb, mt] = [mid(...A), mid(...B), P(R, (a0 + a1) / 2)];
  const beyond = (p: Point, q: Point): [Point, Point] => [
    [p[0] + (q[0] - p[0]) * 0.06, p[1] + (q[1] - p[1]) * 0.06],
    [q[0] + (q[0] - p[0]) * 0.04, q[1] + (q[1] - p[1]) * 0.04],
  ];
  const ext = (p: Point, q: Point, key: string) => {
    const [from, to] = beyond(p, q);
    return <Line a={from} b={to} as={hot(key)} />;
  };
  const svg = (
    <>
      {n.car ? (
        <>
          <Path d={`M${px - 58},${py - 26}L${fx},${py - 26}`} />
          <Box x={px - 58} y={py - 34} w={278} h={8} as="ground" />
          <Path d={`M${fx},${py - 34}L${fx},${ry - 24}L${fx + 8},${ry - 24}L${fx + 8},${py - 34}`} as="section" />
          <Path
            d={`M${fx},${ry + 24}L${fx},${floor - 128}L${fx - 92},${floor}L14,${floor}L14,${floor + 8}L${fx - 88},${floor + 8}L${fx + 8},${floor - 126}L${fx + 8},${ry + 24}Z`}
            as="section"
          />
        </>
      ) : (
        <Box x={px - 58} y={py - 34} w={116} h={8} as="ground" />
      )}
      <Path d={`M${px - 20},${py - 26}L${px - 12},${py + 4}M${px + 20},${py - 26}L${px + 12},${py + 4}`} />
      <Box x={fx + 8} y={ry - 40} w={7} h={24} as="section-opposite" />
      <Box x={fx + 8} y={ry + 16} w={7} h={24} as="section" />
      <Path
        d={`M${fx + 46},${ry - 30}L${fx + 15},${ry - 30}L${fx + 15},${ry - 17}L${fx + 43},${ry - 17}`}
        as="section"
      />
      <Path
        d={`M${fx + 46},${ry + 30}L${fx + 15},${ry + 30}L${fx + 15},${ry + 17}L${fx + 43},${ry + 17}`}
        as="section-opposite"
      />
      <Path d={`M${fx + 46},${ry - 34}c-6,8 5,16 -2,24c-6,8 5,14 0,20c-5,8 4,16 1,24`} as="thin" />
      <Box x={fx + 24} y={ry - 17} w={14} h={34} as="edge paper" />
      <Line a={[pin[0] - 34, ry]} b={[fx + 54, ry]} as="centre" />
      <Path
        d={`M${r2(pin[0])},${r2(pin[1] - 4.5)}L${fx + 24},${r2(ry - 4.5)}A4.5,4.5 0 0 1 ${fx + 24},${r2(ry + 4.5)}L${r2(pin[0])},${r2(pin[1] + 4.5)}`}
        as="edge paper"
      />
      <PedalArm x={px} y={py} a={a} b={b} s={s} turn={full} tilt={40} stout={2.1} phantom />
      <PedalArm x={px} y={py} a={a} b={b} s={s} turn={REST} tilt={40} stout={2.1} />
      {ext([px, py], A[0], 'pivot_to_pad_mm')}
      {ext(pad, A[1], 'pivot_to_pad_mm')}
      <Line a={A[0]} b={A[1]} as={hot('pivot_to_pad_mm')} />
      <Arrow x={A[0][0]} y={A[0][1]} turn={-90 - REST} as={ah('pivot_to_pad_mm')} long={11} half={2} />
      <Arrow x={A[1][0]} y={A[1][1]} turn={90 - REST} as={ah('pivot_to_pad_mm')} long={11} half={2} />
      {ext(pin, B[1], 'pivot_to_pin_mm')}
      <Line a={B[0]} b={B[1]} as={hot('pivot_to_pin_mm')} />
      <Line a={[mb[0], mb[1]]} b={[mb[0] - 14, mb[1]]} />
      <Arrow x={B[0][0]} y={B[0][1]} turn={-90 - REST} as={ah('pivot_to_pin_mm')} long={10} half={1.9} />
      <Arrow x={B[1][0]} y={B[1][1]} turn={90 - REST} as={ah('pivot_to_pin_mm')} long={10} half={1.9} />
      <Target at={[px, py]} />
      <Target at={pin} />
      <Target at={[pad[0] - 4, pad[1]]} />
      {[a0, a1].map((d) => (
        <Line key={d} a={P(a * s + 18, d)} b={P(R + 7, d)} />
      ))}
      <Path d={arc(px, py, R, a1, a0)} as={hot('available_travel_mm')} />
      <Arrow x={e0[0]} y={e0[1]} turn={180 - REST - 1} as={ah('available_travel_mm')} long={10} half={1.9} />
      <Arrow x={e1[0]} y={e1[1]} turn={-full + 1} as={ah('available_travel_mm')} long={10} half={1.9} />
      {free > 0 && <Path d={arc(px, py, Rf, 90 - REST - (free / a) * (180 / Math.PI), a0)} as={hot('free_play_mm')} />}
      <Path
        d={`M${r2(f0[0] - 6)},${r2(f0[1])}L${r2(f0[0] - 36)},${r2(f0[1] - 22)}L${r2(f0[0] - 46)},${r2(f0[1] - 22)}`}
        as={hot('free_play_mm')}
      />
      <Ring x={f0[0] - 6} y={f0[1]} r={2.2} as="solid" />
      <Path d={`M${fx - 52},${r2(ry + 3)}L${fx - 44},${r2(ry + 44)}`} as="thin" />
    </>
  );
  return {
    width: 604,
    height: 640,
    svg,
    slots: {
      pivot_to_pad_mm: { x: ma[0] - 70, y: ma[1] - 36, w: 140 },
      pivot_to_pin_mm: { x: mb[0] - 12, y: mb[1] - 32, w: 128, end: true },
      available_travel_mm: { x: mt[0] - 36, y: Math.min(mt[1] - 4, floor - 66), w: 116 },
      free_play_mm: { x: f0[0] - 48, y: f0[1] - 54, w: 84, end: true },
      rod_retained: { x: fx - 80, y: ry + 46, w: 92 },
      force_limit_n: { x: fx - 80, y: ry + 140, w: 120 },
    },
    description: 'The pedal from the side at rest, with its pivot, its pushrod pin, its pad and the stop.',
  };
}
