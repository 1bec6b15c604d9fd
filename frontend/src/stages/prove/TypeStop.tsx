/** A stop typed at the roadside: three numbers first, what is not known stays unknown; then what stood around it. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import type { Prove } from './useProve';

const Box = styled.form`
  display: grid;
  gap: var(--s8);
  .three,
  .more {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(116px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
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
const NUMBERS = ['speed_kmh', 'distance_m', 'time_s', 'push_n', 'brake_on_mark_m', 'rest_mark_m', 'grade', 'headwind_m_per_s', 'heading_deg', 'offset_m', 'rotor_front_c', 'rotor_rear_c'] as const; // prettier-ignore
const WORDS = ['feel', 'surface', 'load', 'tyres', 'note'] as const;
type Key = (typeof NUMBERS)[number] | (typeof WORDS)[number] | 'valve';
type Typed = Partial<Record<Key, string>>;
const NOT_SAID = { id: '', label: 'not noted' };
const LOCKED = [NOT_SAID, { id: 'none', label: 'nothing' }, { id: 'front', label: 'front' }, { id: 'rear', label: 'rear' }, { id: 'both', label: 'both' }]; // prettier-ignore
const DIRECTION = [NOT_SAID, { id: 'out', label: 'out' }, { id: 'back', label: 'back' }];

/** What was typed, as the record has it; nothing stands for what is not known. */
function bodyOf(typed: Typed, more: Record<string, unknown>): Record<string, unknown> {
  const body: Record<string, unknown> = { ...more };
  for (const key of [...NUMBERS, ...WORDS]) {
    const text = typed[key]?.trim() ?? '';
    if (text !== '') body[key] = text;
  }
  const valve = typed.valve?.trim() ?? '';
  if (valve !== '') body['valve'] = Number(valve.replace(',', '.'));
  return body;
}

export function TypeStop({ prove, adjustable }: { prove: Prove; adjustable: boolean }) {
  const { view } = prove;
  const [set, setSet] = useState('');
  const own = view.sets.some((s) => s.name === set) ? set : (view.sets[view.sets.length - 1]?.name ?? '');
  const [typed, setTyped] = useState<Typed>({ speed_kmh: view.nominal });
  const [direction, setDirection] = useState('');
  const [locked, setLocked] = useState('');
  const [hard, setHard] = useState(false);
  const [more, setMore] = useState(false);
  const [refused, setRefused] = useState('');
  const [kept, setKept] = useState('');
  const field = (key: Key, label: string, hint = '') => (
    <PlainField value={typed[key] ?? ''} onChange={(text) => setTyped({ ...typed, [key]: text })}>
      <Label>{label}</Label>
      <Input placeholder={hint} autoComplete="off" />
    </PlainField>
  );
  async function send() {
    setRefused('');
    const body = bodyOf(typed, {
      set: own,
      ...(direction === '' ? {} : { direction }),
      ...(locked === '' ? {} : { locked }),
      ...(hard ? { as_hard: true } : {}),
    });
    try {
      await prove.record(`a stop of ${own}`, 'stop', body);
      setKept(`Kept: ${typed.distance_m ?? typed.time_s ?? ''} from ${typed.speed_kmh ?? ''}.`);
      // What stands around a stop stays for the next one.
      setTyped({ ...typed, distance_m: '', time_s: '', brake_on_mark_m: '', rest_mark_m: '', note: '' });
      setLocked('');
      setDirection(direction === 'out' ? 'back' : direction === 'back' ? 'out' : '');
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  if (view.sets.length === 0) return <p>First a set: what is driven, before anything is taken apart.</p>;
  return (
    <Box
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <div className="three">
        <Choose
          label="a stop of"
          value={own}
          options={view.sets.map((s) => ({ id: s.name, label: s.name }))}
          onChange={setSet}
        />
        {field('speed_kmh', 'from', '80 km/h')}
        {field('distance_m', 'distance', '36.4 m')}
        {field('time_s', 'time', 'not timed')}
      </div>
      <div className="three">
        <Choose label="locked" value={locked} options={LOCKED} onChange={setLocked} />
        <Choose label="direction" value={direction} options={DIRECTION} onChange={setDirection} />
        {field('push_n', 'push felt', '340 N')}
        {adjustable && field('valve', 'valve at', '')}
      </div>
      <Tick on={hard} onChange={setHard}>
        as hard as I could
      </Tick>
      {more && (
        <div className="more">
          {field('brake_on_mark_m', 'brake-on mark', 'm')}
          {field('rest_mark_m', 'rest mark', 'm')}
          {field('grade', 'slope, uphill +', '1 %')}
          {field('headwind_m_per_s', 'headwind', 'm/s')}
          {field('heading_deg', 'turned by, left +', '3 °')}
          {field('offset_m', 'off its line, left +', '0.4 m')}
          {field('rotor_front_c', 'front rotor', '°C')}
          {field('rotor_rear_c', 'rear rotor', '°C')}
          {field('feel', 'pedal', 'firm')}
          {field('surface', 'road', 'dry, level')}
          {field('load', 'load and fuel', 'driver only')}
          {field('tyres', 'tyres', '2.2 bar')}
          {field('note', 'note')}
        </div>
      )}
      <div className="press">
        <PressButton type="submit" data-go="">
          Keep this stop
        </PressButton>
        <PressButton data-plain="" aria-expanded={more} onPress={() => setMore(!more)}>
          {more ? 'less' : 'marks, slope, wind, which way it turned, temperatures, tyres'}
        </PressButton>
        <span role="status">{refused === '' ? kept : ''}</span>
      </div>
      {refused !== '' && <p role="alert">{refused}</p>}
    </Box>
  );
}
