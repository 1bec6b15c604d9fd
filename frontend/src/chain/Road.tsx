/** The road: the rows join, and the vehicle slows. */
import type { StateView } from '../api/types';
import { Arrow, Path, Figure, r2 } from '../drawings/ink';
import { AircraftSide, BikeSide, CarSide, CentreMark } from '../drawings/vehicle';
import { decel } from '../units/format';
import type { Figures } from './figures';
import { AT, AXIS, ROAD, S, type Row } from './geometry';

export type Kind = 'car' | 'truck' | 'motorcycle' | 'aircraft';
interface RoadProps {
  rows: readonly Row[];
  state: StateView;
  kind: Kind;
  now: Figures;
  widths: readonly [number, number];
}
export function Road({ rows, state, kind, now, widths }: RoadProps) {
  const [wF, wR] = widths;
  const x = 1122;
  const join = (row: Row, i: number) => {
    const own = now.lines[row.system]?.stations[row.station.name];
    if ((own?.torque ?? 0) <= 0) return null;
    const y = r2(row.y + row.station.rolling_radius_mm * S.tyre);
    const first = row.y === AXIS.front;
    const to = r2(rows.length === 1 ? ROAD : first ? ROAD - 3.5 + wF / 2 : ROAD + 3.5 - wR / 2);
    return (
      <Path
        key={i}
        d={`M${AT.tyre},${y}L1080,${y}C1102,${y} 1096,${to} ${x},${to}`}
        as="force"
        wide={first ? wF : wR}
      />
    );
  };
  const wheelbase = state.balance.chi > 0 ? state.cg_height_mm / state.balance.chi : 2500;
  const radius = rows[0]?.station.rolling_radius_mm ?? 300;
  const long = { car: 71.5, truck: 71.5, motorcycle: 66, aircraft: state.front_share > 0.5 ? 62 : 44 }[kind];
  const scale = Math.min(kind === 'car' || kind === 'truck' ? S.car : 0.046, long / wheelbase);
  const side = { x: kind === 'aircraft' ? 1166 : 1152, y: ROAD - 3.6, s: scale, wheelbase, radius };
  return (
    <>
      {rows.map(join)}
      {(kind === 'car' || kind === 'truck') && (
        <CarSide {...side} height={state.cg_height_mm} front={state.front_share} />
      )}
      {kind === 'motorcycle' && <BikeSide {...side} />}
      {kind === 'aircraft' && <AircraftSide {...side} tail={state.front_share > 0.5} />}
      {kind !== 'car' && (
        <CentreMark
          x={side.x + wheelbase * side.s * (1 - state.front_share)}
          y={side.y - state.cg_height_mm * side.s}
        />
      )}
      {now.decel > 0 && (
        <>
          <Path d={`M${x - 1},${ROAD}L1236,${ROAD}`} as="force" />
          <Arrow x={1248} y={ROAD} turn={0} as="plan-area" long={15} half={7} />
        </>
      )}
      <Figure x={1246} y={ROAD - 58} as="hero" at="end" v={decel(now.decel)} unit="g" />
    </>
  );
}
