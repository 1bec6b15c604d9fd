/** What the stops and the stand test teach the model: friction, efficiency, grip, each with its interval; taken over by hand only. */
import styled from 'styled-components';
import type { CalibrationView } from '../../api/types';
import { DataTable } from '../../ui/DataTable';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { capital } from '../../units/format';
import type { Prove } from './useProve';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s6);
  & + & {
    margin-top: var(--s12);
  }
`;
const misses = (g: number | null) => (g === null ? '' : `${g.toFixed(3)} g`);

export function Calibration({ own, prove }: { own: CalibrationView; prove: Prove }) {
  return (
    <Box>
      <h3>
        {capital(own.setup)}, from {own.of} and the stand test: {own.readings} readings
      </h3>
      <DataTable
        caption={`What is learned of ${own.setup}`}
        head={['times what was entered', 'between', 'told']}
        rows={own.factors.map((f) => [
          `${f.words} × ${f.value.toFixed(2)}`,
          `${f.low.toFixed(2)} to ${f.high.toFixed(2)}`,
          f.told ? 'yes' : 'nothing new',
        ])}
      />
      <p className="quiet">
        Before, the model missed the stops by {misses(own.rms_before_g)}; so it would miss them by{' '}
        {misses(own.rms_after_g)}.
        {!own.fits && ' The readings do not agree with each other: look at them again before you take this over.'}
      </p>
      {own.edits.length > 0 && (
        <div>
          <PressButton
            className="noprint"
            onPress={() => void prove.onEdits(`taught by ${own.of}: ${own.accept}`, own.edits).catch(() => undefined)}
          >
            <Mark state={own.fits ? 'good' : 'caution'} size={14} /> Take it over as measured: {own.accept}
          </PressButton>
        </div>
      )}
    </Box>
  );
}
