/** The master cylinder cut open at rest: bore, stroke, what the ports take. */
import { CylinderSection } from '../../../drawings/cylinder';
import { Arrow, Line, Path, Ring, Words } from '../../../drawings/ink';
import type { Drawn } from '../Picture';

const K = 2.36; // the force line's cylinder, enlarged
const S = 1.75;

interface CylinderNumbers {
  kind: string;
  bore: number | null;
  rear: number | null;
  stroke: number | null;
  here: string | null;
}

function One({ x, y, bore, stroke, tandem }: { x: number; y: number; bore: number; stroke: number; tandem: boolean }) {
  const half = (bore * S * K) / 2;
  const land = x + 40 * K;
  const end = land + stroke * S * K;
  const low = y + half + 8 * K;
  return (
    <>
      <g transform={`translate(${x},${y}) scale(${K})`} className="big">
        <CylinderSection
          x={0}
          y={0}
          bore={bore * S}
          found={0}
          length={152}
          wall={8}
          push={0}
          tandem={tandem}
          fluid={false}
        />
      </g>
      <Line a={[x - 4, y - half]} b={[x - 34, y - half]} />
      <Line a={[x - 4, y + half]} b={[x - 34, y + half]} />
      <Line a={[x - 28, y - half]} b={[x - 28, y + half]} />
      <Arrow x={x - 28} y={y - half} turn={-90} long={10} half={1.9} />
      <Arrow x={x - 28} y={y + half} turn={90} long={10} half={1.9} />
      <Line a={[land, y + half + 2]} b={[land, low + 44]} />
      <Line a={[end, low + 4]} b={[end, low + 44]} />
      <Line a={[land, low + 38]} b={[end, low + 38]} />
      <Arrow x={land} y={low + 38} turn={180} long={10} half={1.9} />
      <Arrow x={end} y={low + 38} turn={0} long={10} half={1.9} />
    </>
  );
}

export function cylinderPicture(n: CylinderNumbers): Drawn {
  const bore = Math.min(n.bore ?? 20, 45);
  const stroke = Math.min(n.stroke ?? 30, 60);
  const x = 150;
  if (n.kind === 'twin') {
    const other = Math.min(n.rear ?? bore, 45);
    return {
      width: 604,
      height: 560,
      svg: (
        <>
          <One x={x} y={110} bore={bore} stroke={stroke} tandem={false} />
          <One x={x} y={370} bore={other} stroke={stroke} tandem={false} />
          <Line a={[64, 110]} b={[64, 370]} as="heavy" />
          <Ring x={64} y={110} r={7} as="edge paper" />
          <Ring x={64} y={370} r={7} as="edge paper" />
          <Ring x={64} y={240} r={10} as="handle" />
          <Words x={520} y={88} as="label-quiet">
            to the front
          </Words>
          <Words x={520} y={348} as="label-quiet">
            to the rear
          </Words>
        </>
      ),
      slots: {
        'front.bore_mm': { x: 0, y: 28, w: 116 },
        'front.stroke_mm': { x: 300, y: 190, w: 116 },
        'rear.bore_mm': { x: 0, y: 400, w: 116 },
        'rear.stroke_mm': { x: 300, y: 450, w: 116 },
        'bar.front_share': { x: 84, y: 212, w: 110 },
        stop_mm: { x: 210, y: 212, w: 80 },
      },
      description: 'Two master cylinders side by side on a balance bar.',
    };
  }
  const y = 190;
  const half = (bore * S * K) / 2;
  const low = y + half + 8 * K;
  const lx = x + 40 * K - 2;
  const ly = y - half + 5;
  const top = y - half - 8 * K;
  const land = x + 40 * K;
  const tandem = n.kind === 'tandem';
  const second = x + 102 * K;
  return {
    width: 604,
    height: 400,
    svg: (
      <>
        <One x={x} y={y} bore={bore} stroke={stroke} tandem={tandem} />
        <Ring x={lx} y={ly} r={2.4} as="solid" />
        <Path d={`M${lx},${ly}L${lx - 34},${top - 30}L${lx - 60},${top - 30}`} as="thin" />
        {tandem && (
          <>
            <Ring x={second - 2} y={ly} r={2.4} as="solid" />
            <Path d={`M${second - 2},${ly}L${second + 60},${top - 62}L${second + 70},${top - 62}`} as="thin" />
          </>
        )}
      </>
    ),
    slots: {
      bore_mm: { x: 8, y: y - 34, w: 106 },
      stroke_mm: { x: land + 8, y: low + 46, w: 116 },
      lost_mm: { x: lx - 62, y: top - 62, w: 120, end: true },
      lost_primary_mm: { x: lx - 62, y: top - 62, w: 120, end: true },
      lost_secondary_mm: { x: second + 72, y: top - 96, w: 116 },
      primary_share: { x: land + 150, y: low + 46, w: 122 },
      height_above_brakes_mm: { x: 8, y: low + 46, w: 150 },
    },
    description: 'The master cylinder cut open, at rest.',
  };
}
