/** The line or lines of a path stood on end: one for each control that is pressed, each with its own parts and push. */
import styled from 'styled-components';
import { placeOf } from './edits';
import { drawnLines, figuresFor, partsOf, type FoundLine } from './line/geometry';
import { LineDown } from './LineDown';
import type { PartsProps } from './PartsRow';

const Control = styled.h2`
  padding: var(--s8) 0 var(--s4);
  font: var(--w-strong) var(--t-figure) / var(--tight) var(--letter);
  text-transform: capitalize;
`;

/** A line of several controls as one of them has it. */
function only({ solved, state, now }: FoundLine, system: string): FoundLine | null {
  const own = partsOf(solved, system);
  return own && { solved: own, state, now: figuresFor(solved, now, system) };
}

export function LinesDown({ said, setup, ...props }: PartsProps & { said: string; setup: string }) {
  const { solved, state, now, found, place, against } = props;
  const lines = drawnLines(solved);
  if (lines.length < 2) return <LineDown {...props} said={said} />;
  return lines.map(({ system }, i) => {
    const own = only({ solved, state, now }, system);
    if (!own) return null;
    return (
      <section key={system} aria-label={`Pressed by ${system}`}>
        <Control>{system.replace(/_/g, ' ')}</Control>
        <LineDown
          {...props}
          {...own}
          found={found && only(found, system)}
          place={placeOf(place.document, setup, system)}
          against={i === 0 ? against : ''}
          said={i === 0 ? said : `The ${system} of the same push.`}
        />
      </section>
    );
  });
}
