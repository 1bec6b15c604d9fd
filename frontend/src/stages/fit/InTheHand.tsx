/** What do I hold: a fitting known by what can be measured of it, and what to measure to tell two apart. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { useFitting, type Hand } from '../../api/fit';
import { Choose } from '../../ui/Choose';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { usePreferred } from '../../units/preference';

const Box = styled.div`
  border-left: var(--r-press) solid var(--rule);
  padding: var(--s4) 0 var(--s6) var(--s10);
  display: grid;
  gap: var(--s6);
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s12);
    align-items: end;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    gap: var(--s8);
    align-items: center;
    min-height: var(--s28);
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
`;
const SEEN = [
  { id: '', label: 'not looked at' },
  { id: 'flare', label: 'a flared tube' },
  { id: 'cone', label: 'a cone' },
  { id: 'bulb', label: 'a bubble' },
  { id: 'cup', label: 'a hollow cone' },
  { id: 'flat', label: 'a flat face' },
  { id: 'taper', label: 'a taper thread' },
  { id: 'ring', label: 'an O-ring' },
  { id: 'chamfer', label: 'a chamfer' },
];
const TAPER = [
  { id: '', label: 'not measured' },
  { id: 'no', label: 'as thick at both ends' },
  { id: 'yes', label: 'thinner at its nose' },
];

export function InTheHand({ onTake }: { onTake: (option: string, thread: string) => void }) {
  const [hand, setHand] = useState<Hand>({
    gender: 'male',
    over_crest: '',
    pitch: '',
    tpi: '',
    seen: '',
    tapered: null,
  });
  const { length } = usePreferred();
  const { mutate, data, error, isPending } = useFitting();
  const set = (change: Partial<Hand>) => setHand({ ...hand, ...change });
  const [threads, setThreads] = useState('');
  return (
    <Box>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const metric = threads.includes('mm') || threads.includes('.');
          mutate({ ...hand, preferred: length, pitch: metric ? threads : '', tpi: metric ? '' : threads });
        }}
      >
        <Choose
          label="thread"
          value={hand.gender}
          options={[
            { id: 'male', label: 'outside (male)' },
            { id: 'female', label: 'inside (female)' },
          ]}
          onChange={(id) => set({ gender: id === 'female' ? 'female' : 'male' })}
        />
        <PlainField value={hand.over_crest} onChange={(text) => set({ over_crest: text })}>
          <Label>{hand.gender === 'male' ? 'over the crests' : 'inside the crests'}</Label>
          <Input placeholder="9.4 mm" autoComplete="off" />
        </PlainField>
        <PlainField value={threads} onChange={setThreads}>
          <Label>pitch in mm, or threads per inch</Label>
          <Input placeholder="1.0 or 24" autoComplete="off" />
        </PlainField>
        <Choose label="its nose or bottom" value={hand.seen ?? ''} options={SEEN} onChange={(seen) => set({ seen })} />
        <Choose
          label="thread from end to end"
          value={hand.tapered === null || hand.tapered === undefined ? '' : hand.tapered ? 'yes' : 'no'}
          options={TAPER}
          onChange={(id) => set({ tapered: id === '' ? null : id === 'yes' })}
        />
        <PressButton type="submit" data-first="" isDisabled={hand.over_crest.trim() === '' || isPending}>
          What is it?
        </PressButton>
      </form>
      {error && <p role="alert">{error.message}</p>}
      {data && (
        <div role="status">
          {data.candidates.length === 0 ? (
            <p>No fitting known here measures so. Measure again; photograph it and ask who sold it.</p>
          ) : (
            <ul>
              {data.candidates.slice(0, 8).map((c) => (
                <li key={`${c.option} ${c.thread}`}>
                  <PressButton onPress={() => onTake(c.option, c.thread)}>This one</PressButton>
                  {c.words}
                </li>
              ))}
            </ul>
          )}
          {data.tell_apart.length > 0 && <p className="quiet">To tell them apart: {data.tell_apart.join(' ')}</p>}
        </div>
      )}
    </Box>
  );
}
