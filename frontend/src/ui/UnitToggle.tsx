/** One unit of a few, as a row of buttons. */
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { BARE, prefer, SHOWN, UNITS, usePreferred, type Quantity } from '../units/preference';
import { ToggleRow } from './ToggleRow';

export function UnitToggle({ of, label }: { of: Quantity; label: string }) {
  const preferred = usePreferred();
  return (
    <ToggleRow
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
    </ToggleRow>
  );
}

/** What the figures of forces and pressures are shown in. */
export const DisplayUnits = () => (
  <>
    <p>Figures are in</p>
    {(Object.keys(SHOWN) as (keyof typeof SHOWN)[]).map((of) => (
      <UnitToggle key={of} of={of} label={`Figures of ${SHOWN[of]}`} />
    ))}
  </>
);

const Units = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4) var(--s6);
  > p {
    flex: 1 0 100%;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
  }
`;
/** What a bare number means, and what the figures of the other stages are in: kept on this device. */
export const UnitChoice = () => (
  <Units>
    <p>A bare number is in</p>
    {BARE.map((quantity) => (
      <UnitToggle key={quantity} of={quantity} label={`Bare numbers of ${quantity}`} />
    ))}
    <DisplayUnits />
  </Units>
);
