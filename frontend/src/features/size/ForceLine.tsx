/** The force line: one push drawn unbroken from foot to road, as found beneath it. Rules 1 to 7 and 10 of the look. */
import type { CSSProperties } from 'react';
import type { Parts, Solved, StateView, StationParts } from '../../api/types';
import {
  CaliperSection,
  caliperHalf,
  DrumFace,
  PistonAreas,
  pistonPlaces,
  RotorFace,
  WheelCylinder,
  wheelCylinderHalf,
} from '../../drawings/brakes';
import { BoreEnd, cylinderHalf, CylinderSection, Hose, Nut, Pipe, sidePort, ValveBody } from '../../drawings/cylinder';
import { arc, Arrow, Balloon, Dimension, Ground, Line, Path, polar, r2, Ring, Unit, Words } from '../../drawings/ink';
import { BoosterShell, Boot, PedalArm, PedalBracket, pedalPoint } from '../../drawings/pedal';
import { CarSide, TyreFace } from '../../drawings/vehicle';
import { decel, kilonewtons, megapascals, newtons } from '../../units/format';
import type { Figures } from './figures';
import { factors, LINKS } from './words';

export const ENDS = [0, 122, 226, 312, 484, 604, 790, 938, 1082, 1248];
const WIDTH = 1248;
const HEIGHT = 282;
const ROAD = 159;
const AXIS = { front: 79, rear: 161 };
const S = { pedal: 0.42, cylinder: 1.75, bore: 2.2, caliper: 0.72, rotor: 0.262, tyre: 0.124, car: 0.0287 };
const REST = -8;
const BODY = { x: 317, length: 152, wall: 8 };
const AT = { areas: 633, caliper: 699, rotor: 836, tyre: 984 };

export interface FoundLine {
  solved: Solved;
  state: StateView;
  now: Figures;
}
interface ForceLineProps {
  solved: Solved;
  state: StateView;
  now: Figures;
  found: FoundLine | null;
  said: string;
}

const Value = ({ x, y, v, unit }: { x: number; y: number; v: string; unit: string }) => (
  <Words x={x} y={y - 9} as="fig" at="middle">
    {v} <Unit>{unit}</Unit>
  </Words>
);

export const onAxle = (parts: Parts, axle: 'front' | 'rear') => parts.stations.find((s) => s.axle === axle) ?? null;
export const thickness = (station: StationParts) => station.disc?.thickness_mm ?? (station.disc?.vented ? 20 : 10);

function FootAndPedal({ parts, now, found }: { parts: Parts; now: Figures; found: FoundLine | null }) {
  const { pivot_to_pad_mm: a, pivot_to_pin_mm: b } = parts.pedal;
  const y = AXIS.front;
  const turn = REST + (((now.travel ?? 0) / a) * 180) / Math.PI;
  const x = 162;
  const pivotY = y - b * S.pedal * Math.cos((turn * Math.PI) / 180);
  const pin = pedalPoint(x, pivotY, b * S.pedal, turn);
  const pad = pedalPoint(x, pivotY, a * S.pedal, turn);
  const was = found?.solved.parts.pedal.pivot_to_pin_mm;
  const old = was && Math.abs(was - b) > 0.5 ? pedalPoint(x, pivotY, was * S.pedal, turn) : null;
  const rodEnd = BODY.x + 14 + (now.piston ?? 0) * S.cylinder;
  const pressed = now.push > 0;
  return (
    <>
      <PedalBracket x={x} y={pivotY} />
      <PedalArm x={x} y={pivotY} a={a} b={b} s={S.pedal} turn={REST} phantom />
      <PedalArm x={x} y={pivotY} a={a} b={b} s={S.pedal} turn={turn} />
      <Ring x={x} y={pivotY} r={3} as="edge fpaper" />
      <Ground x1={0} x2={214} y={206} />
      {old && <Line a={[old[0] + 4, old[1]]} b={[BODY.x + 22, old[1]]} as="found" />}
      {pressed && (
        <>
          <Line a={[2, pad[1]]} b={[pad[0] - 40, pad[1]]} as="force" />
          <Arrow x={pad[0] - 76} y={pad[1]} turn={0} as="planfill" long={14} half={6.5} />
          <Path
            d={`M${r2(pad[0])},${r2(pad[1] + 1)}L${r2(pin[0])},${r2(pin[1])}L${r2(rodEnd - 3)},${r2(pin[1])}`}
            as="force"
          />
          <Ring x={pad[0]} y={pad[1]} r={4} as="planfill" />
        </>
      )}
      {!pressed && <Line a={[pin[0], pin[1]]} b={[rodEnd, pin[1]]} as="edge" />}
      {old && <Ring x={old[0]} y={old[1]} r={3.4} as="foundpin" />}
      <Ring x={pin[0]} y={pin[1]} r={4.8} as="edge fpaper" />
      <Boot x={pad[0] - 9} y={pad[1] - 5.5} turn={-42} k={0.6} />
      <Words x={0} y={Math.min(pad[1] - 13, 196)} as="hero">
        {newtons(now.push)} <Unit>N</Unit>
      </Words>
    </>
  );
}

