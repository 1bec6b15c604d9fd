/** The wheel cut through the brake, to one scale: wheel, caliper, rotor and pad as far as they are known, each gap at its place. */
import type { SectionView } from '../../api/types';
import { Box, Line, Path, Ring, Words, poly, type Point } from '../../drawings/ink';
import { dimension, lengthOf, spoken, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const WALL = 5; // a wheel's wall as it is drawn, mm
const TOP = 34;
const FOOT = 8;

interface OldBrakeProps {
  old: NonNullable<SectionView['old']>;
  centre: number | null;
  floor: number;
  at: (p: readonly number[]) => Point;
}
/** What stands there as found, dashed behind the new: where its middle is not measured it stands at the new one's. */
function OldBrake({ old, centre, floor, at }: OldBrakeProps) {
  const { radius_mm: radius, thickness_mm: thick, outline } = old;
  const half = (thick ?? 0) / 2;
  const edge =
    radius === null || centre === null || radius <= floor
      ? ''
      : half > 0
        ? poly([
            at([centre - half, floor]),
            at([centre - half, radius]),
            at([centre + half, radius]),
            at([centre + half, floor]),
          ])
        : poly([at([centre - 30, radius]), at([centre + 30, radius])]);
  return (
    <>
      {edge !== '' && <Path d={edge} as="found" />}
      {outline.length > 0 && <Path d={`${poly(outline.map(at))}Z`} as="found" />}
    </>
  );
}

export function SectionDrawing({ section, width, height }: { section: SectionView; width: number; height: number }) {
  const { profile, outline, rotor_radius_mm: rotor } = section;
  const { old } = section;
  const points = [...profile, ...outline, ...(old?.outline ?? [])];
  if (points.length === 0) return null;
  const xs = points.map((p) => p[0] ?? 0);
  const rs = points.map((p) => p[1] ?? 0);
  const x0 = Math.min(...xs) - 14;
  const x1 = Math.max(...xs) + 14;
  const r1 = Math.max(...rs, rotor ?? 0, old?.radius_mm ?? 0) + WALL + 6;
  const r0 = Math.max(0, Math.min(...outline.map((p) => p[1] ?? 0)) - 26);
  const scale = Math.min((width - 170) / (x1 - x0), (height - TOP - FOOT) / (r1 - r0));
  const left = (width - (x1 - x0) * scale) / 2;
  const at = (p: readonly number[]): Point => [
    left + ((p[0] ?? 0) - x0) * scale,
    TOP + (r1 - Math.max(r0, p[1] ?? 0)) * scale,
  ];
  const inner = profile.map(at);
  const outer = [...profile].reverse().map(([x, r], i, all) => {
    const spoke = i === all.length - 1;
    return at([(x ?? 0) - (spoke || i === all.length - 2 ? WALL : 0), (r ?? 0) + (spoke ? 0 : WALL)]);
  });
  const centre = section.hat_offset_mm;
  const half = (section.rotor_thickness_mm ?? 0) / 2;
  const gap = (name: string) => section.gaps.find((g) => g.name === name);
  const barrel = gap('barrel');
  const spoke = gap('spoke');
  const bridge = gap('bridge');
  const state = (level: string | undefined) => (level === 'good' || level === undefined ? '' : ` label-${level}`);
  const said = section.gaps
    .map((g) => `${g.words} ${spoken(lengthOf(g.gap_mm, 1))}, ${dimension(g.limit_mm).v} wanted`)
    .join('; ');
  const body = outline.map(at);
  const top = Math.min(...body.map((p) => p[1]));
  const barrelTop = Math.min(...outer.map((p) => p[1]));
  const bodyLeft = Math.min(...body.map((p) => p[0]));
  const bodyRight = Math.max(...body.map((p) => p[0]));
  return (
    <>
      <svg
        width={width}
        height={TOP + (r1 - r0) * scale + FOOT}
        role="img"
        aria-label={`${section.title} wheel, cut through the brake. ${said}`}
      >
        <Path d={`${poly([...inner, ...outer])}Z`} as="section" />
        <Path d={`${poly(body)}Z`} as="edge paper" />
        {section.pad && centre !== null && (
          <>
            {[-1, 1].map((side) => {
              const near = centre + side * half;
              const far = near + side * 9;
              const [a, b] = [Math.min(near, far), Math.max(near, far)];
              const [px, py] = at([a, section.pad?.[1] ?? 0]);
              const [qx, qy] = at([b, section.pad?.[0] ?? 0]);
              return <Box key={side} x={px} y={py} w={qx - px} h={qy - py} as="solid" />;
            })}
          </>
        )}
        {rotor !== null && centre !== null && half > 0 && (
          <Path
            d={`${poly([at([centre - half, rotor]), at([centre + half, rotor]), at([centre + half, r0]), at([centre - half, r0])])}Z`}
            as="section-opposite"
          />
        )}
        <Path d={`${poly(body)}Z`} as="edge" />
        {old && <OldBrake old={old} centre={old.hat_offset_mm ?? centre} floor={r0} at={at} />}
        {barrel && (
          <>
            <Ring x={at(barrel.at ?? [])[0]} y={top} r={3.5} as={`mark-line ${barrel.level}`} />
            <Words
              x={(bodyLeft + bodyRight) / 2}
              y={barrelTop - 8}
              as={`label-strong${state(barrel.level)}`}
              at="middle"
            >
              {`${written(lengthOf(barrel.gap_mm, 1))} to barrel`}
            </Words>
          </>
        )}
        {spoke && (
          <>
            <Line
              a={[bodyLeft, (top + at([0, r0])[1]) / 2]}
              b={[bodyLeft - spoke.gap_mm * scale, (top + at([0, r0])[1]) / 2]}
              as="edge"
            />
            <Words x={4} y={(top + at([0, r0])[1]) / 2 - 4} as={`label-strong${state(spoke.level)}`}>
              {written(lengthOf(spoke.gap_mm, 1))}
            </Words>
            <Words x={4} y={(top + at([0, r0])[1]) / 2 + 11} as="label-quiet">
              to spoke
            </Words>
          </>
        )}
        {bridge && rotor !== null && centre !== null && (
          <>
            <Line a={at([centre, rotor])} b={[bodyRight + 8, at([centre, rotor])[1]]} as="thin" />
            <Words x={bodyRight + 10} y={at([centre, rotor])[1] - 2} as={`label-strong${state(bridge.level)}`}>
              {written(lengthOf(bridge.gap_mm, 1))}
            </Words>
            <Words x={bodyRight + 10} y={at([centre, rotor])[1] + 12} as="label-quiet">
              rotor to bridge
            </Words>
          </>
        )}
      </svg>
      <p className="quiet">
        {`outboard at the left; the axle ${written(lengthOf(r0))} below${old && old.words !== '' ? `; dashed: as found, ${inChosenUnits(old.words)}` : ''}`}
      </p>
    </>
  );
}
