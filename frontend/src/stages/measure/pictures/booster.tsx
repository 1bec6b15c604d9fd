/** The booster between pedal and cylinder. */
import { BoosterShell } from '../../../drawings/pedal';
import { Arrow, Line, Path, Words } from '../../../drawings/ink';
import type { Drawn } from '../Picture';

export const boosterPicture = (present: boolean): Drawn => ({
  width: 604,
  height: 330,
  svg: (
    <>
      <Path d="M40,150L250,150" as="edge" />
      <Arrow x={240} y={150} turn={0} as="arrow" long={12} half={4} />
      <g transform="translate(250,150) scale(3.4)" className="big">
        <BoosterShell x={0} y={0} present={present} />
      </g>
      <Path d="M349,150L560,150" as="edge" />
      <Arrow x={560} y={150} turn={0} as="arrow" long={12} half={4} />
      <Line a={[262, 40]} b={[262, 60]} />
      <Words x={40} y={140} as="label-quiet">
        from the pedal
      </Words>
      <Words x={470} y={140} as="label-quiet">
        to the cylinder
      </Words>
      {!present && (
        <Words x={300} y={286} as="label-quiet" at="middle">
          none
        </Words>
      )}
    </>
  ),
  slots: {},
  description: present ? 'A booster between pedal and cylinder.' : 'No booster between pedal and cylinder.',
});
