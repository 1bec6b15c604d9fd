/** Which setup the entries belong to: the vehicle as found, or a plan with parts of its own. */
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import type { Measure } from './useMeasure';

const Box = styled.div`
  display: grid;
  gap: var(--s4);
  p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
  }
`;

export function SetupChoice({ measure }: { measure: Measure }) {
  const setups = measure.job.setups;
  if (setups.length < 2) return null;
  const found = measure.setup === setups[0];
  return (
    <Box>
      <Choose
        label="parts of"
        value={measure.setup}
        options={setups.map((s) => ({ id: s, label: s }))}
        onChange={measure.onUse}
      />
      <p>{found ? 'Plans that had the same follow.' : 'Only this plan changes; the vehicle is the same for all.'}</p>
    </Box>
  );
}
