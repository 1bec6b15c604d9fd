/** The sets of stops: what was driven in each and what was changed before it; a set more, a set out. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
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
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: var(--s10);
    align-items: center;
    border-bottom: var(--r-hair) solid var(--rule);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    min-height: var(--s28);
  }
`;
const CHANGED = [
  { id: '', label: 'nothing: the first set' },
  { id: 'tyres', label: 'the tyres' },
  { id: 'brakes', label: 'the brakes' },
  { id: 'bedding', label: 'the pads are bedded' },
  { id: 'valve', label: 'the valve' },
  { id: 'load', label: 'the load' },
  { id: 'road', label: 'the road' },
];

export function SetsPanel({ prove }: { prove: Prove }) {
  const { view, sets, onEdits, job } = prove;
  const [name, setName] = useState('');
  const [setup, setSetup] = useState(job.setups[0] ?? '');
  const [changed, setChanged] = useState('');
  const [refused, setRefused] = useState('');
  const first = sets.length === 0;
  const proposed = first ? (job.setups[0] ?? '') : '';
  async function add() {
    const own = name.trim() === '' ? proposed : name.trim();
    if (own === '') return;
    const value = { name: own, setup, ...(changed === '' ? {} : { changed: [changed] }) };
    setRefused('');
    try {
      await onEdits(`stops: ${own}`, [
        first ? { path: '/proving/sets', value: [value] } : { op: 'insert', path: '/proving/sets/-', value },
      ]);
      setName('');
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
          <li key={s.name}>
            <span>
              {s.name}, {s.orphan ? 'no longer among the sets' : `driven ${s.setup}`}
              {s.changed.length > 0 && `; changed: ${s.changed.join(', ')}`}
            </span>
            {!s.orphan && (
              <PressButton
                data-plain=""
                aria-label={`Take out the set ${s.name}`}
                onPress={() =>
                  void onEdits(`set ${s.name} out`, [{ op: 'remove', path: `/proving/sets/${s.at}` }]).catch(
                    () => undefined,
                  )
                }
              >
                out
              </PressButton>
            )}
          </li>
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
        <Choose label="changed since the set before" value={changed} options={CHANGED} onChange={setChanged} />
        <PressButton type="submit">Add the set</PressButton>
      </form>
      {refused !== '' && <p role="alert">{refused}</p>}
    </Box>
  );
}