function Cylinder({ parts, now, found }: { parts: Parts; now: Figures; found: FoundLine | null }) {
  const y = AXIS.front;
  const was = found?.solved.parts.cylinder.bore_mm ?? 0;
  const wet = Object.values(now.stations).some((s) => s.inlet > 0);
  const push = (now.piston ?? 0) * S.cylinder;
  const { bore_mm, kind } = parts.cylinder;
  const changed = Math.abs(was - bore_mm) > 0.15 ? was : 0;
  return (
    <>
      <BoreEnd x={350} y={152} s={S.bore} bore={bore_mm} found={changed} />
      <Words x={350} y={204} as="q" at="middle">
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
      {now.push > 0 && <Ring x={BODY.x + 13 + push} y={y} r={4} as="planfill" />}
    </>
  );
}

function brakeLeft(station: StationParts) {
  if (!station.disc) return AT.caliper - wheelCylinderHalf(station.drum?.wheel_cylinder_mm ?? 0, S.caliper) - 2;
  return AT.caliper - caliperHalf(caliperOf(station));
}
const caliperOf = (station: StationParts) => ({
  s: S.caliper,
  pistons: station.disc?.pistons_mm ?? [],
  fixed: station.disc?.fixed ?? false,
  thickness: thickness(station),
  vented: station.disc?.vented ?? false,
});

function Lines({ parts, now }: { parts: Parts; now: Figures }) {
  const front = onAxle(parts, 'front');
  const rear = onAxle(parts, 'rear');
  const half = cylinderHalf(parts.cylinder.bore_mm * S.cylinder, BODY.wall);
  const right = BODY.x + BODY.length;
  const portX = r2(sidePort(BODY.x, (now.piston ?? 0) * S.cylinder));
  const portY = AXIS.front + half;
  const wet = (s: StationParts, side: 'inlet' | 'outlet') => (now.stations[s.name]?.[side] ?? 0) > 0;
  return (
    <>
      {front && (
        <Pipe d={`M${right - 2},${AXIS.front}L${r2(brakeLeft(front) + 4)},${AXIS.front}`} wet={wet(front, 'outlet')} />
      )}
      {rear && (
        <Pipe
          d={`M${portX},${portY - 9}L${portX},${AXIS.rear - 6}Q${portX},${AXIS.rear} ${portX + 6},${AXIS.rear}L${r2(brakeLeft(rear) + 4)},${AXIS.rear}`}
          wet={wet(rear, 'inlet')}
        />
      )}
      <Nut x={right + 4} y={AXIS.front} />
      {rear && <Nut x={portX} y={portY + 4} down />}
      {[front, rear].map(
        (s) =>
          s && (
            <g key={s.name}>
              <Hose x1={566} x2={596} y={AXIS[s.axle]} braided={s.hoses.includes('braided')} />
              <Words x={580} y={AXIS[s.axle] + 21} as="txt" at="middle">
                {s.axle}
              </Words>
              {(s.axle === 'rear' || s.valve) && <ValveBody x={516} y={AXIS[s.axle]} present={s.valve !== null} />}
              {s.axle === 'rear' && !s.valve && (
                <Words x={516} y={AXIS.rear + 29} as="q" at="middle">
                  no valve
                </Words>
              )}
            </g>
          ),
      )}
      {front && <Value x={523} y={AXIS.front} v={megapascals(now.stations[front.name]?.outlet ?? 0)} unit="MPa" />}
      {rear && !rear.valve && (
        <Value x={445} y={AXIS.rear} v={megapascals(now.stations[rear.name]?.outlet ?? 0)} unit="MPa" />
      )}
      {rear?.valve && (
        <>
          <Value x={449} y={AXIS.rear} v={megapascals(now.stations[rear.name]?.inlet ?? 0)} unit="MPa" />
          <Value x={560} y={AXIS.rear - 4} v={megapascals(now.stations[rear.name]?.outlet ?? 0)} unit="MPa" />
        </>
      )}
    </>
  );
}

