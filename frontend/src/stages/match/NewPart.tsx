/** A part for the job's shelf: its name, its sizes, its price. */
import { useState } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import type { Axle } from './search';
import { Entry } from './Entry';
import { Tick } from '../../ui/Tick';
import type { Matching } from './useMatch';

const Form = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s8) var(--s10);
  align-items: end;
  border: var(--r-outline) solid var(--ink);
  padding: var(--s8);
  > p {
    flex: 1 0 100%;
    color: var(--danger);
  }
  > button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s10);
    font: var(--w-strong) var(--t-text) / var(--one) var(--text);
  }
  @media (pointer: coarse) {
    > button {
      min-height: var(--target);
    }
  }
`;
const FIELDS = {
  caliper: [
    ['pistons_mm', 'pistons, one side if fixed', '38.1 mm + 38.1 mm'],
    ['pad_height_mm', 'pad height', '44 mm'],
  ],
  rotor: [
    ['rotor_diameter_mm', 'diameter', '280 mm'],
    ['rotor_thickness_mm', 'thickness', '22 mm'],
  ],
  pad: [['friction.cold', 'friction, cold', '0.38']],
} as const;
type Kind = keyof typeof FIELDS;
const KINDS = [
  { id: 'caliper', label: 'caliper' },
  { id: 'rotor', label: 'rotor' },
  { id: 'pad', label: 'pads' },
];

interface NewPartProps {
  axle: Axle;
  matching: Matching;
  onDone: () => void;
}
export function NewPart({ axle, matching, onDone }: NewPartProps) {
  const [kind, setKind] = useState<Kind>('caliper');
  const [fixed, setFixed] = useState('floating');
  const [given, setGiven] = useState<Record<string, string>>({});
  const [refused, setRefused] = useState<string | null>(null);
  const { steps, act, search } = matching;
  const put = async () => {
    const price = given['price'] ? Number(given['price']) : undefined;
    if (price !== undefined && !(price >= 0)) {
      setRefused(`Price: ${given['price']} was given; a plain number such as 120 is allowed.`);
      return;
    }
    const part = { name: given['name'] ?? '', kind, axle, ...(price === undefined ? {} : { price }) };
    const caliper = kind === 'caliper' ? { caliper: fixed } : {};
    const value = { ...part, ...caliper, ...sizes(kind, given) };
    try {
      await steps.onStep(
        { label: `${part.name} on the shelf`, edits: [{ op: 'insert', path: '/shelf/-', value }] },
        true,
      );
      const field = kind === 'caliper' ? 'calipers' : kind === 'rotor' ? 'rotors' : 'pads';
      act({ do: 'parts', axle, kind: field, names: [...(search[axle]?.[field] ?? ['own']), part.name] });
      onDone();
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  };
  return (
    <Form role="group" aria-label="A part for the shelf">
      <Choose label="part" value={kind} options={KINDS} onChange={(id) => setKind(id as Kind)} />
      {kind === 'caliper' && (
        <Choose
          label="caliper"
          value={fixed}
          options={[
            { id: 'floating', label: 'floating' },
            { id: 'fixed', label: 'fixed' },
          ]}
          onChange={setFixed}
        />
      )}
      {[
        ['name', 'what you call it', ''] as const,
        ...FIELDS[kind],
        ['price', 'price for the axle', 'not known'] as const,
      ].map(([field, label, hint]) => (
        <Entry
          key={field}
          label={label}
          hint={hint}
          value={given[field] ?? ''}
          onTake={(text) => setGiven((now) => ({ ...now, [field]: text }))}
        />
      ))}
      {kind === 'rotor' && (
        <Tick
          on={given['rotor_vented'] === 'yes'}
          onChange={(on) => setGiven((now) => ({ ...now, rotor_vented: on ? 'yes' : '' }))}
        >
          vented
        </Tick>
      )}
      {refused && <p role="alert">{refused}</p>}
      <Button onPress={() => void put()}>Put it there</Button>
      <Button onPress={onDone}>Leave it</Button>
    </Form>
  );
}

/** What was typed, as the file has it; the server reads and checks it. */
function sizes(kind: Kind, given: Record<string, string>): Record<string, unknown> {
  const found: Record<string, unknown> = {};
  for (const [field] of FIELDS[kind]) {
    const text = given[field];
    if (!text) continue;
    if (field === 'pistons_mm') found[field] = text.split('+').map((t) => t.trim());
    else if (field === 'friction.cold') found['friction'] = { cold: text };
    else found[field] = text;
  }
  if (kind === 'rotor') found['rotor_vented'] = given['rotor_vented'] === 'yes';
  return found;
}
