/** The vehicle from the side: axles, weights, and the height of its centre of gravity. */
import { Arrow, Ground, Line, Words } from '../../../drawings/ink';
import { AircraftSide, BikeSide, CarSide, CentreMark, usualWheelbase } from '../../../drawings/vehicle';
import type { Drawn } from '../Picture';

interface VehicleNumbers {
  kind: 'car' | 'truck' | 'motorcycle' | 'aircraft';
  wheelbase: number | null;
  height: number | null;
  share: number | null;
  radius: number | null;
  tail: boolean;
}
export function vehiclePicture(n: VehicleNumbers): Drawn {
  const wheelbase = n.wheelbase ?? usualWheelbase(n.kind, n.tail);
  const px = n.kind === 'aircraft' && !n.tail ? 200 : 300; // what stands behind a nose wheel's mains is drawn too
  const s = px / wheelbase;
  const x = 150;
  const y = 250;
  const height = n.height ?? 550;
  const share = n.share ?? 0.5;
  const radius = n.radius ?? (n.kind === 'aircraft' ? 180 : 300);
  const shape = { x, y, s, wheelbase, radius };
  const cx = x + px * (1 - share);
  const cy = y - height * s;
  return {
    width: 604,
    height: 340,
    svg: (
      <>
        {(n.kind === 'car' || n.kind === 'truck') && <CarSide {...shape} height={height} front={share} />}
        {n.kind === 'motorcycle' && <BikeSide {...shape} />}
        {n.kind === 'aircraft' && <AircraftSide {...shape} tail={n.tail} />}
        {(n.kind === 'motorcycle' || n.kind === 'aircraft') && <CentreMark x={cx} y={cy} />}
        <Ground x1={20} x2={584} y={y} />
        <Line a={[x, y + 8]} b={[x, y + 56]} />
        <Line a={[x + px, y + 8]} b={[x + px, y + 56]} />
        <Line a={[x, y + 50]} b={[x + px, y + 50]} />
        <Arrow x={x} y={y + 50} turn={180} long={10} half={1.9} />
        <Arrow x={x + px} y={y + 50} turn={0} long={10} half={1.9} />
        <Line a={[cx + 8, cy]} b={[528, cy]} />
        <Line a={[520, cy]} b={[520, y]} />
        <Arrow x={520} y={cy} turn={-90} long={9} half={1.8} />
        <Arrow x={520} y={y} turn={90} long={9} half={1.8} />
        <Line a={[cx, cy + 6]} b={[cx, y + 26]} as="centre" />
        {n.share !== null && (
          <Words x={cx + 6} y={y + 24} as="label-quiet">
            {Math.round(n.share * 100)} % on the front
          </Words>
        )}
      </>
    ),
    slots: {
      wheelbase_mm: { x: x + px / 2 - 62, y: y + 20, w: 124 },
      cg_height_mm: { x: 604, y: Math.min(cy - 4, y - 66), w: 122, end: true },
    },
    description: 'The vehicle from the side with its wheelbase and centre of gravity.',
  };
}
