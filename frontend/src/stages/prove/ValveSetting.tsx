/** A rear valve's knob or a balance bar: from where to where it turns, where it stands, and the next setting written down. */
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
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  form,
  .typed {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .sized {
    display: grid;
  }
  input {
    width: 100%;
  }
  .press {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s16);
    align-items: center;
  }
`;
const WAYS = [
  { id: 'rear', label: 'the rear gets more' },
  { id: 'front', label: 'the front gets more' },
];
const number = (text: string) => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

export function ValveSetting({ prove }: { prove: Prove }) {
  const { view, onEdits } = prove;
  const { valve } = view;
  const [typed, setTyped] = useState({ least: '', most: '', now: '', unit: 'turns' });
  const [more, setMore] = useState('rear');
  const [refused, setRefused] = useState('');
  const plain = (key: keyof typeof typed, label: string, hint: string) => (
    <PlainField value={typed[key]} onChange={(text) => setTyped({ ...typed, [key]: text })} maxLength={20}>
      <Label>{label}</Label>
      <Input placeholder={hint} autoComplete="off" />
    </PlainField>
  );
  async function begin() {
    const value = { least: number(typed.least), most: number(typed.most), now: number(typed.now), more_is: more, unit: typed.unit };
    const wrong = (['least', 'most', 'now'] as const).find((key) => !Number.isFinite(value[key]));
    if (wrong) return setRefused(`${wrong}: ${typed[wrong] === '' ? 'nothing' : typed[wrong]} was given; allowed is a number.`);
    setRefused('');
    try {
      await onEdits('a valve or bar that can be set', [{ path: '/proving/adjuster', value }]);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  if (!valve) {
    return (
      <Box>
        <p>
          Has the rear a valve with a knob, or the pedal a bar? Then each stop that says where it stood and what locked
          narrows down the next setting.
        </p>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void begin();
          }}
        >
          {plain('least', 'turns from', '0')}
          {plain('most', 'to', '5')}
          {plain('now', 'it stands at', '1')}
          {plain('unit', 'counted in', 'turns')}
          <Choose label="turned up" value={more} options={WAYS} onChange={setMore} />
          <PressButton type="submit">Note it</PressButton>
        </form>
        {refused !== '' && <p role="alert">{refused}</p>}
      </Box>
    );
  }
  const put = (key: string, label: string) => (text: string) =>
    onEdits(label, [{ path: `/proving/adjuster/${key}`, text }]);
  return (
    <Box>
      <div className="typed">
        <Field className="sized" saysRefused label="it stands at" name="valve stands at" value={String(valve.now)} onCommit={put('now', 'where the valve stands')} />
        <Field className="sized" saysRefused label="turns from" name="valve turns from" value={String(valve.least)} onCommit={put('least', 'least of the valve')} />
        <Field className="sized" saysRefused label="to" name="valve turns to" value={String(valve.most)} onCommit={put('most', 'most of the valve')} />
      </div>
      <div className="press">
        {valve.next !== null && valve.next !== valve.now && (
          <PressButton
            data-first=""
            onPress={() => void onEdits(`valve set to ${valve.next}`, [{ path: '/proving/adjuster/now', value: valve.next }])}
          >
            It is set to {valve.next} {valve.unit} now
          </PressButton>
        )}
        <PressButton data-plain="" onPress={() => void onEdits('no valve to set', [{ op: 'remove', path: '/proving/adjuster' }])}>
          there is none
        </PressButton>
      </div>
    </Box>
  );
} // prettier-ignore
