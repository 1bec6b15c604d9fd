/** The lines from each cylinder port to each brake, joint by joint: not to scale, a joint at a time in the order the fluid meets them. */
import type { ReactNode } from 'react';
import type { BranchView, JointView } from '../../api/types';
import { Box, Line, Path, Words } from '../../drawings/ink';
import type { Fit } from './useFit';
import { inChosenUnits } from '../../units/sentences';

const ROW = 100;
const LEFT = 92; // of the first joint, at the cylinder's port
const RIGHT = 108; // from the last joint, at the brake, to the edge
const APART = 14; // between the two lanes of a line that is split, from its middle
type Part = JointView['a']['part'];

/** What lies between two joints: a line, a hose, or the body of a valve or a tee. */
function between(part: Part, x1: number, x2: number, y: number, key: string): ReactNode {
  if (part === 'hose') return <Box key={key} x={x1} y={y - 4} w={x2 - x1} h={8} as="section" />;
  const middle = (x1 + x2) / 2;
  return (
    <g key={key}>
      <Line a={[x1, y - 2]} b={[x2, y - 2]} as="thin" />
      <Line a={[x1, y + 2]} b={[x2, y + 2]} as="thin" />
      {part !== 'line' && (
        <Path
          d={`M${middle - 11},${y - 7}h22v14h-22Z${part === 'valve' ? `M${middle - 6},${y + 4}L${middle + 6},${y - 4}` : ''}`}
          as="edge paper"
        />
      )}
    </g>
  );
}

interface JointMarkProps {
  joint: JointView;
  x: number;
  y: number;
  on: boolean;
  onJoint: (key: string) => void;
}
/** A joint: the nut of the one end in the seat of the other; ringed in the ink of how it stands. */
const JointMark = ({ joint, x, y, on, onJoint }: JointMarkProps) => (
  <g className="joint" data-on={on || undefined} onClick={() => onJoint(joint.key)}>
    <rect x={x - 16} y={y - 14} width={32} height={28} className="hit" />
    <Path d={`M${x - 8},${y - 6}L${x - 1},${y - 3}L${x - 1},${y + 3}L${x - 8},${y + 6}Z`} as="solid" />
    <Path d={`M${x + 8},${y - 6}L${x + 1},${y}L${x + 8},${y + 6}`} as="edge" />
    {joint.level !== 'good' && <circle cx={x} cy={y} r={12} className={`mark-line ${joint.level}`} />}
  </g>
);

interface BranchProps {
  branch: BranchView;
  joints: readonly JointView[];
  y: number;
  width: number;
  fit: Fit;
}
function Branch({ branch, joints, y, width, fit }: BranchProps) {
  const end = width - RIGHT;
  const at = (i: number) => (joints.length < 2 ? LEFT : LEFT + ((end - LEFT) * i) / (joints.length - 1));
  const [kind] = branch.cylinder.split(' ').slice(-1);
  const size = branch.cylinder.split(' ').slice(0, -1).join(' ');
  const lanesOf = (joint: JointView) => (joint.count > 1 ? [y - APART, y + APART] : [y]);
  const over = (joint: JointView) => Math.min(...lanesOf(joint)) - 24;
  return (
    <>
      <Box x={4} y={y - 20} w={LEFT - 16} h={40} as="edge" />
      <Words x={(LEFT - 8) / 2} y={size === '' ? y + 4 : y - 1} as="label-strong" at="middle">
        {size === '' ? (kind ?? '') : size}
      </Words>
      {size !== '' && (
        <Words x={(LEFT - 8) / 2} y={y + 13} as="note" at="middle">
          {kind}
        </Words>
      )}
      {joints.slice(1).map((joint, i) => {
        const before = joints[i];
        if (!before) return null;
        const [x1, x2] = [at(i) + 8, at(i + 1) - 8];
        const part = before.b.part;
        const splits = before.count === 1 && joint.count > 1;
        if (!splits) return lanesOf(joint).map((lane) => between(part, x1, x2, lane, `${joint.key} ${lane}`));
        // A tee: one line comes in, as many as are drawn go out.
        const stem = x1 + (x2 - x1) / 2;
        return (
          <g key={joint.key}>
            {between('line', x1, stem, y, 'in')}
            <Box x={stem - 5} y={y - APART - 5} w={10} h={2 * APART + 10} as="edge" />
            {lanesOf(joint).map((lane) => between('line', stem + 5, x2, lane, `out${lane}`))}
          </g>
        );
      })}
      {joints.map((joint, i) => {
        const on = fit.joint?.key === joint.key;
        return (
          <g key={joint.key}>
            {lanesOf(joint).map((lane) => (
              <JointMark key={lane} joint={joint} x={at(i)} y={lane} on={on} onJoint={fit.onJoint} />
            ))}
            <g className="joint" onClick={() => fit.onJoint(joint.key)}>
              <circle cx={at(i)} cy={over(joint)} r={9} className={on ? 'edge solid' : 'edge paper'} />
              <Words x={at(i)} y={over(joint) + 4} as={on ? 'balloon on' : 'balloon'} at="middle">
                {joint.number}
              </Words>
            </g>
          </g>
        );
      })}
      <Box x={end + 12} y={y - 22} w={14} h={44} as="section" />
      <Words x={end + 32} y={y - 2} as="label-strong">
        {branch.station}
      </Words>
      <Words x={end + 32} y={y + 13} as="label-quiet">
        {branch.brake}
      </Words>
      {(branch.line !== '' || branch.hose !== '') && (
        <Words x={LEFT} y={y + 40} as="label-quiet">
          {inChosenUnits([branch.line, branch.hose === '' ? '' : `hoses ${branch.hose}`].filter(Boolean).join('; '))}
        </Words>
      )}
    </>
  );
}

export function LineMap({ fit, width }: { fit: Fit; width: number }) {
  const { branches, joints } = fit.view;
  const by = new Map(joints.map((j) => [j.key, j]));
  const sentence = branches
    .map((b) => `${b.system} to ${b.station}: ${b.joints.map((k) => by.get(k)?.title ?? '').join(', ')}`)
    .join('. ');
  return (
    <svg width={width} height={branches.length * ROW + 6} role="img" aria-label={`Lines, joint by joint. ${sentence}`}>
      {branches.map((branch, n) => (
        <Branch
          key={`${branch.system} ${branch.station}`}
          branch={branch}
          joints={branch.joints.flatMap((k) => by.get(k) ?? [])}
          y={n * ROW + 52}
          width={width}
          fit={fit}
        />
      ))}
    </svg>
  );
}
