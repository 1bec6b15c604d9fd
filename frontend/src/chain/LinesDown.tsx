/** The line or lines of a path stood on end: one for each control that is pressed, each with its own parts and push. */
import styled from 'styled-components';
import { placeOf } from './place';
import { drawnLines, figuresFor, partsOf, type FoundLine } from './geometry';
import { LineDown, type DownProps } from './LineDown';

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

export function LinesDown({ description, ...props }: DownProps) {
  const { solved, state, now, found, place, against } = props;
  const lines = drawnLines(solved);
  if (lines.length < 2) return <LineDown {...props} description={description} />;
  return lines.map((line, i) => {
    const { system } = line;
    const own = only({ solved, state, now }, system);
    if (!own) return null;
    return (
      <section key={system} aria-label={`Pressed by ${system}`}>
        <Control>{system.replace(/_/g, ' ')}</Control>
        <LineDown
          {...props}
          {...own}
          found={found && only(found, system)}
          place={placeOf(line, place.setup, place.document)}
          against={i === 0 ? against : ''}
          description={i === 0 ? description : `The ${system} of the same push.`}
        />
      </section>
    );
  });
}
