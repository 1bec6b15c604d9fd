/** Size before it can be followed: the line from what is known, phantoms with their fields for the rest, and what may be assumed. */
import { useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Button, type PressEvent } from 'react-aria-components';
import styled, { css } from 'styled-components';
import type { Steps } from '../../api/changes';
import type { Entry, MeasureSheet, SizeView, Step } from '../../api/types';
import { assumeStep, sameStep, typedStep } from '../../chain/entrySteps';
import { Box, Ground, Path, Tag, Words } from '../../drawings/ink';
import { onItsTail, VehicleSide } from '../../drawings/vehicle';
import { EnterContext, focusNext, type Entering } from '../../page/entering';
import { EntryField } from '../../page/EntryField';
import { Message } from '../../page/Message';
import { PlanTabs } from '../../page/PlanTabs';
import { headings } from '../../page/sheet';
import { preferredFor, usePreferred } from '../../units/preference';
import { unknown, wantedOf, type Braked, type Circuit, type Pressed, type Wanted } from './empty';
import { BrakedDrawing, PressedDrawing, ROW } from './emptyDrawings';
import { lengthOf } from '../../units/display';

const Sheet = styled.div`
  zoom: var(--zoom);
  max-width: var(--sheet-most);
  margin: 0 auto;
  padding: var(--s8) var(--s16) var(--s24);
  ${headings}
`;
const ToGo = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s6) var(--s14);
  min-height: var(--row-ctl);
  padding: var(--s4) 0;
  border-bottom: var(--r-hair) solid var(--ink);
  h1 {
    font: var(--w-strong) var(--t-entry) / var(--one) var(--letter);
    color: var(--plan);
    white-space: nowrap;
  }
  p {
    flex: 1 1 240px;
  }
  svg {
    flex: none;
    max-width: 100%;
  }
`;
const Press = styled(Button)`
  border: var(--r-outline) solid var(--ink);
  background: none;
  min-height: var(--s28);
  padding: 0 var(--s10);
  white-space: nowrap;
  font: var(--w-strong) var(--t-text) / var(--one) var(--letter);
  &[data-plan] {
    border-color: var(--plan);
    color: var(--plan);
  }
  kbd {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--letter);
    border: var(--r-hair) solid var(--ink-2);
    padding: 0 var(--s4);
    color: var(--ink-2);
  }
  @media (pointer: coarse) {
    min-height: var(--target);
    kbd {
      display: none;
    }
  }
`;
/** Names, boxes and what stands below them each in a row of their own: a box does not move when its neighbour is filled in. */
const fields = css`
  display: grid;
  row-gap: var(--s2);
  > * {
    grid-row: span 4;
    grid-template-rows: subgrid;
  }
  .name {
    align-self: end;
  }
`;
const Line = styled.section`
  border-bottom: var(--r-heavy) solid var(--ink);
  padding: var(--s6) 0 var(--s10);
  display: grid;
  gap: var(--s10);
  .circuit {
    display: grid;
    grid-template-columns: 446px minmax(0, 1fr);
  }
  .circuit > div:first-child {
    padding-right: var(--s16);
  }
  .circuit > div {
    display: grid;
    align-content: start;
    gap: var(--s10);
    min-width: 0;
  }
  /* The line that joins the ends: from the middle of the first drawing to the middle of the last, behind names and fields. */
  .brakes[data-several] article {
    display: grid;
    justify-items: start;
    &::before {
      content: '';
      grid-area: 1 / 1 / 4 / 2;
      align-self: stretch;
      width: 4px;
      margin-bottom: calc(0px - var(--s10));
      background: var(--plan-tint);
    }
    > * {
      grid-column: 1;
    }
    > h2 {
      grid-row: 1;
    }
    > svg {
      grid-row: 2;
    }
    > .fields {
      grid-row: 3;
      width: 100%;
    }
    &:first-child::before {
      grid-row: 2 / 4;
      margin-top: ${ROW / 2}px;
    }
    &:last-child::before {
      grid-row: 1 / 3;
      margin-bottom: ${ROW / 2}px;
    }
  }
  article > svg {
    max-width: 100%;
    height: auto;
  }
  @media (max-width: 359px) {
    article > svg[data-long] .hero {
      display: none; /* too small to read where it is drawn so short */
    }
  }
  h2 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  .fields {
    ${fields}
    column-gap: var(--s10);
    grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
  }
  .brakes .fields {
    grid-template-columns: 118px minmax(200px, 1fr) 118px 118px;
    max-width: 760px;
  }
  .brakes .fields[data-drum] {
    grid-template-columns: 150px 150px minmax(240px, 1fr) 118px;
  }
  @media (max-width: 1247px) {
    .circuit {
      grid-template-columns: minmax(0, 1fr);
      gap: var(--s10);
    }
    .brakes[data-several] article::before {
      display: none;
    }
    .brakes .fields,
    .brakes .fields[data-drum] {
      grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
      max-width: none;
    }
    .fields > [data-wide] {
      grid-column: 1 / -1;
    }
  }
