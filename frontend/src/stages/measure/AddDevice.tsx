/** Put a valve or switch into a line: which, where, and what it is set to. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { Devices } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { PlainField } from '../../ui/PlainField';
import { Plain } from '../../page/EntryField';
import type { Measure } from './useMeasure';

const Form = styled.form`
  flex: 1 0 100%;
  border: var(--r-outline) solid var(--ink);
  padding: var(--s10);
  display: flex;
  flex-wrap: wrap;
  gap: var(--s10) var(--s14);
  align-items: end;
`;

const BARE = /^[\d.,\s/-]+$/;

export function AddDevice({ devices, measure }: { devices: Devices; measure: Measure }) {
  const [open, setOpen] = useState(false);
  const [kind, setKind] = useState(devices.kinds[0]?.kind ?? '');
  const [target, setTarget] = useState(devices.targets[0]?.path ?? '');
  const [given, setGiven] = useState<Record<string, string>>({});
  const chosen = devices.kinds.find((k) => k.kind === kind);
  const where = devices.targets.find((t) => t.path === target);
  if (!open) return <Plain onPress={() => setOpen(true)}>+ valve or switch</Plain>;
  const unit = (field: string) =>
    field.endsWith('_kpa') ? measure.preferred.pressure : field.endsWith('_n') ? measure.preferred.force : '';
  const put = () => {
    if (!chosen || !where) return;
    const settings = Object.fromEntries(
      chosen.asks
        .filter((a) => (given[a.field] ?? '').trim())
        .map((a) => {
          const text = (given[a.field] ?? '').trim();
          return [a.field, BARE.test(text) ? `${text} ${unit(a.field)}`.trim() : text];
        }),
    );
    const device = { kind, ...settings };
    measure.onEdits(`${chosen.label} in`, [{ op: 'insert', path: `${where.path}/-`, value: device }]);
    setOpen(false);
    setGiven({});
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <Choose
        label="what"
        value={kind}
        options={devices.kinds.map((k) => ({ id: k.kind, label: k.label }))}
        onChange={setKind}
      />
      <Choose
        label="in the line to the"
        value={target}
        options={devices.targets.map((t) => ({ id: t.path, label: t.label }))}
        onChange={setTarget}
      />
      {chosen?.asks.map((ask) => (
        <PlainField
          key={ask.field}
          value={given[ask.field] ?? ''}
          onChange={(text) => setGiven({ ...given, [ask.field]: text })}
        >
          <Label>
            {ask.label}
            {unit(ask.field) ? `, ${unit(ask.field)}` : ''}
          </Label>
          <Input autoComplete="off" />
        </PlainField>
      ))}
      <Plain type="submit">Put in</Plain>
      <Plain onPress={() => setOpen(false)}>Leave</Plain>
    </Form>
  );
}