interface RowProps {
  station: StationParts;
  was: StationParts | null;
  now: Figures;
  share: number;
}
/** One axle from its caliper to the road. */
function BrakeRow({ station, was, now, share }: RowProps) {
  const y = AXIS[station.axle];
  const own = now.stations[station.name];
  const pressed = (own?.torque ?? 0) > 0;
  const as = station.axle === 'front' ? 'force-f' : 'force-r';
  const disc = station.disc;
  const caliper = caliperOf(station);
  const radius = disc
    ? disc.effective_radius_mm * S.rotor
    : ((station.drum?.drum_diameter_mm ?? 0) / 2) * S.rotor * 0.9;
  const right = disc
    ? AT.caliper + caliperHalf(caliper)
    : AT.caliper + wheelCylinderHalf(station.drum?.wheel_cylinder_mm ?? 0, S.caliper);
  const tyre = station.rolling_radius_mm * S.tyre;
  const [ax, ay] = polar(AT.rotor, y, radius, 300);
  const brakeForce = station.axle === 'front' ? now.front : now.rear;
  const wasSize = was?.disc ? was.disc.rotor_diameter_mm : 0;
  return (
    <>
      {disc ? (
        <>
          {pistonPlaces(disc.pistons_mm, S.caliper).map((v) => (
            <Line key={v} a={[AT.areas - 18, y + v]} b={[AT.caliper - 18, y + v]} as="centre" />
          ))}
          <PistonAreas x={AT.areas} y={y} s={S.caliper} pistons={disc.pistons_mm} found={was ? pistonsOf(was) : []} />
          <CaliperSection {...caliper} x={AT.caliper} y={y} pressed={pressed} />
        </>
      ) : (
        <>
          <PistonAreas
            x={AT.areas}
            y={y}
            s={S.caliper}
            pistons={[station.drum?.wheel_cylinder_mm ?? 0]}
            found={was ? pistonsOf(was) : []}
          />
          <WheelCylinder
            x={AT.caliper}
            y={y}
            s={S.caliper}
            bore={station.drum?.wheel_cylinder_mm ?? 0}
            pressed={pressed}
          />
        </>
      )}
      <Ground x1={AT.tyre - 44} x2={AT.tyre + 44} y={y + tyre} />
      {disc ? (
        <RotorFace
          x={AT.rotor}
          y={y}
          s={S.rotor}
          diameter={disc.rotor_diameter_mm}
          padHeight={disc.pad_height_mm}
          found={Math.abs(wasSize - disc.rotor_diameter_mm) > 0.5 ? wasSize : 0}
        />
      ) : (
        <DrumFace
          x={AT.rotor}
          y={y}
          s={S.rotor}
          diameter={station.drum?.drum_diameter_mm ?? 0}
          cylinder={station.drum?.wheel_cylinder_mm ?? 0}
        />
      )}
      <TyreFace
        x={AT.tyre}
        y={y}
        r={r2(tyre)}
        rim={r2(((station.rim_mm ?? station.rolling_radius_mm * 1.3) / 2) * S.tyre)}
      />
      {pressed && (
        <>
          <Path
            d={`M${r2(right)},${y}L${r2(AT.rotor - radius)},${y}${arc(AT.rotor, y, radius, 180, 300, true)}`}
            as={as}
          />
          <Arrow x={ax + 3.2} y={ay + 2} turn={32} as="planfill" long={6 + 4 * share} half={2 + 2.6 * share} />
          <Path d={`M${AT.rotor},${y}L${AT.tyre},${y}L${AT.tyre},${r2(y + tyre)}`} as={as} />
          <Ring x={AT.rotor} y={y} r={2 + 2 * share} as="planfill" />
          <Ring x={AT.tyre} y={y} r={2 + 2 * share} as="planfill" />
        </>
      )}
      {own?.clamp != null && <Value x={772} y={y} v={kilonewtons(own.clamp)} unit="kN" />}
      <Value x={912} y={y} v={newtons(own?.torque ?? 0)} unit="N m" />
      <Value x={1056} y={y + tyre} v={kilonewtons(brakeForce)} unit="kN" />
      {now.locked.includes(station.axle) && (
        <Words x={AT.tyre + 50} y={y + tyre + 15} as="txt dang">
          sliding
        </Words>
      )}
    </>
  );
}
const pistonsOf = (s: StationParts) => s.disc?.pistons_mm ?? [s.drum?.wheel_cylinder_mm ?? 0];

