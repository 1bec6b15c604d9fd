/** One axle's brakes from the caliper to the road. */
import { memo } from 'react';
import type { StationParts } from '../api/types';
import {
  CaliperSection,
  caliperHalf,
  DrumFace,
  PistonAreas,
  pistonPlaces,
  RotorFace,
  WheelCylinder,
  wheelCylinderHalf,
} from '../drawings/brakes';
import { arc, Arrow, Ground, Line, Path, polar, Figure, r2, Ring, Words } from '../drawings/ink';
import { TyreFace } from '../drawings/vehicle';
import { great, torque } from '../units/display';
import type { Figures } from './figures';
import { AT, FORCE, OVER, pistonsOf, S, thickness, type Row } from './geometry';

export const caliperOf = (station: StationParts) => ({
  s: S.caliper,
  pistons: station.disc?.pistons_mm ?? [],
  fixed: station.disc?.fixed ?? false,
  thickness: thickness(station),
  vented: station.disc?.vented ?? false,
});
/** Where the pipe meets the brake. */
export function brakeLeft(station: StationParts) {
  if (!station.disc) return AT.caliper - wheelCylinderHalf(station.drum?.wheel_cylinder_mm ?? 0, S.caliper) - 2;
  return AT.caliper - caliperHalf(caliperOf(station));
}

interface StillProps {
  station: StationParts;
  was: StationParts | null;
  y: number;
  pressed: boolean;
  rotors: number;
}
/** What does not move with the push: pistons and caliper, rotor or drum, the wheel on the road. */
const Still = memo(function Still({ station, was, y, pressed, rotors }: StillProps) {
  const disc = station.disc;
  const tyre = station.rolling_radius_mm * S.tyre;
  const wasSize = was?.disc ? was.disc.rotor_diameter_mm : 0;
  return (
    <>
      {disc ? (
        <>
          {pistonPlaces(disc.pistons_mm, S.caliper).map((v) => (
            <Line key={v} a={[AT.areas - 18, y + v]} b={[AT.caliper - 18, y + v]} as="centre" />
          ))}
          <PistonAreas x={AT.areas} y={y} s={S.caliper} pistons={disc.pistons_mm} found={was ? pistonsOf(was) : []} />
          <CaliperSection {...caliperOf(station)} x={AT.caliper} y={y} pressed={pressed} />
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
          s={rotors}
          diameter={disc.rotor_diameter_mm}
          padHeight={disc.pad_height_mm}
          found={Math.abs(wasSize - disc.rotor_diameter_mm) > 0.5 ? wasSize : 0}
        />
      ) : (
        <DrumFace
          x={AT.rotor}
          y={y}
          s={rotors}
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
    </>
  );
});

interface RowProps {
  row: Row;
  was: StationParts | null;
  now: Figures;
  share: number;
  /** Pixels for a millimetre of a rotor. */
  rotors: number;
}
/** One axle from its caliper to the road. */
export function BrakeRow({ row, was, now, share, rotors }: RowProps) {
  const { station, y } = row;
  const own = now.lines[row.system]?.stations[station.name] ?? now.stations[station.name];
  const pressed = (own?.torque ?? 0) > 0;
  const disc = station.disc;
  const radius = disc ? disc.effective_radius_mm * rotors : ((station.drum?.drum_diameter_mm ?? 0) / 2) * rotors * 0.9;
  const right = disc
    ? AT.caliper + caliperHalf(caliperOf(station))
    : AT.caliper + wheelCylinderHalf(station.drum?.wheel_cylinder_mm ?? 0, S.caliper);
  const tyre = station.rolling_radius_mm * S.tyre;
  const [ax, ay] = polar(AT.rotor, y, radius, 300);
  const brakeForce = ((own?.torque ?? 0) * station.wheels * 1000) / station.rolling_radius_mm;
  const wide = r2(FORCE * share);
  return (
    <>
      <Still station={station} was={was} y={y} pressed={pressed} rotors={rotors} />
      {pressed && (
        <>
          <Path
            d={`M${r2(right)},${y}L${r2(AT.rotor - radius)},${y}${arc(AT.rotor, y, radius, 180, 300, true)}`}
            as="force"
            wide={wide}
          />
          <Arrow x={ax + 3.2} y={ay + 2} turn={32} as="plan-area" long={6 + 4 * share} half={2 + 2.6 * share} />
          <Path d={`M${AT.rotor},${y}L${AT.tyre},${y}L${AT.tyre},${r2(y + tyre)}`} as="force" wide={wide} />
          <Ring x={AT.rotor} y={y} r={2 + 2 * share} as="plan-area" />
          <Ring x={AT.tyre} y={y} r={2 + 2 * share} as="plan-area" />
        </>
      )}
      {own?.clamp != null && <Figure x={772} y={y - OVER} at="middle" {...great(own.clamp)} />}
      <Figure x={912} y={y - OVER} at="middle" {...torque(own?.torque ?? 0)} />
      <Figure x={1056} y={y + tyre - OVER} at="middle" {...great(brakeForce)} />
      {now.locked.includes(station.axle) && (
        <Words x={AT.tyre + 50} y={y + tyre + 15} as="label label-danger">
          sliding
        </Words>
      )}
    </>
  );
}
