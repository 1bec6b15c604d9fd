/** The push and the stop wanted, as fields: type either as it is said, the other follows. How they look is their frame's. */
import { useState, type CSSProperties, type KeyboardEvent, type ReactNode } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import { readTyped } from '../../api/jobs';
import { Refusal } from '../../ui/Refusal';
import { decel as written } from '../../units/format';
import { force, perNewton } from '../../units/display';

interface LookProps {
  label: string;
  value: string;
  unit: string;
  /** Only those who hear the page are told its name. */
  quiet: boolean;
  /** The text read and taken, or refused with a sentence. */
  onRead: (text: string) => Promise<void>;
  onStep: (direction: 1 | -1) => void;
}
/** What is typed stays until it is read; refused it stays too, with the reason under it. */
function Look({ label, value, unit, quiet, onRead, onStep }: LookProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const leave = () => {
    setTyped(null);
    setRefused(null);
  };
  const commit = () => {
    if (typed === null || refused !== null) return;
    if (typed.trim() === '' || typed.trim() === value) return leave();
    // What was typed on meanwhile stays.
    const read = () => setTyped((now) => (now === typed ? null : now));
    void onRead(typed).then(read, (error: Error) => setRefused(error.message));
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'Enter') commit();
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
      <Label className={quiet ? 'visually-hidden' : 'react-aria-Label'}>{label}</Label>
      <span className="line">
        <Input
          data-field={label}
          autoComplete="off"
          spellCheck={false}
          enterKeyHint="done"
          style={{ '--chars': Math.max(3, (typed ?? value).length) } as CSSProperties}
          onKeyDown={keys}
          onBlur={commit}
          onFocus={(event) => event.target.select()}
        />
        {unit}
      </span>
      <Refusal>{refused}</Refusal>
    </TextField>
  );
}

export interface PushFieldsProps {
  push: number;
  decel: number;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
}
const STEP = 0.01;

type Framed = PushFieldsProps & { between?: ReactNode; quiet?: boolean };

export function PushFields({ push, decel, onPush, onDecel, between, quiet = false }: Framed) {
  const { unit } = force(push);
  const whole = Math.round(push * perNewton());
  return (
    <>
      <Look
        label="Push"
        value={String(whole)}
        unit={unit}
        quiet={quiet}
        onRead={(text) => readTyped('pedal_force_n', text, unit).then(onPush)}
        onStep={(direction) => onPush(Math.max(0, whole + direction) / perNewton())}
      />
      {between}
      <Look
        label="Stop wanted"
        value={written(decel)}
        unit="g"
        quiet={quiet}
        onRead={(text) => readTyped('decel_g', text, 'g').then(onDecel)}
        onStep={(direction) => onDecel(Math.max(0, Math.round(decel / STEP + direction) * STEP))}
      />
    </>
  );
}
