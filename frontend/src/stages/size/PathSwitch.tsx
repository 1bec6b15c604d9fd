/** Which controls are pressed: each alone, or all together. */
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import type { PathView } from '../../api/types';
import { ToggleRow } from '../../ui/ToggleRow';

const Row = styled(ToggleRow)`
  padding: var(--s4) 0;
`;

interface PathSwitchProps {
  paths: readonly PathView[];
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
