/** The joint cut along its middle, upper half: the nose of the one end against the seat of the other, both angles true. */
import type { JointView } from '../../api/types';
import { Line, Path, Words } from '../../drawings/ink';

/** Half angles of noses and seats to the axis, in degrees; a flat face is square to it. */
const HALF: Record<string, number> = {
  inverted_45_double: 45,
  flare_45: 45,
  an_37: 37,
  bubble: 57.5,
  convex_male: 57.5,
  banjo: 90,
  straight_washer: 90,
  orb: 90,
  npt: 90,
};
const familyOf = (option: string) => option.split(' ')[0] ?? '';

export function Seat({ joint }: { joint: JointView }) {
  const one = HALF[familyOf(joint.a.option)];
  const other = HALF[familyOf(joint.b.option)];
  if (one === undefined || (other === undefined && !joint.open)) return null;
  const H = 46;
  const bore = 10;
  const run = (half: number) => (half >= 90 ? 0 : (H - bore) / Math.tan((half * Math.PI) / 180));
  const touch = 122;
  const left = run(one);
  const right = other === undefined ? 0 : run(other);
  const y0 = 58;
  return (
    <svg width={250} height={74} aria-hidden="true">
      <Path d={`M10,${y0 - bore}L${touch},${y0 - bore}L${touch - left},${y0 - H}L10,${y0 - H}Z`} as="section" />
      {!joint.open && (
        <Path
          d={`M240,${y0 - bore}L${touch + 2},${y0 - bore}L${touch + 2 - right},${y0 - H}L240,${y0 - H}Z`}
          as="section-opposite"
        />
      )}
      {!joint.open && Math.abs(left - right) > 0.5 && (
        <Path
          d={`M${touch},${y0 - bore}L${touch - left},${y0 - H}L${touch + 2 - right},${y0 - H}L${touch + 2},${y0 - bore}Z`}
          as="mark-area danger"
        />
      )}
      <Line a={[2, y0]} b={[248, y0]} as="centre" />
      <Words x={10} y={y0 + 13} as="label">
        {one < 90 ? `${one}°` : 'flat'}
      </Words>
      <Words x={240} y={y0 + 13} as="label" at="end">
        {other === undefined ? 'open' : other < 90 ? `${other}°` : 'flat'}
      </Words>
    </svg>
  );
}
