/** The push and the stop wanted, as fields: type either, the other follows. */
import { memo, useState, type KeyboardEvent } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { readLook } from '../../api/jobs';
import { Refusal } from '../../ui/Refusal';
import { decel as shown } from '../../units/format';
import { force, otherForce, perNewton, written } from '../../units/shown';

const Entry = styled.div`
  padding: var(--s4) var(--s10) 0 var(--s14);
  display: grid;
  grid-template-columns: 78px auto 86px;
  column-gap: var(--s10);
  align-content: start;
  border-right: var(--r-hair) solid var(--rule);
  .react-aria-Label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    white-space: nowrap;
  }
  .line {
    display: flex;
    align-items: baseline;
    border-bottom: var(--r-outline) solid var(--ink);
    color: var(--plan);
    font: var(--w-firm) var(--t-text) / var(--one) var(--letter);
  }
  .react-aria-Input {
    font: var(--w-strong) var(--t-entry) / var(--tight) var(--letter);
    color: var(--plan);
    border: 0;
    padding: 0;
    background: none;
    width: 100%;
    min-width: 0;
  }
  .react-aria-Input[data-focused] {
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: var(--s2);
  }
  .react-aria-TextField {
    position: relative;
  }
  [data-invalid] .line {
    border-color: var(--danger);
  }
  .other {
    align-self: end;
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

interface LookProps {
  label: string;
  value: string;
  unit: string;
  /** The text read and taken, or refused with a sentence. */
  onRead: (text: string) => Promise<void>;
  onStep: (direction: 1 | -1) => void;
}
/** What is typed stays until it is read; refused it stays too, with the reason under it. */
function Look({ label, value, unit, onRead, onStep }: LookProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const leave = () => {
    setTyped(null);
    setRefused(null);
  };
  const read = () => {
    if (typed === null || refused !== null) return;
    if (typed.trim() === '' || typed.trim() === value) return leave();
    void onRead(typed).then(leave, (error: Error) => setRefused(error.message));
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'Enter') read();
    else if (event.key === 'Escape') leave();
    else if (typed === null && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      onStep(event.key === 'ArrowUp' ? 1 : -1);
    }
  };
  return (
    <TextField
      value={typed ?? value}
      isInvalid={refused !== null}
      onChange={(text) => {
        setTyped(text);
        setRefused(null);
      }}
    >
      <Label>{label}</Label>
      <span className="line">
        <Input
          autoComplete="off"
          spellCheck={false}
          enterKeyHint="done"
          inputMode="decimal"
          onKeyDown={keys}
          onBlur={read}
          onFocus={(event) => event.target.select()}
        />
        {unit}
      </span>
      <Refusal>{refused}</Refusal>
    </TextField>
  );
}

interface PushEntryProps {
  push: number;
  decel: number;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
}
const STEP = 0.01;

export const PushEntry = memo(function PushEntry({ push, decel, onPush, onDecel }: PushEntryProps) {
  const { unit } = force(push);
  const whole = Math.round(push * perNewton());
  return (
    <Entry>
      <Look
        label="Push"
        value={String(whole)}
        unit={unit}
        onRead={(text) => readLook('pedal_force_n', text, unit).then(onPush)}
        onStep={(direction) => onPush(Math.max(0, whole + direction) / perNewton())}
      />
      <span className="other">{written(otherForce(push))}</span>
      <Look
        label="Stop wanted"
        value={shown(decel)}
        unit="g"
        onRead={(text) => readLook('decel_g', text, 'g').then(onDecel)}
        onStep={(direction) => onDecel(Math.max(0, Math.round(decel / STEP + direction) * STEP))}
      />
    </Entry>
  );
});
