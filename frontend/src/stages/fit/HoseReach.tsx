/** How long a hose must be, from three strings laid along its way. */
import styled from 'styled-components';
import type { HoseView } from '../../api/types';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';

import type { Fit } from './useFit';
import { lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  gap: var(--s4);
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
    gap: var(--s4) var(--s14);
  }
  .said svg {
    vertical-align: var(--mark-drop);
    margin-right: var(--s6);
  }
`;
export function HoseReach({ hose, fit }: { hose: HoseView; fit: Fit }) {
  const field = (label: string, key: string, value: string) => (
    <Field
      saysRefused
      key={key}
      label={label}
      name={`${hose.title} hose: ${label}`}
      value={value}
      placeholder="mm"
      onCommit={(text) => fit.onType(`${hose.title} hose: ${label}`, `${hose.path}.${key}`, text, 'mm')}
    />
  );
  return (
    <Box>
      <div className="fields">
        {field('string, full droop', 'droop_mm', hose.droop)}
        {field('string, full bump', 'bump_mm', hose.bump)}
        {field('string, full lock', 'lock_mm', hose.lock)}
        {field('its stiff ends', 'ends_mm', hose.ends)}
        {field('the hose', 'hose_mm', hose.hose)}
        {field('nearest hot part', 'heat_mm', hose.heat)}
      </div>
      <p className="said">
        {hose.level !== null && <Mark state={hose.level} size={15} />}
        {inChosenUnits(hose.sentence)}
        {hose.least_mm !== null &&
          hose.greatest_mm !== null &&
          ` ${lengthOf(hose.least_mm).v} to ${written(lengthOf(hose.greatest_mm))} does.`}
        {hose.least_mm === null &&
          hose.sentence === '' &&
          'Lay a string from joint to joint with the wheel hanging, pushed up, and at full lock.'}
      </p>
      {hose.heat_sentence !== '' && (
        <p className="said">
          {hose.heat_level !== null && <Mark state={hose.heat_level} size={15} />}
          {hose.heat_sentence}
        </p>
      )}
    </Box>
  );
}
