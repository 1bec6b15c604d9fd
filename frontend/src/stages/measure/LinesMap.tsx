/** The lines of each station drawn from cylinder to brake, each piece with its own fields under it; not to scale. */
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { capital } from '../../units/format';
import type { Group } from '../../api/types';
import { Box, Line, Path, Ring } from '../../drawings/ink';

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  border-top: var(--r-hair) solid var(--rule);
  padding: var(--s6) 0 var(--s10);
  > div {
    flex: 1 1 170px;
    min-width: 0;
    padding-right: var(--s18);
  }
  && [data-wide] {
    grid-column: auto;
  }
  h3 {
    flex-wrap: wrap;
    gap: var(--s2) var(--s10);
  }
  h3 button {
    white-space: nowrap;
  }
  > div[data-end] {
    flex: 0 1 56px;
    padding-right: 0;
  }
  svg {
    display: block;
    width: 100%;
    height: 38px;
  }
  /* The line runs on from piece to piece. */
  > div > svg {
    width: calc(100% + var(--s18));
  }
  > div[data-end] > svg {
    width: 100%;
  }
`;

type Piece = NonNullable<Group['piece']> | 'cylinder' | 'brake';
const ORDER: readonly Piece[] = ['cylinder', 'hard_line', 'device', 'hose', 'brake', 'all'];

/** One piece in a strip of 200 by 38 that stretches: what stands in the middle keeps its shape. */
function Drawn({ piece }: { piece: Piece }) {
  const through = (
    <svg x="0" width="100%" height="38" viewBox="0 0 200 38" preserveAspectRatio="none" aria-hidden="true">
      <Line a={[0, 17]} b={[200, 17]} as="edge" />
      <Line a={[0, 21]} b={[200, 21]} as="edge" />
    </svg>
  );
  const shapes: Record<Piece, ReactNode> = {
    cylinder: (
      <>
        <Box x={4} y={6} w={40} h={26} as="section" />
        <Box x={6} y={12} w={36} h={14} as="edge paper" />
      </>
    ),
    hard_line: null,
    hose: (
      <>
        <Box x={50} y={11} w={100} h={16} as="edge paper" />
        <Path d={Array.from({ length: 15 }, (_, i) => `M${56 + i * 6},11L${60 + i * 6},27`).join('')} as="thin" />
      </>
    ),
    device: (
      <>
        <Box x={78} y={3} w={44} h={32} as="edge paper" />
        <Path d="M86,30L100,14L114,10" as="heavy" />
      </>
    ),
    brake: (
      <>
        <Ring x={26} y={19} r={15} as="edge paper" />
        <Ring x={26} y={19} r={4} as="edge" />
      </>
    ),
    all: null,
  };
  return (
    <svg aria-hidden="true">
      {piece !== 'cylinder' && piece !== 'brake' && piece !== 'all' && through}
      {shapes[piece]}
    </svg>
  );
}

export function LinesMap({ groups, children }: { groups: readonly Group[]; children: (group: Group) => ReactNode }) {
  const stations = [...new Set(groups.map((g) => g.station ?? ''))];
  return stations.map((station) => {
    const own = groups
      .filter((g) => g.station === station && g.entries.some((e) => !e.more))
      .map((group) => ({ group, piece: group.piece ?? 'device' }))
      .sort((a, b) => ORDER.indexOf(a.piece) - ORDER.indexOf(b.piece));
    if (own.length === 0) return null;
    return (
      <Row key={station} role="group" aria-label={`${capital(station)}: from the cylinder to the brake`}>
        <div data-end="">
          <Drawn piece="cylinder" />
        </div>
        {own.map(({ group, piece }) => (
          <div key={group.entries[0]?.path}>
            <Drawn piece={piece} />
            {children(group)}
          </div>
        ))}
        <div data-end="">
          <Drawn piece="brake" />
        </div>
      </Row>
    );
  });
}
