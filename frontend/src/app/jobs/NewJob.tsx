/** An empty job: what kind of vehicle it is, and its name. */
import { useState } from 'react';
import { Button, Input, Label, Radio, RadioGroup, TextField } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useNewJob } from '../../api/jobs';
import type { Layout } from '../../api/types';
import { Line, Path, Ring } from '../../drawings/ink';

const Form = styled.form`
  display: grid;
  gap: var(--s12);
  align-content: start;
  h2 {
    border-bottom: var(--r-hair) solid var(--ink);
    padding-bottom: var(--s4);
  }
  .react-aria-Label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  input:not([type='radio']) {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    width: 100%;
    min-height: var(--target);
    padding: 0 var(--s8);
    font: var(--w-strong) var(--t-figure) / 1 var(--letter);
  }
  .kinds {
    display: grid;
  }
  .kind {
    display: grid;
    grid-template-columns: 68px minmax(0, 1fr);
    align-items: center;
    min-height: 52px;
    border-bottom: var(--r-hair) solid var(--rule);
    cursor: pointer;
    padding-right: var(--s6);
  }
  .kind b {
    display: block;
    font: var(--w-strong) var(--t-name) / var(--tight) var(--letter);
  }
  .kind span {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  .kind[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  .kind[data-selected] span {
    color: var(--paper);
  }
  .kind[data-selected] * {
    stroke: var(--paper);
  }
  .kind[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
    outline-offset: var(--s2);
  }
  .kind[data-selected][data-focus-visible] {
    outline-color: var(--plan);
  }
  > button {
    border: var(--r-heavy) solid var(--ink);
    background: none;
    min-height: var(--target);
    font: var(--w-strong) var(--t-head) / var(--one) var(--text);
  }
  > button[data-disabled] {
    color: var(--ink-2);
    border-style: dashed;
  }
  [role='alert'] {
    color: var(--danger);
    font-weight: var(--w-strong);
  }
`;

type Icon = 'car' | 'bike' | 'air' | 'tail' | 'trials';
const SHAPES: Record<Icon, { wheels: readonly (readonly [number, number])[]; d: string }> = {
  car: {
    wheels: [
      [14, 7],
      [42, 7],
    ],
    d: 'M6,24L3,24L3,16L14,13L20,6L42,6L54,15L54,24L50,24M22,24L34,24',
  },
  bike: {
    wheels: [
      [12, 9],
      [46, 9],
    ],
    d: 'M12,21L20,9L26,8M20,11L34,10L46,21M24,21L34,21L36,12',
  },
  air: {
    wheels: [
      [18, 4],
      [30, 4],
    ],
    d: 'M4,18L8,13L22,11L26,6L36,6L40,11L54,12L57,4L51,4L48,11M4,18L22,22L40,21L54,14M5,9L5,27',
  },
  tail: {
    wheels: [
      [17, 4],
      [53, 2],
    ],
    d: 'M4,14L8,9L21,8L25,4L35,4L40,10L53,18L57,12L52,12L49,15M4,14L8,18L22,20L40,22L54,22L53,18M5,5L5,23M16,22L19,20M53,26L53,22',
  },
  trials: {
    wheels: [
      [12, 6],
      [44, 9],
    ],
    d: 'M4,22L8,14L26,15L30,8L40,9L52,14L53,22M30,22L18,22M33,22L36,12M38,22L41,12',
  },
};
const Small = ({ icon }: { icon: Icon }) => (
  <svg width="58" height="34" aria-hidden="true">
    {SHAPES[icon].wheels.map(([x, r]) => (
      <Ring key={x} x={x} y={30 - r} r={r} as="thin" />
    ))}
    <Path d={SHAPES[icon].d} as="thin" />
    <Line a={[0, 31]} b={[58, 31]} />
  </svg>
);

const LAYOUTS: readonly { id: Layout; icon: Icon; name: string; note: string }[] = [
  { id: 'car_front_rear', icon: 'car', name: 'Car or truck', note: 'one pedal, front and rear circuits' },
  { id: 'car_diagonal', icon: 'car', name: 'Car, diagonal', note: 'each circuit one front and one rear wheel' },
  { id: 'car_twin', icon: 'car', name: 'Car, balance bar', note: 'two cylinders side by side' },
  { id: 'motorcycle', icon: 'bike', name: 'Motorcycle', note: 'hand lever and foot pedal' },
  {
    id: 'aircraft_nose_wheel',
    icon: 'air',
    name: 'Light aircraft, nose wheel',
    note: 'left and right, a toe pedal each',
  },
  {
    id: 'aircraft_tail_wheel',
    icon: 'tail',
    name: 'Light aircraft, tail wheel',
    note: 'left and right, a toe pedal each',
  },
  { id: 'trials_car', icon: 'trials', name: 'Trials car', note: 'a pedal, and a lever for each rear wheel' },
];

export function NewJob() {
  const begin = useNewJob();
  const go = useNavigate();
  const [name, setName] = useState('');
  const [layout, setLayout] = useState<Layout>('car_front_rear');
  const start = () =>
    begin.mutate({ name: name.trim(), layout }, { onSuccess: (job) => void go(`/jobs/${job.id}/measure`) });
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) start();
      }}
    >
      <h2>New job</h2>
      <TextField value={name} onChange={setName} maxLength={80}>
        <Label>name of the vehicle or the job</Label>
        <Input autoComplete="off" placeholder="estate, rear discs" />
      </TextField>
      <RadioGroup value={layout} onChange={(value) => setLayout(value as Layout)} className="kinds">
        <Label>what it is</Label>
        {LAYOUTS.map((l) => (
          <Radio key={l.id} value={l.id} className="kind">
            <Small icon={l.icon} />
            <div>
              <b>{l.name}</b>
              <span>{l.note}</span>
            </div>
          </Radio>
        ))}
      </RadioGroup>
      {begin.isError && <p role="alert">{begin.error.message}</p>}
      <Button type="submit" isDisabled={!name.trim() || begin.isPending}>
        Begin, tape in hand
      </Button>
    </Form>
  );
}
