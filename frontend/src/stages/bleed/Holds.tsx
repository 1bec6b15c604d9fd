/** A hard push held: the ruler read again after a while says whether fluid is lost, and with a circuit plugged, where. */
import { useState } from 'react';
import { Input, Label, ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { Panel } from '../../ui/Panel';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { ToggleRow } from '../../ui/ToggleRow';
import { capital } from '../../units/format';
import type { Bleed } from './useBleed';
import { inChosenUnits } from '../../units/sentences';

const Box = styled(Panel)`
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  ul,
  .who {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  li[data-out] span,
  .who {
    color: var(--ink-2);
  }
  li[data-out] span {
    text-decoration: line-through;
  }
`;
export function Holds({ bleed }: { bleed: Bleed }) {
  const { holds } = bleed.view;
  const [plugged, setPlugged] = useState<readonly string[]>([]);
  const [first, setFirst] = useState('');
  const [last, setLast] = useState('');
  const [seconds, setSeconds] = useState('30');
  const [refused, setRefused] = useState('');
  async function keep() {
    setRefused('');
    try {
      await bleed.record('a pedal held', 'hold', {
        setup: bleed.view.setup,
        ...(plugged.length > 0 ? { plugged } : {}),
        // The first five seconds are settling: the ruler is read after them.
        times_s: ['5 s', `${seconds.trim()}${/\d$/.test(seconds.trim()) ? ' s' : ''}`],
        travels_mm: [first, last],
      });
      setFirst('');
      setLast('');
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <Box>
      <p className="quiet">
        Push hard, 40 kg on a scale. Read the ruler after 5 seconds, and again. With a circuit plugged at the cylinder
        it says where.
      </p>
      {holds.sentence !== '' && (
        <p className="said" role="status">
          <Mark state={holds.level ?? 'note'} size={18} />
          <span>{inChosenUnits(holds.sentence)}</span>
        </p>
      )}
      <ul>
        {holds.rows.map((row) => (
          <li key={row.key} data-out={row.struck !== null || undefined}>
            <span>
              {row.plugged.length > 0 ? `${row.plugged.join(' and ')} plugged: ` : ''}
              {row.readings}
              {row.kind !== '' && `; ${row.kind}`}
              {row.loss_cm3 !== null &&
                row.loss_low_cm3 !== null &&
                row.loss_high_cm3 !== null &&
                `, ${row.loss_cm3.toFixed(2)} cm³ a minute (${row.loss_low_cm3.toFixed(2)} to ${row.loss_high_cm3.toFixed(2)})`}
            </span>{' '}
            {row.struck === null && (
              <PressButton
                data-plain=""
                onPress={() => void bleed.record('a hold struck out', 'struck', { of: row.key, why: 'read wrong' })}
              >
                strike out
              </PressButton>
            )}
          </li>
        ))}
      </ul>
      <form
        className="noprint"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <PlainField value={first} onChange={setFirst}>
          <Label>ruler after 5 s</Label>
          <Input placeholder="88.6 mm" autoComplete="off" />
        </PlainField>
        <PlainField value={seconds} onChange={setSeconds}>
          <Label>seconds held</Label>
          <Input autoComplete="off" />
        </PlainField>
        <PlainField value={last} onChange={setLast}>
          <Label>ruler then</Label>
          <Input placeholder="89.0 mm" autoComplete="off" />
        </PlainField>
        {holds.circuits.length > 0 && (
          <div>
            <span className="who">plugged</span>
            <ToggleRow
              aria-label="Circuits plugged at the cylinder"
              selectionMode="multiple"
              selectedKeys={plugged}
              onSelectionChange={(chosen) => setPlugged([...chosen].map(String))}
            >
              {holds.circuits.map((c) => (
                <ToggleButton key={c} id={c}>
                  {capital(c)}
                </ToggleButton>
              ))}
            </ToggleRow>
          </div>
        )}
        <PressButton type="submit" isDisabled={first.trim() === '' || last.trim() === ''}>
          Keep this hold
        </PressButton>
      </form>
      {refused !== '' && <p role="alert">{refused}</p>}
    </Box>
  );
}
