/** Two rows with a cylinder each: two controls with a line of their own, or one pedal on a balance bar. */
import type { LineView, PathView } from '../api/types';
import { Arrow, Line, Path, r2, Ring, Figure, Words } from '../drawings/ink';
import { Hand, PedalArm, pedalPoint, SmallBoot } from '../drawings/pedal';
import { force } from '../units/display';
import type { Figures } from './figures';
import { AXIS, OVER, S, type Row } from './geometry';
import { SmallCylinder } from './Hydraulics';

const REST = -8;
const BODY_X = 330;

/** One control: its lever, its rod, its cylinder and pipe, at its own level. */
interface LeverProps {
  line: LineView;
  row: Row;
  now: Figures;
  wide: number;
}
function LeverLine({ line, row, now, wide }: LeverProps) {
  const own = now.lines[line.system];
  const { pivot_to_pad_mm: a, pivot_to_pin_mm: b, kind } = line.parts.pedal;
  const { y, station } = row;
  const k = 48 / a;
  const turn = REST + (((own?.travel ?? 0) / a) * 180) / Math.PI;
  const x = 150;
  const py = y - b * k * Math.cos((turn * Math.PI) / 180);
  const pin = pedalPoint(x, py, b * k, turn);
  const pad = pedalPoint(x, py, a * k, turn);
  const push = now.push * line.ratio;
  const end = BODY_X + 14 + (own?.piston ?? 0) * S.small;
  return (
    <>
      <PedalArm x={x} y={py} a={a} b={b} s={k} turn={turn} />
      <Ring x={x} y={py} r={3} as="edge paper" />
      {push > 0 && (
        <>
          <Line a={[60, pad[1]]} b={[pad[0] - 22, pad[1]]} as="force" wide={wide} />
          <Arrow x={pad[0] - 14} y={pad[1]} turn={0} as="plan-area" long={12} half={5.5} />
          <Path
            d={`M${r2(pad[0])},${r2(pad[1])}L${r2(pin[0])},${r2(pin[1])}L${r2(end)},${r2(pin[1])}`}
            as="force"
            wide={wide}
          />
        </>
      )}
      {push <= 0 && <Line a={pin} b={[end, pin[1]]} as="edge" />}
      <Ring x={pin[0]} y={pin[1]} r={4.2} as="edge paper" />
      {kind === 'hand_lever' ? <Hand x={pad[0]} y={pad[1]} /> : <SmallBoot x={pad[0]} y={pad[1]} />}
      <Figure x={0} y={pad[1] - 8} as="figure big" {...force(push)} />
      <Words x={0} y={pad[1] + 5} as="label-quiet">
        {line.system}
      </Words>
      <Figure x={226} y={y - OVER} at="middle" {...force(own?.rod ?? 0)} />
      <SmallCylinder
        row={row}
        bore={line.parts.cylinder.bore_mm}
        push={own?.piston ?? 0}
        x={BODY_X}
        own={own?.stations[station.name]}
      />
    </>
  );
}

interface LinesProps {
  rows: readonly Row[];
  now: Figures;
  widths: readonly [number, number];
}
export function LeverLines({ lines, rows, now, widths }: LinesProps & { lines: readonly LineView[] }) {
  return (
    <>
      {lines.map((line, i) => {
        const row = rows[i];
        const wide = widths[i] ?? 0;
        return row ? <LeverLine key={line.system} line={line} row={row} now={now} wide={wide} /> : null;
      })}
    </>
  );
}

export const BAR_X = 300;
export const BAR_Y = (AXIS.front + AXIS.rear) / 2;
/** The balance bar: its bearing where the shares say, a cylinder at each end. */
export function BarLines({ solved, rows, now, widths }: LinesProps & { solved: PathView }) {
  const { chambers } = solved.parts.cylinder;
  const front = chambers.find((c) => c.circuit === 'front') ?? chambers[0];
  const share = front?.share ?? 0.5;
  const bearing = AXIS.rear - share * (AXIS.rear - AXIS.front);
  const push = now.piston ?? 0;
  return (
    <>
      <Line a={[BAR_X, AXIS.front - 8]} b={[BAR_X, AXIS.rear + 8]} as="heavy" />
      <Path d={`M${BAR_X - 14},${r2(bearing)}L${BAR_X},${r2(bearing)}`} as="force" />
      {rows.map((row, i) => {
        const chamber = chambers.find((c) => c.circuit === row.station.axle);
        return (
          <g key={row.station.name}>
            <Path d={`M${BAR_X},${row.y}L${BODY_X + 14},${row.y}`} as="force" wide={widths[i]} />
            <Ring x={BAR_X} y={row.y} r={4} as="edge paper" />
            <SmallCylinder
              row={row}
              bore={chamber?.bore_mm ?? solved.parts.cylinder.bore_mm}
              push={push}
              x={BODY_X}
              own={now.stations[row.station.name]}
            />
          </g>
        );
      })}
      <Ring x={BAR_X} y={bearing} r={6} as="edge paper" />
      <Ring x={BAR_X} y={bearing} r={2} as="solid" />
      <Words x={BAR_X - 10} y={AXIS.rear + 28} as="label-quiet" at="middle">
        bar {Math.round(share * 100)} : {Math.round((1 - share) * 100)}
      </Words>
    </>
  );
}