function Road({
  parts,
  state,
  now,
  widths,
}: {
  parts: Parts;
  state: StateView;
  now: Figures;
  widths: [number, number];
}) {
  const [wF, wR] = widths;
  const x = 1122;
  const join = (axle: 'front' | 'rear') => {
    const s = onAxle(parts, axle);
    if (!s || (axle === 'front' ? now.front : now.rear) <= 0) return null;
    const y = r2(AXIS[axle] + s.rolling_radius_mm * S.tyre);
    const to = r2(axle === 'front' ? ROAD - 3.5 + wF / 2 : ROAD + 3.5 - wR / 2);
    return (
      <Path
        d={`M${AT.tyre},${y}L1080,${y}C1102,${y} 1096,${to} ${x},${to}`}
        as={axle === 'front' ? 'force-f' : 'force-r'}
      />
    );
  };
  const wheelbase = state.balance.chi > 0 ? state.cg_height_mm / state.balance.chi : 2500;
  const radius = parts.stations[0]?.rolling_radius_mm ?? 300;
  return (
    <>
      {join('front')}
      {join('rear')}
      <CarSide
        x={1152}
        y={ROAD - 3.6}
        s={Math.min(S.car, 71.5 / wheelbase)}
        wheelbase={wheelbase}
        radius={radius}
        height={state.cg_height_mm}
        front={state.front_share}
      />
      {now.decel > 0 && (
        <>
          <Path d={`M${x - 1},${ROAD}L1236,${ROAD}`} as="force" />
          <Arrow x={1248} y={ROAD} turn={0} as="planfill" long={15} half={7} />
        </>
      )}
      <Words x={1246} y={ROAD - 58} as="hero" at="end">
        {decel(now.decel)} <Unit>g</Unit>
      </Words>
    </>
  );
}

