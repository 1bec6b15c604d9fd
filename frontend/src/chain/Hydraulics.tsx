/** The cylinder, its pipes, hoses and valves. */
import { memo } from 'react';
import type { Parts, StationParts } from '../api/types';
import { BoreEnd, cylinderHalf, CylinderSection, Hose, Nut, Pipe, sidePort, ValveBody } from '../drawings/cylinder';
import { Figure, Path, r2, Ring, Words } from '../drawings/ink';
import { pressure } from '../units/display';
import type { Figures } from './figures';
import { brakeLeft } from './BrakeRow';
import { AXIS, BODY, OVER, S, type FoundLine, type Row } from './geometry';

export function Cylinder({ parts, now, found }: { parts: Parts; now: Figures; found: FoundLine | null }) {
  const y = AXIS.front;
  const was = found?.solved.parts.cylinder.bore_mm ?? 0;
  const wet = Object.values(now.stations).some((s) => s.inlet > 0);
  const push = (now.piston ?? 0) * S.cylinder;
  const { bore_mm, kind } = parts.cylinder;
  const changed = Math.abs(was - bore_mm) > 0.15 ? was : 0;
  return (
    <>
      <BoreEnd x={350} y={152} s={S.bore} bore={bore_mm} found={changed} />
      <Words x={350} y={204} as="label-quiet" at="middle">
        bore, end on
      </Words>
      <CylinderSection
        x={BODY.x}
        y={y}
        bore={bore_mm * S.cylinder}
        found={changed * S.cylinder}
        length={BODY.length}
        wall={BODY.wall}
        push={r2(push)}
        tandem={kind === 'tandem'}
        fluid={wet}
      />
      {now.push > 0 && <Path d={`M${BODY.x - 4},${y}L${r2(BODY.x + 14 + push)},${y}`} as="force" />}
      {now.push > 0 && <Ring x={BODY.x + 13 + push} y={y} r={4} as="plan-area" />}
    </>
  );
}

/** What stands in a pipe on its way: a valve, a hose. */
const Fitted = memo(function Fitted({ station, y }: { station: StationParts; y: number }) {
  const first = y === AXIS.front;
  return (
    <>
      <Hose x1={566} x2={596} y={y} braided={station.hoses.includes('braided')} />
      <Words x={580} y={y + 21} as="label" at="middle">
        {station.name.length > 9 ? station.axle : station.name}
      </Words>
      {(!first || station.valve) && <ValveBody x={516} y={y} present={station.valve !== null} />}
      {!first && !station.valve && (
        <Words x={516} y={y + 29} as="label-quiet" at="middle">
          no valve
        </Words>
      )}
    </>
  );
});
/** The same with the pressure before and behind. */
function OnTheWay({ row, own }: { row: Row; own: { inlet: number; outlet: number } | undefined }) {
  const { station, y } = row;
  const first = y === AXIS.front;
  return (
    <>
      <Fitted station={station} y={y} />
      {station.valve ? (
        <>
          <Figure x={449} y={(first ? y + 38 : y) - OVER} at="middle" {...pressure(own?.inlet ?? 0)} />
          <Figure x={560} y={y - 4 - OVER} at="middle" {...pressure(own?.outlet ?? 0)} />
        </>
      ) : (
        <Figure x={first ? 523 : 445} y={y - OVER} at="middle" {...pressure(own?.outlet ?? 0)} />
      )}
    </>
  );
}

/** Pipes of a single or tandem cylinder: the first row from its end, the second from its side. */
export function Lines({ parts, rows, now }: { parts: Parts; rows: readonly Row[]; now: Figures }) {
  const half = cylinderHalf(parts.cylinder.bore_mm * S.cylinder, BODY.wall);
  const right = BODY.x + BODY.length;
  const portX = r2(sidePort(BODY.x, (now.piston ?? 0) * S.cylinder));
  const portY = AXIS.front + half;
  const figuresOf = (s: StationParts) => now.stations[s.name];
  const wet = Object.values(now.stations).some((s) => s.inlet > 0);
  return (
    <>
      {parts.cylinder.crossed && rows.length > 1 && (
        <>
          <Pipe d={`M${right + 14},${AXIS.front}L${right + 62},${AXIS.rear}`} wet={wet} />
          <Pipe d={`M${right + 8},${AXIS.rear}L${right + 68},${AXIS.front}`} wet={wet} />
          <Words x={right + 60} y={(AXIS.front + AXIS.rear) / 2 + 4} as="label-quiet">
            crossed
          </Words>
        </>
      )}
      {rows.map((row) => {
        const { station, y } = row;
        const end = r2(brakeLeft(station) + 4);
        if (y === AXIS.front) {
          return (
            <g key={station.name}>
              <Pipe d={`M${right - 2},${y}L${end},${y}`} wet={(figuresOf(station)?.outlet ?? 0) > 0} />
              <Nut x={right + 4} y={y} />
              <OnTheWay row={row} own={figuresOf(station)} />
            </g>
          );
        }
        return (
          <g key={station.name}>
            <Pipe
              d={`M${portX},${portY - 9}L${portX},${y - 6}Q${portX},${y} ${portX + 6},${y}L${end},${y}`}
              wet={(figuresOf(station)?.inlet ?? 0) > 0}
            />
            <Nut x={portX} y={portY + 4} down />
            <OnTheWay row={row} own={figuresOf(station)} />
          </g>
        );
      })}
    </>
  );
}

interface SmallProps {
  row: Row;
  bore: number;
  push: number;
  x: number;
  own: { inlet: number; outlet: number } | undefined;
}
/** A cylinder of its own for one row, with its pipe. */
export function SmallCylinder({ row, bore, push, x, own }: SmallProps) {
  const { y, station } = row;
  const length = 132;
  const wet = (own?.inlet ?? 0) > 0;
  return (
    <>
      <Pipe d={`M${x + length - 2},${y}L${r2(brakeLeft(station) + 4)},${y}`} wet={(own?.outlet ?? 0) > 0} />
      <CylinderSection
        x={x}
        y={y}
        bore={bore * S.small}
        found={0}
        length={length}
        wall={5}
        push={r2(push * S.small)}
        tandem={false}
        fluid={wet}
      />
      <Nut x={x + length + 4} y={y} />
      <Hose x1={566} x2={596} y={y} braided={station.hoses.includes('braided')} />
      <ValveBody x={516} y={y} present={station.valve !== null} />
      <Figure x={552} y={y - 6 - OVER} at="middle" {...pressure(own?.outlet ?? 0)} />
    </>
  );
}
