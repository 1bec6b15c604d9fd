/** What a person puts into the work: a step of their own, another order, and what is done when something goes wrong. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { FileEdit, TroubleView, WorkStep } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Panel } from '../../ui/Panel';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import { capital } from '../../units/format';
import type { Build } from './useBuild';

const Box = styled(Panel)`
  form .row > :first-child {
    flex: 1 1 220px;
  }
  input {
    width: 100%;
  }
`;
interface OwnStep {
  words: string;
  critical: boolean;
}
/** An id that no other own step of the plan has. */
function freshId(base: string, taken: readonly { id: string }[], also: readonly string[]): string {
  const used = new Set([...taken.map((t) => t.id), ...also]);
  for (let n = 1; ; n += 1) if (!used.has(`${base}-${n}`)) return `${base}-${n}`;
}

/** The edits that put own steps before a step, in their order. */
function inserted(build: Build, before: string, base: string, steps: readonly OwnStep[]): FileEdit[] {
  const ids: string[] = [];
  const values = steps.map(({ words, critical }) => {
    const id = freshId(base, build.own, ids);
    ids.push(id);
    return { id, words, before, ...(critical ? { critical } : {}) };
  });
  const path = `${build.view.root}/build/own`;
  return values.map((value) => ({ op: 'insert', path: `${path}/-`, value }));
}

function happened(build: Build, step: WorkStep, trouble: TroubleView): FileEdit[] {
  const parts = trouble.parts.filter((p) => !build.listed.has(p.part));
  const listed = parts.map(({ part, count, shop }) => ({ part, wanted: count, shop }));
  return [
    ...inserted(build, step.key, trouble.id.replaceAll('_', '-').slice(0, 30), trouble.steps),
    ...listed.map((value) => ({ op: 'insert' as const, path: '/parts_list/-', value })),
  ];
}

/** Something went wrong here: its steps go before this one, its parts onto the list. */
function Trouble({ step, build }: { step: WorkStep; build: Build }) {
  const known = build.view.troubles.filter((t) => step.troubles.includes(t.id));
  const [chosen, setChosen] = useState('');
  const trouble = known.find((t) => t.id === chosen);
  if (known.length === 0 || step.done !== null) return null;
  return (
    <>
      <Choose
        label="it went wrong"
        value={chosen}
        options={[{ id: '', label: 'nothing' }, ...known.map((t) => ({ id: t.id, label: t.words }))]}
        onChange={setChosen}
      />
      {trouble && (
        <>
          <ol>
            {trouble.steps.map((s) => (
              <li key={s.words}>
                {s.words}
                {s.critical && ' Signed for.'}
              </li>
            ))}
          </ol>
          {trouble.parts.length > 0 && (
            <p className="quiet">
              To the parts list:{' '}
              {trouble.parts.map((p) => (p.count > 1 ? `${p.count} × ${p.part}` : p.part)).join(', ')}.
            </p>
          )}
          <PressButton
            data-first=""
            onPress={() =>
              void build
                .onJob(`${step.short}: ${trouble.words}`, happened(build, step, trouble))
                .then(() => setChosen(''))
                .catch(() => undefined)
            }
          >
            Put these steps before this one
          </PressButton>
        </>
      )}
    </>
  );
}

/** A step of a person's own before this one. */
function Add({ step, build }: { step: WorkStep; build: Build }) {
  const [words, setWords] = useState('');
  const [critical, setCritical] = useState(false);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const text = words.trim();
        if (text === '') return;
        void build
          .onJob(
            `a step of your own: ${text.slice(0, 40)}`,
            inserted(build, step.key, 'step', [{ words: text, critical }]),
          )
          .then(() => {
            setWords('');
            setCritical(false);
          })
          .catch(() => undefined);
      }}
    >
      <div className="row">
        <PlainField value={words} onChange={setWords} maxLength={200}>
          <Label>a step of your own before this one</Label>
          <Input placeholder="none" autoComplete="off" />
        </PlainField>
        {words.trim() !== '' && (
          <>
            <Tick on={critical} onChange={setCritical}>
              one that is signed for
            </Tick>
            <PressButton type="submit">Add it</PressButton>
          </>
        )}
      </div>
    </form>
  );
}

/** Earlier, later, out: within what must come before. */
function Place({ step, build }: { step: WorkStep; build: Build }) {
  if (step.done !== null) return null;
  const at = build.every.findIndex((s) => s.key === step.key);
  const turned = (by: 1 | -1) => {
    const keys = build.every.map((s) => s.key);
    const other = keys[at + by];
    if (other === undefined) return;
    keys[at + by] = step.key;
    keys[at] = other;
    void build
      .onEdits(`${step.short} ${by === 1 ? 'later' : 'earlier'}`, [{ path: '/build/order', value: keys }])
      .then(() => build.onLook(step.key))
      .catch(() => undefined);
  };
  return (
    <div className="row">
      <PressButton data-plain="" isDisabled={!step.earlier} onPress={() => turned(-1)}>
        do it earlier
      </PressButton>
      <PressButton data-plain="" isDisabled={!step.later} onPress={() => turned(1)}>
        do it later
      </PressButton>
      {step.own_at !== null && (
        <PressButton
          data-plain=""
          onPress={() =>
            void build
              .onEdits(`${capital(step.short)} left out`, [{ op: 'remove', path: `/build/own/${step.own_at}` }])
              .catch(() => undefined)
          }
        >
          leave this step out
        </PressButton>
      )}
    </div>
  );
}

export function OwnSteps({ step, build }: { step: WorkStep; build: Build }) {
  return (
    <Box className="noprint">
      <Trouble step={step} build={build} />
      <Add step={step} build={build} />
      <Place step={step} build={build} />
    </Box>
  );
}