function AsFound({ found }: { found: FoundLine }) {
  const { now, solved } = found;
  const front = onAxle(solved.parts, 'front');
  const rear = onAxle(solved.parts, 'rear');
  const own = (s: StationParts | null) => (s ? now.stations[s.name] : undefined);
  const y = 226;
  const after = (i: number) => (ENDS[i] ?? 0) + 12;
  const clamp = own(front)?.clamp;
  const texts: [number, string][] = [
    [0, `as found ${newtons(now.push)} N`],
    [after(1), `${newtons(now.rod)} N`],
    [after(3), `${megapascals(own(front)?.inlet ?? own(rear)?.inlet ?? 0)} MPa`],
    [
      after(5),
      [clamp != null ? `${kilonewtons(clamp)} kN` : '', rear?.drum ? 'rear drum' : ''].filter(Boolean).join(', '),
    ],
    [after(6), `${newtons(own(front)?.torque ?? 0)}, ${newtons(own(rear)?.torque ?? 0)} N m`],
    [after(7), `${kilonewtons(now.front)}, ${kilonewtons(now.rear)} kN`],
  ];
  return (
    <>
      {texts.map(([x, text]) => (
        <Words key={x} x={x} y={y} as="was">
          {text}
        </Words>
      ))}
      <Words x={WIDTH} y={y} as="was" at="end">
        {decel(now.decel)} g
      </Words>
    </>
  );
}

function Chain({ parts, now, weight }: { parts: Parts; now: Figures; weight: number }) {
  const rows = factors(parts, now, weight);
  const top = 234;
  return (
    <>
      {ENDS.map((x) => (
        <Line key={x} a={[x, top]} b={[x, HEIGHT - 2]} />
      ))}
      {rows.map((texts, i) => {
        const x1 = (ENDS[i] ?? 0) + 1;
        const x2 = (ENDS[i + 1] ?? 0) - 1;
        const gap = (t: string) => Math.min(t.length * 6.7 + 10, x2 - x1 - 16);
        return texts.map((text, row) => (
          <Dimension
            key={row}
            x1={x1}
            x2={x2}
            y={texts.length > 1 ? 248 + row * 20 : 258}
            label={text}
            gap={gap(text)}
          />
        ));
      })}
    </>
  );
}

export function ForceLine({ solved, state, now, found, said }: ForceLineProps) {
  const { parts } = solved;
  const total = now.front + now.rear;
  const share = total > 0 ? now.front / total : 1;
  const widths: [number, number] = [7 * share, 7 * (1 - share)];
  const style = { '--r-force-f': `${r2(widths[0])}px`, '--r-force-r': `${r2(widths[1])}px` } as CSSProperties;
  const front = onAxle(parts, 'front');
  const rear = onAxle(parts, 'rear');
  const wasAt = (axle: 'front' | 'rear') => (found ? onAxle(found.solved.parts, axle) : null);
  return (
    <svg width="100%" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={said} style={style}>
      {LINKS.map((name, i) => (
        <g key={name}>
          <Balloon x={(ENDS[i] ?? 0) + 9} y={13} n={i + 1} />
          <Words x={(ENDS[i] ?? 0) + 23} y={17.5} as="name">
            {name}
          </Words>
        </g>
      ))}
      <FootAndPedal parts={parts} now={now} found={found} />
      <BoosterShell x={254} y={AXIS.front} present={parts.booster !== null} />
      <Words x={269} y={AXIS.front + 46} as="q" at="middle">
        {parts.booster ? parts.booster.kind : 'none'}
      </Words>
      <Value x={213} y={AXIS.front} v={newtons(now.rod)} unit="N" />
      <Lines parts={parts} now={now} />
      <Cylinder parts={parts} now={now} found={found} />
      {front && <BrakeRow station={front} was={wasAt('front')} now={now} share={share} />}
      {rear && <BrakeRow station={rear} was={wasAt('rear')} now={now} share={1 - share} />}
      <Road parts={parts} state={state} now={now} widths={widths} />
      {found && <AsFound found={found} />}
      <Chain parts={parts} now={now} weight={state.balance.weight_n} />
    </svg>
  );
}
