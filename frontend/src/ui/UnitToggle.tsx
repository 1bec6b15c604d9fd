/** One unit of a few, as a row of buttons. */
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { prefer, SHOWN, UNITS, usePreferred, type Quantity } from '../units/preference';

const Row = styled(ToggleButtonGroup)`
  display: flex;
  button {
    border: var(--r-hair) solid var(--ink);
    margin-right: -1px;
    background: var(--paper);
    min-height: var(--s24);
    padding: 0 var(--s6);
    font: var(--w-firm) var(--t-note) / var(--one) var(--letter);
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
      padding: 0 var(--s12);
    }
  }
`;
export function UnitToggle({ of, label }: { of: Quantity; label: string }) {
  const preferred = usePreferred();
  return (
    <Row
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[preferred[of]]}
      onSelectionChange={(keys) => prefer(of, String([...keys][0]))}
    >
      {UNITS[of].map((unit) => (
        <ToggleButton key={unit} id={unit}>
          {unit}
        </ToggleButton>
      ))}
    </Row>
  );
}

/** What the figures of forces and pressures are shown in. */
export const ShownUnits = () => (
  <>
    <p>Figures are in</p>
    {(Object.keys(SHOWN) as (keyof typeof SHOWN)[]).map((of) => (
      <UnitToggle key={of} of={of} label={`Figures of ${SHOWN[of]}`} />
    ))}
  </>
);
