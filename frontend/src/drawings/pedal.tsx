/** Boot, hanging pedal, and the booster behind the firewall. */
import { memo } from 'react';
import { Arrow, Box, Line, Path, Ring, r2, type Point } from './ink';

const LEG = 'M-75,-46L-80,-84L-72,-88L-63,-82L-54,-90L-45,-83L-33,-88L-33,-47Z';
const UPPER = 'M-72,-9C-77,-22 -75,-38 -72,-51L-36,-51C-34,-43 -28,-37 -20,-33L-3,-26C10,-24 29,-24 32,-10Z';
const SOLE = 'M-73,-9L-73,0L-48,0L-46,-4C-40,-7 -34,-6 -29,0L18,0C27,-1 33,-4 34,-10Z';
const SEAMS =
  'M8,-25C2,-20 0,-15 0,-10M-72,-44L-38,-46M-50,-10C-52,-22 -44,-34 -36,-45M-31,-42L-25,-47M-24,-37L-17,-43M-15,-33L-8,-39M-76,-53L-33,-54';

const BOOT = (
  <>
    <Path d={LEG} as="edge paper" />
    <Path d={UPPER} as="edge paper" />
    <Path d={SOLE} as="edge solid" />
    <Path d={SEAMS} as="thin" />
  </>
);
/** Work boot in side view; the ball of the sole at x, y, turned by degrees, `k` its scale. */
export const Boot = ({ x, y, turn, k }: { x: number; y: number; turn: number; k: number }) => (
  <g transform={`translate(${r2(x)},${r2(y)}) rotate(${turn}) scale(${k})`} className="boot">
    {BOOT}
  </g>
);

export const pedalPoint = (px: number, py: number, length: number, degrees: number): Point => [
  px + length * Math.sin((degrees * Math.PI) / 180),
  py + length * Math.cos((degrees * Math.PI) / 180),
];

interface ArmProps {
  x: number;
  y: number;
  a: number;
  b: number;
  s: number;
  turn: number;
  phantom?: boolean;
  tilt?: number;
  /** How stout the arm and the pad are drawn, for enlarged drawings. */
  stout?: number;
}
type ShapeProps = Required<Omit<ArmProps, 'x' | 'y' | 'turn'>>;
/** The arm and its pad, hanging straight down from the origin. */
const ArmShape = memo(function ArmShape({ a, b, s, phantom, tilt, stout }: ShapeProps) {
  const A = a * s;
  const B = b * s;
  const as = phantom ? 'phantom' : 'edge paper';
  const w = (v: number) => r2(v * stout);
  const arm =
    `M${-w(7)},-2A${w(7)},${w(7)} 0 0 1 ${w(7)},-2L${w(6.5)},${r2(B + 4)}C${w(6)},${r2(A * 0.5)} ${w(5)},${r2(A * 0.7)} ${w(5)},${r2(A - 12 * stout)}` +
    `L${w(4)},${r2(A + 10)}L${-w(4)},${r2(A + 10)}L${-w(5)},${r2(A - 12 * stout)}C${-w(5)},${r2(A * 0.7)} ${-w(6)},${r2(A * 0.5)} ${-w(6.5)},${r2(B + 4)}Z`;
  return (
    <>
      <Path d={arm} as={as} />
      <g transform={`translate(-4,${r2(A)}) rotate(${tilt})`}>
        <Path d={`M${-w(2.5)},${-w(13)}L${w(2.5)},${-w(13)}L${w(2.5)},${w(13)}L${-w(2.5)},${w(13)}Z`} as={as} />
        {!phantom &&
          [-10, -5, 0, 5, 10].map((v) => <Line key={v} a={[-w(2.5), w(v - 1.5)]} b={[-w(4.5), w(v - 1.5)]} />)}
      </g>
    </>
  );
});
/** Hanging pedal with its pivot at x, y; a and b in mm, s px/mm, degrees from straight down. */
export const PedalArm = ({ x, y, turn, phantom = false, tilt = 52, stout = 1, ...lengths }: ArmProps) => (
  <g transform={`translate(${r2(x)},${r2(y)}) rotate(${r2(-turn)})`}>
    <ArmShape {...lengths} phantom={phantom} tilt={tilt} stout={stout} />
  </g>
);

const BRACKET = (
  <>
    <Path d="M-22,-10L22,-10" />
    <Box x={-22} y={-15} w={44} h={5} as="ground" />
    <Path d="M-8,-10L-5,0M8,-10L5,0" />
    <Ring x={0} y={0} r={3} as="edge paper" />
  </>
);
/** The bracket that carries the pivot. */
export const PedalBracket = ({ x, y }: { x: number; y: number }) => (
  <g transform={`translate(${r2(x)},${r2(y)})`}>{BRACKET}</g>
);

/** Booster shell around the rod; a phantom where there is none. */
export const BoosterShell = memo(function BoosterShell(p: { x: number; y: number; present: boolean }) {
  const { x, y, present } = p;
  const shell =
    `M${x},${y - 30}L${x + 12},${y - 30}Q${x + 27},${y - 28} ${x + 29},${y - 11}L${x + 29},${y + 11}` +
    `Q${x + 27},${y + 28} ${x + 12},${y + 30}L${x},${y + 30}Z`;
  return (
    <>
      <Path d={shell} as={present ? 'edge paper' : 'phantom'} />
      <Path d={`M${x + 10},${y - 30}L${x + 10},${y + 30}`} as={present ? 'thin' : 'phantom'} />
      {present && <Arrow x={x + 24} y={y} turn={0} as="plan-area" long={10} half={5} />}
    </>
  );
});

/** Two fingers over a lever. */
export const Hand = ({ x, y }: { x: number; y: number }) => (
  <>
    {[-9, 1].map((v) => (
      <Path
        key={v}
        d={`M${r2(x - 46)},${r2(y + v)}L${r2(x - 6)},${r2(y + v)}A4.5,4.5 0 0 1 ${r2(x - 6)},${r2(y + v + 9)}L${r2(x - 46)},${r2(y + v + 9)}`}
        as="edge paper"
      />
    ))}
    <Path
      d={`M${r2(x - 46)},${r2(y - 11)}L${r2(x - 62)},${r2(y - 14)}L${r2(x - 62)},${r2(y + 15)}L${r2(x - 46)},${r2(y + 12)}Z`}
      as="edge paper"
    />
  </>
);

/** A boot small enough for a row of its own. */
export const SmallBoot = ({ x, y }: { x: number; y: number }) => <Boot x={x - 5} y={y - 3} turn={-42} k={0.32} />;
