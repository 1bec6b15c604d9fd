/** One unit of a few, as a row of buttons. */
import { ToggleButton } from 'react-aria-components';
import { prefer, SHOWN, UNITS, usePreferred, type Quantity } from '../units/preference';
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
