/** The title block at the foot of the sheet: which job, which vehicle, how it stands. */
import { memo } from 'react';
import styled from 'styled-components';
import { useStoring } from '../../api/changes';
import type { Job, PathView, StateView } from '../../api/types';
import { decel, percent } from '../../units/format';
import { LoadSwitch } from './LoadSwitch';
import { dimension, lengthOf, mass, written } from '../../units/display';

const Block = styled.dl`
  display: grid;
  grid-template-columns:
    minmax(0, 2.4fr) minmax(0, 1.5fr) repeat(3, minmax(0, 0.8fr)) repeat(2, minmax(0, 1.2fr))
    repeat(2, minmax(0, 0.8fr)) minmax(0, 1fr);
  border: var(--r-outline) solid var(--ink);
  min-height: var(--row-title);
  div {
    border-left: var(--r-hair) solid var(--ink);
    padding: 0 0 0 var(--s8);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  div:first-child {
    border-left: 0;
  }
  dt {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  dd {
    margin: 0;
    font: var(--w-firm) var(--t-name) / var(--tight) var(--letter);
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** As much of a name as one line takes; all of it where a pointer rests. */
const Name = styled.dd`
  &&& {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 1;
    white-space: normal;
    word-break: break-all;
  }
`;

function Stored({ job }: { job: number }) {
  return <dd aria-live="polite">{useStoring(job) ? 'storing' : 'all changes'}</dd>;
}

interface TitleBlockProps {
  job: Job;
  solved: PathView;
  state: StateView;
  wanted: number;
  load: number;
  onLoad: (load: number) => void;
}
export const TitleBlock = memo(function TitleBlock({ job, solved, state, wanted, load, onLoad }: TitleBlockProps) {
  const tyre = solved.parts.stations[0]?.tyre ?? 'by radius';
  const wheelbase = (job.document['vehicle'] as Record<string, unknown> | undefined)?.['wheelbase_mm'];
  const { states } = solved;
  return (
    <Block>
      <div>
        <dt>Job</dt>
        <Name title={job.name}>{job.name}</Name>
      </div>
      <div>
        <dt>Loaded with</dt>
        <dd>{states.length > 1 ? <LoadSwitch states={states} load={load} onLoad={onLoad} /> : state.name}</dd>
      </div>
      <div>
        <dt>Mass</dt>
        <dd>{written(mass(state.mass_kg))}</dd>
      </div>
      <div>
        <dt>Front</dt>
        <dd>{percent(state.front_share)}</dd>
      </div>
      <div>
        <dt>Wheelbase</dt>
        <dd>{typeof wheelbase === 'number' ? written(dimension(wheelbase)) : String(wheelbase ?? '')}</dd>
      </div>
      <div>
        <dt>Centre of gravity</dt>
        <dd>{written(lengthOf(state.cg_height_mm))}</dd>
      </div>
      <div>
        <dt>Tyres</dt>
        <dd>{tyre}</dd>
      </div>
      <div>
        <dt>Grip</dt>
        <dd>{decel(state.balance.grip_front)}</dd>
      </div>
      <div>
        <dt>Compared at</dt>
        <dd>{decel(wanted)} g</dd>
      </div>
      <div>
        <dt>Stored</dt>
        <Stored job={job.id} />
      </div>
    </Block>
  );
});