`;
const Under = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 268px 268px minmax(0, 1.15fr);
  > section {
    padding: var(--s8) var(--s14) 0;
    min-width: 0;
  }
  > section + section {
    border-left: var(--r-hair) solid var(--rule);
  }
  > section:first-child {
    padding-left: 0;
  }
  > section > svg {
    width: 100%;
    height: auto;
  }
  .fields {
    ${fields}
    column-gap: var(--s12);
    grid-template-columns: repeat(auto-fill, minmax(112px, 1fr));
    padding: var(--s4) 0 var(--s2);
  }
  h3 {
    font: var(--w-strong) var(--t-text) / var(--snug) var(--text);
  }
  .say {
    color: var(--ink-2);
  }
  @media (max-width: 1247px) {
    grid-template-columns: minmax(0, 1fr);
    > section,
    > section + section {
      border-left: 0;
      border-bottom: var(--r-hair) solid var(--rule);
      padding: var(--s10) 0;
    }
    > section > svg {
      max-width: 420px;
    }
  }
  @media (max-width: 719px) {
    > section[data-wants] {
      display: none;
    }
  }
`;

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** A square for each entry: filled when known, dashed where a usual value may stand in. */
function Squares({ wanted }: { wanted: Wanted }) {
  const known = wanted.all.filter((e) => !unknown(e)).length;
  const open = wanted.all.filter(unknown);
  const assumable = open.filter((e) => e.stand_in).length;
  const n = wanted.all.length;
  return (
    <svg
      width={n * 16}
      height={18}
      viewBox={`0 0 ${n * 16} 18`}
      role="img"
      aria-label={`${known} known, ${open.length - assumable} to measure, ${assumable} may be assumed`}
    >
      {wanted.all.map((e, i) => (
        <Box
          key={e.path}
          x={1 + i * 16}
          y={3}
          w={12}
          h={12}
          as={i < known ? 'edge on' : i < n - assumable ? 'edge paper' : 'phantom paper'}
        />
      ))}
    </svg>
  );
}

const known = (entries: readonly Entry[]) => !entries.some(unknown);
const Fields = ({ entries, drum }: { entries: readonly Entry[]; drum?: boolean }) => (
  <div className="fields" data-drum={drum || undefined}>
    {entries.map((e) => (
      <EntryField key={e.path} entry={e} bare={unknown(e)} hint={e.stand_in ? `${e.stand_in.text} ?` : undefined} />
    ))}
  </div>
);

function OnePressed({ pressed }: { pressed: Pressed }) {
  const { control, entries, cylinder, twin, title } = pressed;
  return (
    <article aria-label={title}>
      <h2>{title}</h2>
      <PressedDrawing control={control} known={known(entries)} cylinderKnown={known(cylinder)} twin={twin} />
      <Fields entries={[...entries, ...cylinder]} />
    </article>
  );
}
function OneBraked({ braked }: { braked: Braked }) {
  const { title, drum, brake, rotor, tyre } = braked;
  // As a person goes round the wheel; a wide choice stands between narrow fields.
  const order = drum ? [...brake.slice(0, 1), ...rotor, ...brake.slice(1)] : [...brake].reverse().concat(rotor);
  return (
    <article aria-label={title}>
      <h2>{title}</h2>
      <BrakedDrawing drum={drum} brake={known(brake)} rotor={known(rotor)} tyre={known(tyre)} />
      <Fields entries={[...order, ...tyre]} drum={drum} />
    </article>
  );
}
const OneCircuit = ({ circuit }: { circuit: Circuit }) => (
  <div className="circuit">
    <div>
      {circuit.pressed.map((p) => (
        <OnePressed key={p.key} pressed={p} />
      ))}
    </div>
    <div className="brakes" data-several={circuit.braked.length > 1 || undefined}>
      {circuit.braked.map((b) => (
        <OneBraked key={b.key} braked={b} />
      ))}
    </div>
  </div>
);

