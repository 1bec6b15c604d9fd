/** Which controls are pressed: each alone, or all together. */
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Solved } from '../../api/types';

const Row = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  padding: var(--s4) 0;
  button {
    border: var(--r-outline) solid var(--ink);
    margin-right: calc(0px - var(--r-outline));
    background: var(--paper);
    min-height: var(--s24);
    padding: 0 var(--s10);
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
    }
  }
`;

interface PathSwitchProps {
  paths: readonly Solved[];
  using: string;
  onPath: (path: string) => void;
}
export const PathSwitch = ({ paths, using, onPath }: PathSwitchProps) => (
  <Row
    aria-label="What is pressed"
    selectionMode="single"
    disallowEmptySelection
    selectedKeys={[using]}
    onSelectionChange={(keys) => onPath(String([...keys][0]))}
  >
    {paths.map((p) => (
      <ToggleButton key={p.name} id={p.name}>
        {p.title}
      </ToggleButton>
    ))}
  </Row>
);
