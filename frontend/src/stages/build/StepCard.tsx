/** One step, one thumb: what to do, with what, the caution, the maker's torque, and the signature. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { WorkStep } from '../../api/types';
import { Field } from '../../ui/Field';
import { HoldButton } from '../../ui/HoldButton';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { useFresh } from '../../ui/useFresh';
import { signsAs, useSigner } from '../../ui/signer';
import { capital, moment } from '../../units/format';
import { HowItWas } from './HowItWas';
import { OwnSteps } from './OwnSteps';
import type { Build } from './useBuild';

const Box = styled.article`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s10);
  align-content: start;
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  .caution {
    display: flex;
    gap: var(--s8);
    color: var(--caution);
    font: var(--w-strong) var(--t-head) / var(--snug) var(--text);
  }
  .caution svg {
    flex: none;
  }
  .tools {
    list-style: none;
    margin: 0;
    padding: var(--s4) 0;
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s14);
    border-top: var(--r-hair) solid var(--ink);
    border-bottom: var(--r-hair) solid var(--ink);
    font: var(--w-strong) var(--t-name) / var(--read) var(--letter);
  }
  .torque {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr);
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .torque > * {
    display: grid;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  .ways {
    display: flex;
    justify-content: space-between;
    gap: var(--s10);
  }
  .done {
    display: flex;
    gap: var(--s8);
    font: var(--w-strong) var(--t-head) / var(--snug) var(--text);
  }
  .go {
    width: 100%;
    min-height: 56px;
    font-size: var(--t-figure);
  }
`;

function Torque({ step, build }: { step: WorkStep; build: Build }) {
  const at = step.torque_at;
  /** The maker's value and where it stands are one entry: the first typed makes it. */
  const put = (name: 'torque_nm' | 'source', text: string) => {
    const label = `${capital(step.short)}: ${name === 'source' ? 'where its torque stands' : 'the maker’s torque'}`;
    // Typed again before the first is stored, or off line, it is the same torque and not another one.
    const gesture = `torque ${step.row}`.slice(-60);
    return build.steps.onStep((shown) => {
      const days = shown?.page === 'build' ? shown.days : [];
      const { torque_at: now } = days.flatMap((d) => d.steps).find((s) => s.key === step.key) ?? step;
      const row = `/build/torques/${now ?? '-'}`;
      const typed = { row: step.row, torque_nm: text, source: 'where it stands is not noted' };
      const own = { label, under: build.view.setup };
      if (now === null) return { ...own, gesture, edits: [{ op: 'insert', path: row, value: typed }] };
      if (text.trim() === '') return { ...own, edits: [{ op: 'remove', path: row }] };
      return { ...own, edits: [{ path: `${row}/${name}`, text }] };
    }, true);
  };
  return (
    <div className="torque">
      <Field
        saysRefused
        label="maker’s torque"
        value={step.torque}
        placeholder="not known"
        onCommit={(text) => put('torque_nm', text)}
      />
      {at !== null && (
        <Field
          saysRefused
          label="where it stands"
          value={step.source}
          placeholder="maker’s sheet"
          onCommit={(text) => put('source', text)}
        />
      )}
      {at === null && (
        <p className="quiet">From the part’s maker. Not known: signing says “tightened, value unknown”.</p>
      )}
    </div>
  );
}

function Undo({ step, build }: { step: WorkStep; build: Build }) {
  const [asking, setAsking] = useState(false);
  const [why, setWhy] = useState('');
  const { done } = step;
  if (done === null) return null;
  if (!asking) {
    return (
      <PressButton data-plain="" onPress={() => setAsking(true)}>
        It is not done: take it back
      </PressButton>
    );
  }
  return (
    <form
      className="row"
      onSubmit={(event) => {
        event.preventDefault();
        if (why.trim() === '') return;
        void build.record(`${step.short} taken back`, 'struck', { of: done.key, why: why.trim() }).then(() => {
          setAsking(false);
          setWhy('');
        });
      }}
    >
      <PlainField value={why} onChange={setWhy} maxLength={200}>
        <Label>why</Label>
        <Input autoComplete="off" />
      </PlainField>
      <PressButton type="submit" isDisabled={why.trim() === ''}>
        Take it back
      </PressButton>
    </form>
  );
}

