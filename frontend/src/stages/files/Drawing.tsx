/** The force line drawn out of sight, only to be saved. */
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { describeLine } from '../../chain/descriptions';
import { ForceLine } from '../../chain/ForceLine';
import { gainsAt } from '../../chain/gains';
import { WIDTH } from '../../chain/geometry';
import type { Kind } from '../../chain/Road';
import { standing } from './drawing';
import type { DrawnLine } from './line';

const Away = styled.div`
  position: fixed;
  left: -9999px;
  top: 0;
  width: ${WIDTH}px;
`;
const nothing = () => undefined;

interface DrawingProps {
  line: DrawnLine;
  kind: Kind;
  onDrawn: (drawn: Awaited<ReturnType<typeof standing>>) => void;
}
export function Drawing({ line, kind, onDrawn }: DrawingProps) {
  const ref = useRef<HTMLDivElement>(null);
  const told = useRef(onDrawn);
  useEffect(() => {
    told.current = onDrawn;
  });
  // Once: what is drawn here stays for one picture.
  useEffect(() => {
    const svg = ref.current?.querySelector('svg');
    if (svg) void standing(svg).then((drawn) => told.current(drawn));
  }, []);
  return (
    <Away ref={ref} inert>
      <ForceLine
        solved={line.solved}
        state={line.state}
        now={line.now}
        found={line.found}
        behind="as found"
        gains={gainsAt(line.gains, line.state.curves.push_n, line.now.push, 'stop', 'whole')}
        match="stop"
        side="whole"
        onSide={nothing}
        name={line.name}
        kind={kind}
        on={null}
        onLink={nothing}
        onPin={null}
        onBar={null}
        description={describeLine(line.name, line.solved, line.now, line.found)}
      />
    </Away>
  );
}
