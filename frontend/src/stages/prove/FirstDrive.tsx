/** The first drive: slow, in a safe place, harder step by step; each step ticked by who drove it. */
import { useMemo } from 'react';
import styled from 'styled-components';
import { laidOver, useUnsent } from '../../api/records';
import { Mark } from '../../ui/Mark';
import { Panel } from '../../ui/Panel';
import { useSigner } from '../../ui/signer';
import { Tick } from '../../ui/Tick';
import type { Prove } from './useProve';
import { inChosenUnits } from '../../units/sentences';

const Box = styled(Panel)`
  li {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
  }
`;

export function FirstDrive({ prove }: { prove: Prove }) {
  const { first_drive: drive } = prove.view;
  const by = useSigner();
  const unsent = useUnsent(prove.job.id);
  const steps = useMemo(
    () =>
      drive.steps.map((step) => ({
        ...step,
        done: laidOver<{ key: string; by: string }>(
          step.key === null ? null : { key: step.key, by: step.by },
          unsent,
          (r) =>
            r.kind === 'driven' && r.body['setup'] === drive.setup && r.body['step'] === step.id
              ? { key: r.key, by: typeof r.body['by'] === 'string' ? r.body['by'] : '' }
              : null,
        ),
      })),
    [drive, unsent],
  );
  const turn = (id: string, on: boolean, key: string | null) =>
    on
      ? prove.record(`first drive: ${id}`, 'driven', { setup: drive.setup, step: id, ...(by === '' ? {} : { by }) })
      : prove.record(`first drive: ${id} again`, 'struck', { of: key, why: 'driven again' });
  return (
    <Box>
      {drive.gate !== '' && (
        <p className="said">
          <Mark state="caution" size={16} />
          <span>{drive.gate}</span>
        </p>
      )}
      <ol className="steps" aria-label={`First drive of ${drive.setup}`}>
        {steps.map(({ id, words, stop, done }) => (
          <li key={id}>
            <Tick on={done !== null} onChange={(on) => void turn(id, on, done?.key ?? null)}>
              <span>
                {inChosenUnits(words)}{' '}
                <span className="quiet">Ends it: {stop.charAt(0).toLowerCase() + stop.slice(1)}</span>
                {done !== null && done.by !== '' && ` Done: ${done.by}.`}
              </span>
            </Tick>
          </li>
        ))}
      </ol>
    </Box>
  );
}
