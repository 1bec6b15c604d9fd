/** The parts of a line that cannot be followed yet: drawn whole where they are known, as phantoms where they are not. */
import type { Section } from '../../api/types';
import { Box, Path, Ring, Words } from '../../drawings/ink';
import { Boot, Hand, PedalArm, PedalBracket } from '../../drawings/pedal';
import { TyreFace } from '../../drawings/vehicle';

export const ROW = 92; // px: height of a drawing in its row
const MID = 46;
export const LEFT = 430;
export const RIGHT = 800;
// Where the parts stand: over the fields of their column.
const PLACES = { disc: [220, 573, 701], drum: [75, 235, 701] } as const;

/** The way of the force: whole as far as the numbers carry it. */
const Way = ({ from, to, known }: { from: number; to: number; known: boolean }) => (
  <Path d={`M${from},${MID}L${to},${MID}`} as={known ? 'way' : 'way wanted'} />
);
const ink = (known: boolean) => (known ? 'edge paper' : 'phantom paper');

interface PressedProps {
  control: Section['control'];
  known: boolean;
  cylinderKnown: boolean;
  twin: boolean;
}
/** A foot or a hand, its lever, and the cylinder. */
export function PressedDrawing({ control, known, cylinderKnown, twin }: PressedProps) {
  const cylinders = twin ? [24, 68] : [MID];
  const high = twin ? 14 : 20;
  return (
    <svg viewBox={`0 0 ${LEFT} ${ROW}`} width={LEFT} height={ROW} aria-hidden="true">
      <Way from={8} to={LEFT} known={known && cylinderKnown} />
      {control === 'hand_lever' ? (
        <>
          <Path d="M196,20L196,74M196,30L142,52L106,58" as={known ? 'heavy' : 'phantom'} />
          <Ring x={196} y={30} r={5} as={ink(known)} />
          <Hand x={146} y={46} />
        </>
      ) : (
        <>
          <PedalBracket x={146} y={16} />
          <PedalArm x={146} y={16} a={292} b={64} s={0.18} turn={-8} phantom={!known} />
          <Boot x={132} y={63} turn={-42} k={0.34} />
        </>
      )}
      <Words x={8} y={MID - 12} as="hero">
        ? N
      </Words>
      {cylinders.map((y) => (
        <g key={y}>
          <Box x={272} y={y - high} w={120} h={2 * high} as={ink(cylinderKnown)} />
          <Path
            d={`M284,${y - high + 7}L382,${y - high + 7}M284,${y + high - 7}L382,${y + high - 7}M310,${y - high + 7}L310,${y + high - 7}M346,${y - high + 7}L346,${y + high - 7}`}
            as={cylinderKnown ? 'thin' : 'phantom'}
          />
        </g>
      ))}
      {!twin && <Path d="M288,26L294,12L366,12L372,26" as={cylinderKnown ? 'edge' : 'phantom'} />}
    </svg>
  );
}

interface BrakedProps {
  drum: boolean;
  brake: boolean;
  rotor: boolean;
  tyre: boolean;
}
/** A caliper or a wheel cylinder, its rotor or drum, and the wheel on the road. */
export function BrakedDrawing({ drum, brake, rotor, tyre }: BrakedProps) {
  const [x, ofRotor, ofTyre] = PLACES[drum ? 'drum' : 'disc'];
  const half = `l38,0l0,8l14,0l0,-8l38,0l0,60l-38,0l0,-8l-14,0l0,8l-38,0Z`;
  return (
    <svg viewBox={`0 0 ${RIGHT} ${ROW}`} width={RIGHT} height={ROW} aria-hidden="true" data-long="">
      <Way from={0} to={RIGHT} known={brake && rotor && tyre} />
      {drum ? (
        <>
          <Box x={x - 48} y={MID - 14} w={96} h={28} as={ink(brake)} />
          <Path d={`M${x - 20},${MID - 14}l0,28M${x + 20},${MID - 14}l0,28`} as={brake ? 'edge' : 'phantom'} />
        </>
      ) : (
        <>
          <Path d={`M${x - 45},${MID - 30}${half}`} as={ink(brake)} />
          <Box x={x - 5} y={MID - 38} w={10} h={76} as={ink(brake)} />
        </>
      )}
      {!brake && (
        <Words x={x - 26} y={MID + 11} as="hero" at="middle">
          ?
        </Words>
      )}
      <Ring x={ofRotor} y={MID} r={drum ? 36 : 40} as={ink(rotor)} />
      <Ring x={ofRotor} y={MID} r={drum ? 30 : 26} as={rotor ? 'thin' : 'phantom'} />
      <Ring x={ofRotor} y={MID} r={8} as={ink(rotor)} />
      {tyre ? (
        <TyreFace x={ofTyre} y={MID} r={42} rim={25} />
      ) : (
        <>
          <Ring x={ofTyre} y={MID} r={42} as="phantom paper" />
          <Ring x={ofTyre} y={MID} r={25} as="phantom" />
        </>
      )}
      <Path d={`M${ofTyre - 56},${MID + 42}l112,0`} as="edge" />
      <Words x={RIGHT} y={MID - 10} as="hero" at="end">
        ? g
      </Words>
    </svg>
  );
}
