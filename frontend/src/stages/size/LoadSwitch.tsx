/** Which load state is on the line: one press goes to the next. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { StateView } from '../../api/types';

const Next = styled(Button)`
  border: 0;
  padding: 0;
  background: none;
  text-decoration: underline;
  text-underline-offset: var(--s3);
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  @media (pointer: coarse) {
    min-height: var(--target);
  }
`;

interface LoadSwitchProps {
  states: readonly StateView[];
  load: number;
  onLoad: (load: number) => void;
}
export function LoadSwitch({ states, load, onLoad }: LoadSwitchProps) {
  const next = (load + 1) % states.length;
  return (
    <Next
      aria-label={`Load state: ${states[load]?.name ?? ''}. Show ${states[next]?.name ?? ''}`}
      onPress={() => onLoad(next)}
    >
      {states[load]?.name}
    </Next>
  );
}
