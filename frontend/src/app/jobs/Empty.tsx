/** No job yet: what a job goes through. */
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { STAGES } from '../stages';

const Box = styled.section`
  h2 {
    padding-bottom: var(--s8);
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0 0 var(--s24);
    border-top: var(--r-heavy) solid var(--ink);
  }
  li {
    display: grid;
    grid-template-columns: var(--s22) 92px minmax(0, 1fr);
    align-items: baseline;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s8) 0;
  }
  b {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  span {
    color: var(--ink-2);
  }
`;
const WAY = [
  ['Measure', 'what is on it now, tape in hand'],
  ['Size', 'one push, followed to the road'],
  ['Fit', 'will it go together, what is missing'],
  ['Build', 'tools, torque, signed step by step'],
  ['Bleed', 'round the car, no bubbles, no leaks'],
  ['Bed', 'pads and rotors, by the recipe'],
  ['Prove', 'stops, against the prediction'],
] as const;

export const Empty = () => (
  <Box>
    <h2>No job yet. What one goes through, none of it locked:</h2>
    <ol>
      {WAY.map(([name, what]) => (
        <li key={name}>
          <Mark state="empty" size={15} />
          <b>{name}</b>
          <span>
            {what}
            {STAGES.some((stage) => stage.path === name.toLowerCase()) ? '' : ' (later)'}
          </span>
        </li>
      ))}
    </ol>
  </Box>
);