function VehicleDrawing({ sheet, wanted }: { sheet: MeasureSheet; wanted: Wanted }) {
  const value = (key: string) => wanted.all.find((e) => e.key === key)?.value ?? null;
  const tail = onItsTail(sheet);
  const wide = { car: 186, truck: 186, motorcycle: 160, aircraft: tail ? 220 : 118 }[sheet.kind];
  return (
    <svg viewBox="0 -4 390 134" role="img" aria-label="The vehicle as far as it is known">
      <VehicleSide
        kind={sheet.kind}
        tail={tail}
        wheelbase={value('wheelbase_mm')}
        height={value('cg_height_mm')}
        share={value('front_share')}
        x={84}
        y={122}
        wide={wide}
      />
      <Ground x1={4} x2={386} y={122} />
    </svg>
  );
}

const SOME = 4; // names that an empty instrument tells
/** An instrument without its numbers: what it will show, and how much it still wants. */
function Wants({ title, note, open, x, y, d }: Record<'title' | 'note' | 'x' | 'y' | 'd', string> & { open: Entry[] }) {
  const names = [...new Set(open.map((e) => e.label))];
  const more = names.length - SOME;
  const lines = [...names.slice(0, SOME), ...(more > 0 ? [`and ${more} more`] : [])];
  return (
    <section aria-label={title} data-wants="">
      <h2>
        {title}
        <em>{note}</em>
      </h2>
      <svg viewBox="0 0 240 190" width={240} height={190} aria-hidden="true">
        <Path d="M34,8L34,166L236,166" as="phantom" />
        <Path d={d} as="phantom" />
        <Words x={4} y={14} as="label-quiet">
          {y}
        </Words>
        <Words x={236} y={184} as="label-quiet" at="end">
          {x}
        </Words>
        <Tag x={82} y={52} as="name">
          {open.length === 0 ? 'The rest is known' : `Wants ${open.length} more`}
        </Tag>
        {lines.map((line, i) => (
          <Tag key={line} x={82} y={72 + i * 17}>
            {line}
          </Tag>
        ))}
      </svg>
      <p className="visually-hidden">{names.join(', ')}</p>
    </section>
  );
}

const assumed = (wanted: Wanted) => wanted.all.filter((e) => unknown(e) && e.stand_in);
const pairsOf = (wanted: Wanted, label: string) => wanted.same.find((s) => s.label === label)?.pairs ?? [];

