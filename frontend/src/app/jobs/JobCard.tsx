/** One job on the wall: its vehicle to the wall's scale, its stages, its push and what is worst of it. */
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCard, useStages, useWall } from '../../api/jobs';
import type { Card, JobLine, Sketch, StageState } from '../../api/types';
import { Ground, Path, Words } from '../../drawings/ink';
import { usualWheelbase, VehicleSide } from '../../drawings/vehicle';
import { Mark } from '../../ui/Mark';
import { force, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';
import { counted, decel } from '../../units/format';

const Sheet = styled.li`
  border: var(--r-heavy) solid var(--ink);
  display: grid;
  grid-template-rows: auto auto auto auto 1fr auto;
  min-width: 0;
  > * {
    padding: 0 var(--s14);
    min-width: 0;
  }
  .title {
    padding-top: var(--s12);
    min-height: 66px;
  }
  h2,
  input {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  h2 a {
    color: inherit;
    text-decoration: none;
  }
  h2 a:hover {
    text-decoration: underline;
  }
  input {
    width: 100%;
    border: var(--r-heavy) solid var(--plan);
    background: var(--paper);
    color: var(--plan);
    min-height: var(--s32);
  }
  p {
    color: var(--ink-2);
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  .worst {
    min-height: 58px;
    border-top: var(--r-hair) solid var(--ink);
    margin: var(--s4) var(--s14) 0;
    padding: var(--s6) 0 var(--s10);
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: var(--s6);
    align-content: start;
    color: var(--ink);
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s14);
    border-top: var(--r-hair) solid var(--ink);
  }
  .tools a,
  .tools button {
    color: inherit;
    background: none;
    border: 0;
    padding: 0;
    min-height: var(--s28);
    display: flex;
    align-items: center;
    text-decoration: underline;
    text-underline-offset: var(--s3);
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
  }
  .tools a:first-child {
    font-weight: var(--w-strong);
  }
  @media (pointer: coarse) {
    h2 a {
      display: flex;
      align-items: center;
      min-height: var(--target);
    }
    .tools a,
    .tools button {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
`;
const Strip = styled.ol`
  min-height: 28px;
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  li {
    border-top: var(--r-hair) solid var(--ink);
    border-bottom: var(--r-hair) solid var(--ink);
    border-left: var(--r-hair) solid var(--rule);
    min-height: 26px;
    display: grid;
    place-items: center;
  }
  li:first-child {
    border-left: 0;
  }
`;
const Drawing = styled.svg`
  width: 100%;
  height: auto;
`;

const SCALE = 0.075; // px/mm: every vehicle on the wall to one scale, but for one that would not go on its card
const WIDEST = { car: 200, truck: 200, motorcycle: 200, nose: 128, tail: 196 }; // px between the axles
const scaleOf = ({ kind, tail, wheelbase_mm }: Sketch) =>
  Math.min(
    SCALE,
    WIDEST[kind !== 'aircraft' ? kind : tail ? 'tail' : 'nose'] / (wheelbase_mm ?? usualWheelbase(kind, tail)),
  );
export const OnTheWall = ({ sketch }: { sketch: Sketch }) => (
  <Drawing viewBox="0 0 310 126" aria-hidden="true">
    <VehicleSide
      kind={sketch.kind}
      tail={sketch.tail}
      wheelbase={sketch.wheelbase_mm}
      height={sketch.cg_height_mm}
      share={sketch.front_share}
      x={sketch.kind === 'aircraft' ? 76 : 66}
      y={118}
      s={scaleOf(sketch)}
    />
    <Ground x1={2} x2={308} y={118} />
  </Drawing>
);

/** What is still asked for keeps its room: what stands below must not move away under a finger. */
const Room = ({ height }: { height: number }) => <Drawing viewBox={`0 0 310 ${height}`} aria-hidden="true" />;

const STATES = { empty: 'not begun', begun: 'begun', doubt: 'in doubt', ready: 'ready', later: 'later' } as const;
/** The stages in their order as marks; each says its words. */
function Stages({ stages }: { stages: readonly StageState[] }) {
  const open = stages.find((s) => s.state === 'begun' || s.state === 'doubt');
  return (
    <div>
      <Strip aria-label="Stages">
        {stages.map((s) => (
          <li key={s.title} title={`${s.title}: ${s.words}`}>
            <Mark state={s.state === 'later' ? 'empty' : s.state} size={14} />
            <span className="visually-hidden">
              {s.title}: {STATES[s.state]}
            </span>
          </li>
        ))}
      </Strip>
      <p>{open ? `${open.title}: ${open.words}` : '\u00a0'}</p>
    </div>
  );
}

/** The push and the stop it makes, the line split as front and rear share it. */
function Push({ card }: { card: Card }) {
  if (card.push_n === null || card.decel_g === null)
    return (
      <p>
        {card.to_go > 0
          ? `${counted(card.to_go, 'entry', 'entries')} to go before the first push.`
          : 'No push gives the wanted stop.'}
      </p>
    );
  const share = card.front_share;
  const both = share !== null && share > 0.001 && share < 0.999;
  return (
    <Drawing
      viewBox="0 0 282 62"
      role="img"
      aria-label={`${written(force(card.push_n))} for ${decel(card.decel_g)} g, ${card.setup}`}
    >
      <Words x={0} y={18} as="figure">
        {written(force(card.push_n))}
      </Words>
      <Words x={282} y={18} as="figure" at="end">
        {decel(card.decel_g)} g
      </Words>
      <Path d="M0,34L80,34C96,34 96,24 112,24L170,24C186,24 186,34 202,34L270,34" as="plan-line sign" />
      {both && <Path d="M80,34C96,34 96,44 112,44L170,44C186,44 186,34 202,34" as="plan-line" />}
      <Path d="M282,34L270,29L270,39Z" as="plan-area" />
      {both && (
        <Words x={141} y={39} as="label" at="middle">
          {`${Math.round(share * 100)} : ${100 - Math.round(share * 100)}`}
        </Words>
      )}
      {card.was_n !== null && Math.abs(card.was_n - card.push_n) > 0.5 && (
        <Words x={0} y={58} as="label-found">
          was {written(force(card.was_n))}
        </Words>
      )}
    </Drawing>
  );
}

interface Props {
  job: JobLine;
  onAway: () => void;
}
export function JobCard({ job, onAway }: Props) {
  const card = useCard(job.id, job.revision).data;
  const stages = useStages(job.id, job.revision).data;
  const { copy, rename } = useWall();
  const [naming, setNaming] = useState(false);
  const again = useRef<HTMLButtonElement>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (naming) input.current?.select();
  }, [naming]);
  const close = () => {
    setNaming(false);
    window.setTimeout(() => again.current?.focus());
  };
  const keep = (name: string) => {
    close();
    if (name.trim() && name.trim() !== job.name) rename.mutate({ id: job.id, base: job.revision, name: name.trim() });
  };
  return (
    <Sheet
      aria-label={job.name}
      onKeyDown={(event) => {
        if (event.key === 'F2') {
          event.preventDefault();
          setNaming(true);
        }
      }}
    >
      <div className="title">
        {naming ? (
          <input
            ref={input}
            defaultValue={job.name}
            maxLength={80}
            aria-label={`New name of ${job.name}`}
            onKeyDown={(event) => {
              if (event.key === 'Enter') keep(event.currentTarget.value);
              if (event.key === 'Escape') close();
            }}
            onBlur={(event) => naming && keep(event.currentTarget.value)}
          />
        ) : (
          <h2>
            <Link to={`/jobs/${job.id}/size`}>{job.name}</Link>
          </h2>
        )}
        <p>
          {job.plans.length > 0
            ? `${counted(job.plans.length, 'plan', 'plans')}: ${job.plans.join(', ')}`
            : 'as found; no plan yet'}
        </p>
        {rename.isError && <p role="alert">{rename.error.message}</p>}
      </div>
      <div>{card ? <OnTheWall sketch={card.sketch} /> : <Room height={126} />}</div>
      <Stages stages={stages ?? []} />
      <div>{card ? <Push card={card} /> : <Room height={68} />}</div>
      {card?.worst ? (
        <p className="worst">
          <Mark state={card.worst.level} />
          <span>{inChosenUnits(card.worst.sentence)}</span>
        </p>
      ) : (
        <p className="worst">
          <span>changed {new Date(job.changed_at).toLocaleString()}</span>
        </p>
      )}
      <div className="tools">
        <Link to={`/jobs/${job.id}/size`} aria-label={`Open ${job.name}`}>
          Open
        </Link>
        <Button ref={again} onPress={() => setNaming(true)} aria-label={`Rename ${job.name}`}>
          Rename
        </Button>
        <Button onPress={() => copy.mutate(job.id)} aria-label={`Duplicate ${job.name}`}>
          Duplicate
        </Button>
        <a href={`/api/jobs/${job.id}/file`} download aria-label={`Save as a file: ${job.name}`}>
          Save as a file
        </a>
        <Button onPress={onAway} aria-label={`Remove (kept for later): ${job.name}`}>
          Remove (kept for later)
        </Button>
      </div>
    </Sheet>
  );
}
