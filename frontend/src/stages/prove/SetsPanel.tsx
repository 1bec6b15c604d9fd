/** The sets of stops: what was driven in each and what was changed before it; a set more, a set otherwise, a set out. */
import { useState } from 'react';
import { Input, Label, ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import type { StopSetView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { ToggleRow } from '../../ui/ToggleRow';
import type { Prove } from './useProve';

const Box = styled.div`
  display: grid;
  gap: var(--s8);
  form,
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  form > :first-child > input {
    width: 176px; /* a name, not a figure */
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  .presses {
    display: flex;
    flex: none;
    gap: var(--s4);
  }
  .changed {
    display: grid;
    gap: var(--s4);
    flex-basis: 100%;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: var(--s6) var(--s10);
    align-items: center;
    border-bottom: var(--r-hair) solid var(--rule);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    min-height: var(--s28);
  }
`;
const CHANGED = [
  { id: 'tyres', label: 'tyres' },
  { id: 'brakes', label: 'brakes' },
  { id: 'bedding', label: 'pads bedded' },
  { id: 'valve', label: 'valve' },
  { id: 'load', label: 'load' },
  { id: 'road', label: 'road' },
];
const SAID = Object.fromEntries(CHANGED.map((c) => [c.id, c.label]));

interface ChangedProps {
  of: string;
  value: readonly string[];
  onChange: (value: string[]) => void;
}
/** What was changed since the set before: none, one or several. */
const Changed = ({ of, value, onChange }: ChangedProps) => (
  <div className="changed">
    changed since the set before
    <ToggleRow
      aria-label={`Changed before ${of}`}
      selectionMode="multiple"
      selectedKeys={value}
      onSelectionChange={(chosen) => onChange(CHANGED.map((c) => c.id).filter((id) => new Set(chosen).has(id)))}
    >
      {CHANGED.map((c) => (
        <ToggleButton key={c.id} id={c.id}>
          {c.label}
        </ToggleButton>
      ))}
    </ToggleRow>
  </div>
);

interface PressedProps {
  controls: readonly string[] | undefined;
  value: string;
  onChange: (control: string) => void;
}
/** With which of several controls it is stopped; nothing to choose where there is one. */
const Pressed = ({ controls, value, onChange }: PressedProps) =>
  controls === undefined ? null : (
    <Choose
      label="stopped with"
      value={value}
      options={[{ id: '', label: 'all together' }, ...controls.map((name) => ({ id: name, label: name }))]}
      onChange={onChange}
    />
  );

/** One set, and what can be changed of it. */
function OneSet({ own, prove }: { own: StopSetView; prove: Prove }) {
  const [open, setOpen] = useState(false);
  const { onEdits, job, view } = prove;
  const root = `/proving/sets/${own.at}`;
  const quietly = (label: string, edits: Parameters<Prove['onEdits']>[1]) =>
    void onEdits(label, edits).catch(() => undefined);
  return (
    <li>
      <span>
        {own.name}, {own.orphan ? 'no longer among the sets' : `driven ${own.setup}`}
        {own.pressed !== '' && `; stopped with ${own.pressed}`}
        {own.changed.length > 0 && `; changed: ${own.changed.map((c) => SAID[c]).join(', ')}`}
        {own.row_gap !== '' && `; one stop after another, ${own.row_gap} between`}
      </span>
      {!own.orphan && (
        <span className="presses">
          <PressButton
            data-plain=""
            aria-label={`Change the set ${own.name}`}
            aria-expanded={open}
            onPress={() => setOpen(!open)}
          >
            change
          </PressButton>
          <PressButton
            data-plain=""
            aria-label={`Take out the set ${own.name}`}
            onPress={() => quietly(`set ${own.name} out`, [{ op: 'remove', path: root }])}
          >
            out
          </PressButton>
        </span>
      )}
      {open && (
        <>
          <Changed
            of={own.name}
            value={own.changed}
            onChange={(value) => quietly(`changed before ${own.name}`, [{ path: `${root}/changed`, value }])}
          />
          <div className="fields">
            <Choose
              label="what was driven"
              value={own.setup}
              options={job.setups.map((s) => ({ id: s, label: s }))}
              onChange={(value) => quietly(`driven in ${own.name}`, [{ path: `${root}/setup`, value }])}
            />
            <Pressed
              controls={view.controls[own.setup]}
              value={own.pressed}
              onChange={(control) =>
                quietly(`stopped with in ${own.name}`, [
                  control === ''
                    ? { op: 'remove', path: `${root}/pressed` }
                    : { path: `${root}/pressed`, value: control },
                ])
              }
            />
            <Field
              saysRefused
              label="a row: time between stops"
              value={own.row_gap}
              placeholder="each stop cooled: no row"
              onCommit={(text) =>
                onEdits(`time between the stops of ${own.name}`, [{ path: `${root}/row_gap_s`, text }])
              }
            />
          </div>
        </>
      )}
    </li>
  );
}

export function SetsPanel({ prove }: { prove: Prove }) {
  const { view, sets, onEdits, job } = prove;
  const [name, setName] = useState('');
  const [setup, setSetup] = useState(job.setups[0] ?? '');
  const [pressed, setPressed] = useState('');
  const [changed, setChanged] = useState<string[]>([]);
  const [refused, setRefused] = useState('');
  const first = sets.length === 0;
  const proposed = first ? (job.setups[0] ?? '') : '';
  async function add() {
    const own = name.trim() === '' ? proposed : name.trim();
    if (own === '') return;
    const with_ = view.controls[setup]?.includes(pressed) ? { pressed } : {};
    const value = { name: own, setup, ...with_, ...(changed.length === 0 ? {} : { changed }) };
    setRefused('');
    try {
      await onEdits(`stops: ${own}`, [{ op: 'insert', path: '/proving/sets/-', value }]);
      setName('');
      setChanged([]);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <Box>
      <div className="fields">
        <Field
          saysRefused
          label="stops from"
          value={view.nominal}
          onCommit={(text) => onEdits('speed of the stops', [{ path: '/proving/nominal_kmh', text }])}
        />
        <Field
          saysRefused
          label="gain looked for"
          value={view.wanted}
          placeholder="as predicted"
          onCommit={(text) => onEdits('gain looked for', [{ path: '/proving/wanted_m', text }])}
        />
        {view.castering && (
          <Field
            saysRefused
            label="radius of gyration, for a pull"
            value={view.gyration}
            placeholder="not known"
            onCommit={(text) => onEdits('radius of gyration', [{ path: '/proving/radius_of_gyration_mm', text }])}
          />
        )}
      </div>
      <ul aria-label="Sets of stops">
        {view.sets.map((s) => (
          <OneSet key={s.name} own={s} prove={prove} />
        ))}
      </ul>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <PlainField value={name} onChange={setName} maxLength={80}>
          <Label>a set more</Label>
          <Input placeholder={first ? proposed : 'plan A, bedded'} autoComplete="off" />
        </PlainField>
        <Choose
          label="what is driven"
          value={setup}
          options={job.setups.map((s) => ({ id: s, label: s }))}
          onChange={setSetup}
        />
        <Pressed controls={view.controls[setup]} value={pressed} onChange={setPressed} />
        {!first && <Changed of="it" value={changed} onChange={setChanged} />}
        <PressButton type="submit">Add the set</PressButton>
      </form>
      {refused !== '' && <p role="alert">{refused}</p>}
    </Box>
  );
}