interface EmptyProps {
  head: ReactNode;
  view: SizeView;
  setup: string;
  sheet: MeasureSheet;
  steps: Steps;
  onUse: (setup: string) => void;
}
export function Empty({ head, view, setup, sheet, steps, onUse }: EmptyProps) {
  const wanted = useMemo(() => wantedOf(sheet), [sheet]);
  const preferred = usePreferred();
  const [here, setHere] = useState<string | null>(null);
  const { onStep } = steps;
  const entering = useMemo(
    (): Entering => ({
      here,
      pad: false,
      onHere: setHere,
      onType: (entry, text) => {
        const step = typedStep(entry, text, preferredFor(entry.unit, preferred));
        // A car's and an aircraft's wheels are alike until somebody says otherwise; a motorcycle's are not.
        const alike = entry.key === 'tyre' && sheet.kind !== 'motorcycle';
        const others = alike ? wanted.all.filter((e) => e.key === 'tyre' && e !== entry && unknown(e)) : [];
        const more = others.flatMap((e) => typedStep(e, text).edits ?? []);
        return onStep({ ...step, edits: [...(step.edits ?? []), ...more] }, true);
      },
      onChoose: (entry, value) => {
        const edits = entry.choices.find((c) => c.value === value)?.edits ?? [];
        return onStep({ label: entry.label, follow: true, edits: [...edits] });
      },
      onNext: (from) => {
        if (!focusNext(from, true)) from.blur();
      },
    }),
    [here, onStep, preferred, sheet.kind, wanted],
  );
  // What is pressed here goes once it is done: who pressed it by a key goes on at the next unknown, a thumb gets no keyboard.
  // The sheet may be drawn anew before that, by an entry that was still on its way.
  const pressedBy = useRef<Element | null>(null);
  const take = (press: PressEvent, stepOf: (wanted: Wanted) => Step) => {
    pressedBy.current = press.pointerType === 'keyboard' || press.pointerType === 'virtual' ? press.target : null;
    void onStep((shown) => {
      const last = shown?.page === 'size' ? shown.sheets[setup] : undefined;
      const step = stepOf(last ? wantedOf(last) : wanted);
      return step.edits?.length ? step : stepOf(wanted);
    }).catch(() => undefined);
  };
  useLayoutEffect(() => {
    const from = pressedBy.current;
    if (from === null || document.activeElement === from) return;
    if (!from.isConnected && document.activeElement === document.body) focusNext(document.body, true);
    pressedBy.current = null;
  }, [wanted]);
  const open = wanted.all.filter(unknown);
  const assumable = assumed(wanted);
  const brakes = wanted.circuits.flatMap((c) => c.braked.flatMap((b) => [...b.brake, ...b.rotor]));
  const pressed = wanted.circuits.flatMap((c) => c.pressed.flatMap((p) => [...p.entries, ...p.cylinder]));
  const usual = wanted.usual.flatMap((u) => u.entries);
  return (
    <EnterContext.Provider value={entering}>
      <Sheet>
        {head}
        {view.setups.length > 1 && <PlanTabs setups={view.setups} using={setup} onUse={onUse} />}
        <main>
          <ToGo>
            <h1>{open.length} to go</h1>
            <p>
              {open.length - assumable.length} to measure
              {assumable.length > 0 && `; ${assumable.length} may be assumed`}. Then the first push is drawn.
            </p>
            <Squares wanted={wanted} />
            {assumable.length > 0 && (
              <Press data-plan="" onPress={(press) => take(press, (last) => assumeStep(assumed(last)))}>
                Assume {assumable.length === 1 ? 'it' : `the ${assumable.length}`}
              </Press>
            )}
            {wanted.same.map(({ label }) => (
              <Press key={label} onPress={(press) => take(press, (last) => sameStep(label, pairsOf(last, label)))}>
                {label}
              </Press>
            ))}
            <Press onPress={() => focusNext(document.body, true)}>
              Next unknown <kbd>N</kbd>
            </Press>
          </ToGo>
          {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
          <Line aria-label="Force line, as far as it is known">
            {wanted.circuits.map((c) => (
              <OneCircuit key={c.pressed[0]?.key} circuit={c} />
            ))}
          </Line>
          <Under>
            <section aria-label="Vehicle">
              <h2>
                Vehicle<em>drawn from what is known</em>
              </h2>
              <VehicleDrawing sheet={sheet} wanted={wanted} />
              <Fields entries={wanted.vehicle} />
            </section>
            <Wants
              title="Feel"
              note="push against travel"
              open={[...pressed, ...brakes, ...usual].filter(unknown)}
              x={`pedal travel, ${lengthOf(0).unit}`}
              y="N"
              d="M44,20C66,110 116,140 226,154"
            />
            <Wants
              title="Balance"
              note="rear against front"
              open={[...brakes, ...wanted.vehicle, ...usual].filter(unknown)}
              x="front, kN"
              y="rear"
              d="M34,166C74,60 132,40 190,44L176,166"
            />
            <section aria-label="What may be assumed">
              <h2>
                What may be assumed<em>{count(usual.length, 'usual value')}, marked so</em>
              </h2>
              {wanted.usual.map(({ title, entries }) => (
                <div key={title}>
                  <h3>{title}</h3>
                  <Fields entries={entries} />
                </div>
              ))}
              <p className="say">
                Each stays dashed and is doubted by its own range; Size says which of them matters most. What you
                measure takes its place.
              </p>
            </section>
          </Under>
        </main>
      </Sheet>
    </EnterContext.Provider>
  );
}
