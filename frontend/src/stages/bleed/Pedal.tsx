/** Why a pedal is long: two pushes or more on a scale, and what pumping does to it. The verdict says when it cannot tell. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { usePumped, usePushes } from '../../api/bleed';
import type { ToldView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import type { Bleed } from './useBleed';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s6);
  }
  .row {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 148px)) minmax(0, 1fr);
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .three {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  input {
    width: 100%;
  }
  .said {
    display: flex;
    gap: var(--s6);
  }
  .said svg {
    flex: none;
  }
  .press {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s16);
    align-items: center;
  }
`;
const MOST = 8;

function Told({ told, error }: { told: ToldView | undefined; error: Error | null }) {
  if (error) return <p role="alert">{error.message}</p>;
  if (!told) return null;
  return (
    <p className="said" role="status">
      <Mark state={told.level} size={18} />
      <span>
        <b>{inChosenUnits(told.sentence)}</b> {inChosenUnits(told.more)} {inChosenUnits(told.figures)}
      </span>
    </p>
  );
}

interface Push {
  force: string;
  travel: string;
}
const EMPTY: Push = { force: '', travel: '' };
function Pushes({ bleed, system }: { bleed: Bleed; system: string }) {
  const ask = usePushes(bleed.job.id);
  const [pushes, setPushes] = useState<readonly Push[]>([EMPTY, EMPTY]);
  const put = (at: number, change: Partial<Push>) =>
    setPushes(pushes.map((p, n) => (n === at ? { ...p, ...change } : p)));
  const full = pushes.filter((p) => p.force.trim() !== '' && p.travel.trim() !== '');
  return (
    <form
      aria-label="Pushes on a scale"
      onSubmit={(event) => {
        event.preventDefault();
        ask.mutate({ setup: bleed.view.setup, system, pushes: [...full] });
      }}
    >
      <p className="quiet">
        One light push, 1 to 2 kg on the scale, one hard, 30 kg. The ruler from rest, free play in it.
      </p>
      {pushes.map((push, n) => (
        <div className="row" key={n}>
          <PlainField value={push.force} onChange={(force) => put(n, { force })}>
            <Label>scale, push {n + 1}</Label>
            <Input placeholder={n === 0 ? '1.5 kg' : '30 kg'} autoComplete="off" inputMode="decimal" />
          </PlainField>
          <PlainField value={push.travel} onChange={(travel) => put(n, { travel })}>
            <Label>ruler, push {n + 1}</Label>
            <Input placeholder={n === 0 ? '52 mm' : '88 mm'} autoComplete="off" />
          </PlainField>
        </div>
      ))}
      <div className="press">
        <PressButton type="submit" data-first="" isDisabled={full.length < 2 || ask.isPending}>
          What do they tell?
        </PressButton>
        {pushes.length < MOST && (
          <PressButton data-plain="" onPress={() => setPushes([...pushes, EMPTY])}>
            one push more
          </PressButton>
        )}
      </div>
      <Told told={ask.data} error={ask.error} />
    </form>
  );
}

function Pumped({ bleed, system }: { bleed: Bleed; system: string }) {
  const ask = usePumped(bleed.job.id);
  const [typed, setTyped] = useState({ first: '', third: '', force: '', hard_force: '', hard_travel: '' });
  const [drive, setDrive] = useState(false);
  const field = (key: keyof typeof typed, label: string, hint: string) => (
    <PlainField value={typed[key]} onChange={(text) => setTyped({ ...typed, [key]: text })}>
      <Label>{label}</Label>
      <Input placeholder={hint} autoComplete="off" />
    </PlainField>
  );
  return (
    <form
      aria-label="A pumped pedal"
      onSubmit={(event) => {
        event.preventDefault();
        ask.mutate({ setup: bleed.view.setup, system, after_drive: drive, ...typed });
      }}
    >
      <h3>Does it come up by pumping?</h3>
      <div className="three">
        {field('first', 'ruler, first push', '88 mm')}
        {field('third', 'ruler, third quick push', '71 mm')}
        {field('force', 'pushed with', '20 kg')}
        {field('hard_force', 'then hard, with', '35 kg')}
        {field('hard_travel', 'ruler, hard', '80 mm')}
      </div>
      <Tick on={drive} onChange={setDrive}>
        it came after a drive
      </Tick>
      <div className="press">
        <PressButton
          type="submit"
          data-first=""
          isDisabled={typed.first.trim() === '' || typed.third.trim() === '' || ask.isPending}
        >
          What does that tell?
        </PressButton>
      </div>
      <Told told={ask.data} error={ask.error} />
    </form>
  );
}

export function Pedal({ bleed }: { bleed: Bleed }) {
  const systems = bleed.view.schools.map((s) => s.system);
  const [chosen, setChosen] = useState('');
  const system = systems.includes(chosen) ? chosen : (systems[0] ?? '');
  if (bleed.view.stand.needs > 0) return <p>Once the setup is complete a pedal can be told from its parts.</p>;
  return (
    <Box>
      {systems.length > 1 && (
        <Choose
          label="which control"
          value={system}
          options={systems.map((id) => ({ id, label: id }))}
          onChange={setChosen}
        />
      )}
      <Pushes bleed={bleed} system={system} />
      <Pumped bleed={bleed} system={system} />
    </Box>
  );
}