function Sign({ step, build }: { step: WorkStep; build: Build }) {
  const by = useSigner();
  const [refused, setRefused] = useState('');
  const [busy, setBusy] = useState(false);
  const [minutes, setMinutes] = useState('');
  const fresh = useFresh(step.key);
  const took = Number(minutes.replace(',', '.'));
  const waits = build.every.filter((s) => step.waits.includes(s.key));
  async function sign() {
    setRefused('');
    setBusy(true);
    try {
      await build.record(`${step.short}, ${step.where}`, 'signed', {
        setup: build.view.setup,
        step: step.key,
        ...(by === '' ? {} : { by }),
        ...(step.torque === '' ? {} : { torque_nm: step.torque, source: step.source }),
        ...(minutes.trim() !== '' && took >= 0 ? { minutes: took } : {}),
      });
      build.onLook(null);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    } finally {
      setBusy(false);
    }
  }
  if (step.done !== null) {
    return (
      <>
        <p className="done">
          <Mark state="ready" size={18} />
          <span>
            Done {moment(step.done.at)}
            {step.done.by !== '' && `, ${step.done.by}`}
            {step.asks_torque &&
              (step.done.torque === '' ? ': tightened, value unknown' : `: ${step.done.torque}, ${step.done.source}`)}
          </span>
        </p>
        <Undo step={step} build={build} />
      </>
    );
  }
  const first = waits[0];
  const unclear = minutes.trim() !== '' && !(took >= 0);
  return (
    <>
      <PlainField value={minutes} onChange={setMinutes} maxLength={8} className="minutes">
        <Label>minutes it took</Label>
        <Input placeholder="not noted" autoComplete="off" inputMode="decimal" />
      </PlainField>
      {unclear && <p role="alert">Minutes: {minutes} was given; allowed is a number.</p>}
      {first && (
        <p>
          First: {first.short}, {first.where}
          {waits.length > 1 && `, and ${waits.length - 1} more`}.{' '}
          <PressButton data-plain="" onPress={() => build.onLook(first.key)}>
            Go there
          </PressButton>
        </p>
      )}
      {step.part !== '' && <p>Waits for a part: {step.part}.</p>}
      {step.critical ? (
        <>
          <PlainField value={by} onChange={signsAs} maxLength={60}>
            <Label>who signs</Label>
            <Input autoComplete="name" placeholder="initials" />
          </PlainField>
          {step.too_much && (
            <p role="alert">
              {step.torque} is more than your wrench shows ({build.view.wrench}): read the maker’s sheet again.
            </p>
          )}
          <HoldButton
            disabled={first !== undefined || step.part !== '' || by.trim() === '' || step.too_much || unclear}
            onHeld={() => void sign()}
          >
            Hold to sign
            {step.torque === '' ? (step.asks_torque ? ': tightened, value unknown' : '') : `: ${step.torque}`}
          </HoldButton>
        </>
      ) : (
        <PressButton
          className="go"
          data-go=""
          isDisabled={first !== undefined || step.part !== '' || fresh || busy || unclear}
          onPress={() => void sign()}
        >
          Done
        </PressButton>
      )}
      {refused !== '' && <p role="alert">{refused}</p>}
    </>
  );
}

function Wait({ step, build }: { step: WorkStep; build: Build }) {
  const [part, setPart] = useState('');
  if (step.done !== null) return null;
  if (step.part_at !== null) {
    return (
      <PressButton
        onPress={() =>
          void build.onEdits(`${step.part} is here`, [{ op: 'remove', path: `/build/waits/${step.part_at}` }])
        }
      >
        The part is here
      </PressButton>
    );
  }
  const value = { step: step.key, part: part.trim() };
  return (
    <form
      className="row"
      onSubmit={(event) => {
        event.preventDefault();
        if (part.trim() === '') return;
        void build
          .onEdits(`${step.short} waits for ${part.trim()}`, [{ op: 'insert', path: '/build/waits/-', value }])
          .then(() => setPart(''));
      }}
    >
      <PlainField value={part} onChange={setPart} maxLength={80}>
        <Label>it waits for a part</Label>
        <Input placeholder="nothing" autoComplete="off" />
      </PlainField>
      {part.trim() !== '' && <PressButton type="submit">Wait for it</PressButton>}
    </form>
  );
}

export function StepCard({ build }: { build: Build }) {
  const { step, every, next, before } = build;
  if (step === null) return null;
  const at = every.findIndex((s) => s.key === step.key);
  return (
    <Box aria-label="The step" key={step.key}>
      <p className="quiet">
        {step.phase_words}: step {at + 1} of {every.length}
      </p>
      <h2>
        {capital(step.where)}: {step.text}
      </h2>
      {step.caution !== '' && (
        <p className="caution">
          <Mark state="caution" size={18} />
          <span>{step.caution}</span>
        </p>
      )}
      {step.tools.length > 0 && (
        <ul className="tools" aria-label="Tools">
          {step.tools.map((tool) => (
            <li key={tool}>{tool}</li>
          ))}
        </ul>
      )}
      {step.record !== '' && <p className="quiet">Write down: {step.record}.</p>}
      {step.asks_torque && <Torque step={step} build={build} />}
      <Sign step={step} build={build} />
      <HowItWas step={step} build={build} />
      <Wait step={step} build={build} />
      <OwnSteps step={step} build={build} />
      <div className="ways noprint">
        <PressButton data-plain="" isDisabled={before === null} onPress={() => before && build.onLook(before.key)}>
          Back
        </PressButton>
        <PressButton data-plain="" onPress={() => build.onLook(null)}>
          What is due now
        </PressButton>
        <PressButton data-plain="" isDisabled={next === null} onPress={() => next && build.onLook(next.key)}>
          Next
        </PressButton>
      </div>
    </Box>
  );
}
