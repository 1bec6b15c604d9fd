/** Build: the work in an order that a person with one clean thumb can follow, leave and come back to. */
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { BuildView, OrderView } from '../../api/types';
import type { StageProps } from '../../page/StagePage';
import { DossierLink } from '../../page/DossierLink';
import { WorkPage } from '../../page/WorkPage';
import { Choose } from '../../ui/Choose';
import { DataTable } from '../../ui/DataTable';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { useAwake } from '../../ui/useAwake';
import { useWidth } from '../../ui/useWidth';
import { capital, percent } from '../../units/format';
import { force, written } from '../../units/display';
import { Bags } from './HowItWas';
import { Ladder } from './Order';
import { Rebuild } from './Rebuild';
import { StepCard } from './StepCard';
import { Strips } from './Strips';
import { useBuild, type Build } from './useBuild';
import { inChosenUnits } from '../../units/sentences';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  > section + section,
  .side > section + section {
    border-top: var(--r-hair) solid var(--ink);
  }
  .side {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
  }
  .tools {
    columns: 3 150px;
    margin: 0;
    padding: 0;
    list-style: none;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  .also {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  ul.named {
    list-style: none;
    margin: 0;
    padding: 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 396px;
  }
  &[data-wide] > .side + .side {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
`;
const Alarm = styled.p`
  display: flex;
  gap: var(--s8);
  align-items: center;
  padding: var(--s6) 0;
  border-bottom: var(--r-hair) solid var(--ink);
  color: var(--caution);
  && {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  svg {
    flex: none;
  }
`;

function openFor(since: string): string {
  const minutes = Math.max(0, Math.round((Date.now() - new Date(since).getTime()) / 60000));
  const at = new Date(since).toLocaleTimeString(undefined, { timeStyle: 'short' });
  if (minutes < 60) return `${at}, ${minutes} min`;
  const hours = Math.floor(minutes / 60);
  return hours < 48
    ? `${at}, ${hours} h ${minutes % 60} min`
    : `${new Date(since).toLocaleDateString(undefined, { dateStyle: 'medium' })}`;
}

function OrderSection({ build, order }: { build: Build; order: OrderView }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const [table, setTable] = useState(width < 560);
  const days = build.view.days.map((d) => d.groups.join()).join('|');
  const planned = order.best.join('|') === days;
  return (
    <section aria-label="Order of the groups" ref={ref}>
      <h2>
        What comes first
        <em>{inChosenUnits(order.sentence)}</em>
      </h2>
      {table || width < 560 ? (
        <DataTable
          caption="Half-done states"
          head={['done', `push for ${order.decel_g} g`, 'rear first', 'driven so']}
          rows={order.states.map((s) => [
            s.done.length === 0 ? 'as found' : s.done.join(' and '),
            s.push_n === null ? '' : written(force(s.push_n)),
            s.chance === null ? '' : percent(s.chance),
            s.may_drive ? 'slowly' : s.dangers.join(', '),
          ])}
        />
      ) : (
        <Ladder order={order} width={width} />
      )}
      <p className="quiet">
        {order.groups.map((g) => `${g.letter}: ${g.name} (${g.words})`).join('; ')}. One side done and the other not is
        never driven.
      </p>
      <div className="also noprint">
        {!planned && (
          <PressButton
            data-told=""
            data-first=""
            onPress={() => void build.onEdits('the groups one after the other', order.edits)}
          >
            Steps in this order: {order.best.join(', ')}
          </PressButton>
        )}
        {build.view.days.length > 1 && (
          <PressButton onPress={() => void build.onEdits('all in one go', [{ op: 'remove', path: '/build/days' }])}>
            All in one go
          </PressButton>
        )}
        {width >= 560 && (
          <PressButton data-plain="" onPress={() => setTable(!table)}>
            {table ? 'ladder' : 'table'}
          </PressButton>
        )}
      </div>
    </section>
  );
}

function Also({ build }: { build: Build }) {
  const { view } = build;
  const [kind, setKind] = useState('switch');
  const [axle, setAxle] = useState('rear');
  const wants = view.with_axle.includes(kind);
  const value = wants ? { kind, axle } : { kind };
  return (
    <section aria-label="What else is done" className="noprint">
      <h2>What else is done</h2>
      <p className="quiet">
        {view.changes.length === 0
          ? 'This setup changes nothing against as found: its steps come from a plan, made in Size or found in Match. Work on the brake as it is, new pads or fluid, is added here.'
          : `The plan changes: ${view.changes.join(', ')}.`}
      </p>
      {view.also.length > 0 && (
        <ul className="named">
          {view.also.map((a) => (
            <li key={a.at}>
              {a.words}{' '}
              <PressButton
                data-plain=""
                aria-label={`Leave out ${a.words}`}
                onPress={() =>
                  void build.onEdits(`${a.words} left out`, [{ op: 'remove', path: `/build/also/${a.at}` }])
                }
              >
                leave out
              </PressButton>
            </li>
          ))}
        </ul>
      )}
      <div className="also">
        <Choose
          label="one change more"
          value={kind}
          options={view.kinds.map((k) => ({ id: k.kind, label: k.words }))}
          onChange={setKind}
        />
        {wants && (
          <Choose
            label="axle"
            value={axle}
            options={[
              { id: 'front', label: 'front' },
              { id: 'rear', label: 'rear' },
            ]}
            onChange={setAxle}
          />
        )}
        <PressButton
          onPress={() =>
            void build.onEdits(`${view.kinds.find((k) => k.kind === kind)?.words ?? kind} too`, [
              { op: 'insert', path: '/build/also/-', value },
            ])
          }
        >
          Add its steps
        </PressButton>
        <Field
          saysRefused
          label="most your torque wrench shows"
          value={view.wrench}
          placeholder="110 N m"
          onCommit={(text) => build.onEdits('the wrench', [{ path: '/build/wrench_most_nm', text }])}
        />
      </div>
    </section>
  );
}

const hours = (minutes: number) =>
  minutes < 60 ? `${Math.round(minutes)} min` : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`;

/** Time and money as they go. */
function Sum({ view }: { view: BuildView }) {
  const { minutes, timed, evenings, here, ordered, unpriced, tools } = view.sum;
  const time =
    timed === 0
      ? 'No minutes noted yet: a step takes them when it is done.'
      : `${hours(minutes)} noted in ${timed} of ${view.done} steps done.`;
  const money = [
    `Parts that are here ${here.toFixed(0)}, ordered ${ordered.toFixed(0)}`,
    tools === null ? '' : `tools ${tools.toFixed(0)}`,
    unpriced === 0 ? '' : `${unpriced} without a price`,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <section aria-label="Time and money">
      <h2>Time and money</h2>
      <p>
        {time}
        {evenings !== null && ` Planned: ${evenings} ${evenings === 1 ? 'evening' : 'evenings'}.`} {money}.
      </p>
    </section>
  );
}

function said(view: BuildView): string {
  if (view.total === 0) return 'No steps: this setup changes nothing yet.';
  return `${view.done} of ${view.total} steps done, ${view.signed} of ${view.critical} critical ones signed`;
}

export function BuildPage({ job, view: stored, stages }: StageProps<'build'>) {
  const build = useBuild(job, stored);
  const { view, steps, onLook, every } = build;
  const awake = useAwake(view.done > 0 && view.done < view.total);
  const targets = useMemo(
    () =>
      every.map((s) => ({ id: s.key, label: `${s.short}, ${s.where}`, note: s.phase_words, go: () => onLook(s.key) })),
    [every, onLook],
  );
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="build"
      title="Build"
      setup={view.setup}
      targets={targets}
      said={said(view)}
      onSetup={build.onSetup}
      steps={steps}
      tools={<DossierLink job={job.id} setup={view.setup} />}
      cautions={`Stands on hard ground before you go under it. Torques are the maker’s, never ours. One wrong joint loses all braking. ${view.certified ? 'Aircraft: by certified persons only. ' : ''}${awake ? '' : 'The screen may go to sleep: what is done stays done.'}`}
    >
      {(wide) => {
        const card = build.step !== null && (
          <section aria-label="Now">
            <StepCard build={build} />
          </section>
        );
        return (
          <>
            {view.open_since !== null && (
              <Alarm role="status">
                <Mark state="caution" size={18} />
                Hydraulic system open since {openFor(view.open_since)}: do not drive
              </Alarm>
            )}
            <Body data-wide={(wide && build.step !== null) || undefined}>
              {!wide && card}
              <div className="side">
                {view.days.map((day) => (
                  <section key={day.key} aria-label={`Steps: ${day.title}`}>
                    <h2>
                      {view.days.length > 1 ? capital(day.title) : 'Every step'}
                      <em>
                        {day.done} of {day.steps.length}; a rivet is signed for
                      </em>
                    </h2>
                    <Strips day={day} build={build} />
                  </section>
                ))}
                {view.order !== null && <OrderSection build={build} order={view.order} />}
                <Also build={build} />
                <Sum view={view} />
                <Bags build={build} />
                <Rebuild build={build} />
                {view.days.length > 0 && (
                  <section aria-label="Tools of the whole job">
                    <h2>Tools of the whole job</h2>
                    <ul className="tools">
                      {[...new Set(view.days.flatMap((d) => d.tools))].map((tool) => (
                        <li key={tool}>{tool}</li>
                      ))}
                    </ul>
                  </section>
                )}
              </div>
              {wide && card && <div className="side">{card}</div>}
            </Body>
          </>
        );
      }}
    </WorkPage>
  );
}
