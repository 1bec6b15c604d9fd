/** State marks: a shape for each state, so that word and shape remain without colour. */
import { Path, Ring } from '../drawings/ink';

export type Level = 'good' | 'note' | 'caution' | 'danger';
export type Progress = 'empty' | 'begun' | 'ready' | 'doubt';

function shape(state: Level | Progress) {
  switch (state) {
    case 'good':
      return (
        <>
          <Ring x={0} y={0} r={6} as="mark-line good" />
          <Path d="M-3,0.2L-0.8,2.6L3.2,-2.6" as="mark-line good" />
        </>
      );
    case 'note':
      return <Path d="M-5.5,-5.5h11v11h-11ZM0,-1L0,3.2M0,-3.6L0,-2.6" as="mark-line note" />;
    case 'caution':
      return <Path d="M0,-6.4L6.8,5.6L-6.8,5.6ZM0,-2.2L0,1.6M0,3L0,3.9" as="mark-line caution" />;
    case 'danger':
      return (
        <>
          <Path d="M-2.8,-6.8L2.8,-6.8L6.8,-2.8L6.8,2.8L2.8,6.8L-2.8,6.8L-6.8,2.8L-6.8,-2.8Z" as="mark-area danger" />
          <Path d="M0,-3.8L0,1M0,2.8L0,3.8" as="mark-sign" />
        </>
      );
    case 'empty':
      return <Ring x={0} y={0} r={5} as="mark-outline" />;
    case 'begun':
      return (
        <>
          <Ring x={0} y={0} r={5} as="mark-outline" />
          <Path d="M0,-5A5,5 0 0 1 0,5Z" as="mark-inside" />
        </>
      );
    case 'ready':
      return (
        <>
          <Ring x={0} y={0} r={5} as="mark-inside mark-outline" />
          <Path d="M-2.6,0.2L-0.7,2.2L2.7,-2.2" as="mark-sign" />
        </>
      );
    case 'doubt':
      return <Path d="M0,-6.4L6.4,0L0,6.4L-6.4,0ZM0,-3.2L0,0.8M0,2.4L0,3.2" as="mark-outline" />;
  }
}

export const Mark = ({ state, size = 15 }: { state: Level | Progress; size?: number }) => (
  <svg className="mark" width={size} height={size} viewBox="-8 -8 16 16" aria-hidden="true">
    {shape(state)}
  </svg>
);
