/** The brake of one wheel: caliper cut through its pistons and rotor in face view, or a drum with its face off. */
import { CaliperSection, DrumFace, PistonAreas, pistonPlaces, RotorFace } from '../../../drawings/brakes';
import { Arrow, Line, Path, Ring } from '../../../drawings/ink';
import type { Drawn } from '../Picture';

interface DiscNumbers {
  fixed: boolean;
  pistons: readonly number[];
  rotor: number | null;
  pad: number | null;
  thickness: number | null;
  vented: boolean;
}
export function discPicture(n: DiscNumbers): Drawn {
  const pistons = n.pistons.length > 0 ? n.pistons : [40];
  const span = pistons.reduce((sum, d) => sum + d + 7, -7);
  const s = Math.min(1.9, 230 / Math.max(span, 60));
  const x = 158;
  const y = 222;
  const caliper = {
    s,
    pistons,
    fixed: n.fixed,
    thickness: Math.min(n.thickness ?? (n.vented ? 20 : 10), 45),
    vented: n.vented,
  };
  const rotor = n.rotor ?? 260;
  const pad = Math.min(n.pad ?? 45, rotor * 0.4);
  const R = 128;
  const sr = R / (rotor / 2);
  const rx = 460;
  const half = (span * s) / 2 + 7;
  const t = (caliper.thickness * s) / 2;
  const outer = (rotor / 2 - 1.5) * sr;
  const ends = y + half + 20;
  return {
    width: 604,
    height: 470,
    svg: (
      <>
        {pistonPlaces(pistons, s).map((v) => (
          <Line key={v} a={[22, y + v]} b={[x - 20, y + v]} as="centre" />
        ))}
        <PistonAreas x={46} y={y} s={s} pistons={pistons} found={[]} />
        <CaliperSection {...caliper} x={x} y={y} pressed={false} />
        <Path d={`M46,${y + half + 4}L46,${ends + 16}`} as="thin" />
        <Line a={[x - t, y - half - 8]} b={[x - t, y - half - 40]} />
        <Line a={[x + t, y - half - 8]} b={[x + t, y - half - 40]} />
        <Line a={[x - t - 26, y - half - 30]} b={[x - t, y - half - 30]} />
        <Line a={[x + t, y - half - 30]} b={[x + t + 26, y - half - 30]} />
        <Arrow x={x - t} y={y - half - 30} turn={0} long={9} half={1.8} />
        <Arrow x={x + t} y={y - half - 30} turn={180} long={9} half={1.8} />
        <RotorFace x={rx} y={y} s={sr} diameter={rotor} padHeight={pad} found={0} />
        <Line a={[rx - R, y]} b={[rx - R, y + R + 40]} />
        <Line a={[rx + R, y]} b={[rx + R, y + R + 40]} />
        <Line a={[rx - R, y + R + 32]} b={[rx + R, y + R + 32]} />
        <Arrow x={rx - R} y={y + R + 32} turn={180} long={10} half={1.9} />
        <Arrow x={rx + R} y={y + R + 32} turn={0} long={10} half={1.9} />
        <Line a={[rx - outer, y]} b={[rx - outer, y - R - 26]} />
        <Line a={[rx - outer + pad * sr, y - 10]} b={[rx - outer + pad * sr, y - R - 26]} />
        <Line a={[rx - outer, y - R - 20]} b={[rx - outer + pad * sr, y - R - 20]} />
        <Arrow x={rx - outer} y={y - R - 20} turn={180} long={8} half={1.7} />
        <Arrow x={rx - outer + pad * sr} y={y - R - 20} turn={0} long={8} half={1.7} />
        <Ring x={x + t + 5} y={y + 12} r={2.2} as="solid" />
        <Path d={`M${x + t + 5},${y + 12}L${x + 62},${ends + 8}`} as="thin" />
      </>
    ),
    slots: {
      pistons_mm: { x: 0, y: ends + 8, w: 128 },
      'friction.cold': { x: x + 24, y: ends + 8, w: 110 },
      rotor_thickness_mm: { x: x + t + 30, y: y - half - 62, w: 104 },
      rotor_diameter_mm: { x: rx - 60, y: y + R + 8, w: 124 },
      pad_height_mm: { x: rx - outer - 6, y: y - R - 90, w: 104 },
    },
    description: 'The caliper cut through its pistons, and the rotor in face view with its pad.',
  };
}

export function drumPicture({ drum, cylinder }: { drum: number | null; cylinder: number | null }): Drawn {
  const diameter = drum ?? 220;
  const R = 150;
  const s = R / (diameter / 2);
  const x = 300;
  const y = 196;
  const h = 0.8 * R;
  return {
    width: 604,
    height: 440,
    svg: (
      <>
        <DrumFace x={x} y={y} s={s} diameter={diameter} cylinder={cylinder ?? 19} />
        <Path d={`M${x + 30},${y - h}L${x + 190},${y - h - 10}`} as="thin" />
        <Ring x={x + 30} y={y - h} r={2.4} as="solid" />
        <Path d={`M${x + R - 4},${y + 30}L${x + 190},${y + 66}`} as="thin" />
        <Ring x={x + R - 4} y={y + 30} r={2.4} as="solid" />
        <Line a={[x - R, y]} b={[x - R, y + R + 54]} />
        <Line a={[x + R, y]} b={[x + R, y + R + 54]} />
        <Line a={[x - R, y + R + 46]} b={[x + R, y + R + 46]} />
        <Arrow x={x - R} y={y + R + 46} turn={180} long={10} half={1.9} />
        <Arrow x={x + R} y={y + R + 46} turn={0} long={10} half={1.9} />
      </>
    ),
    slots: {
      wheel_cylinder_mm: { x: x + 176, y: y - h - 26, w: 126 },
      'friction.cold': { x: x + 176, y: y + 56, w: 116 },
      drum_diameter_mm: { x: x - 64, y: y + R + 22, w: 128 },
    },
    description: 'The drum with its face off: wheel cylinder above, two shoes, anchor below.',
  };
}
