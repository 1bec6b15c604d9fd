/** The force line of one setup of the search in figures, over the one that it would replace. */
import { useEffect } from 'react';
import styled from 'styled-components';
import { useTry } from '../../api/size';
import type { Kept, Moment, SetupView } from '../../api/types';
import { decel } from '../../units/format';
import { force, great, pressure, torque, written } from '../../units/display';
import type { Matching } from './useMatch';

const Own = styled.div`
  display: flex;
  flex-wrap: wrap;
  border-top: var(--r-hair) solid var(--ink);
  border-bottom: var(--r-hair) solid var(--ink);
  margin: var(--s6) 0;
  > div {
    flex: 1 0 auto;
    padding: var(--s3) var(--s10);
    border-left: var(--r-hair) solid var(--rule);
  }
  > div:first-child {
    border-left: 0;
    padding-left: 0;
  }
  dt {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  dd {
    margin: 0;
    white-space: nowrap;
  }
  dd:first-of-type {
    font: var(--w-strong) var(--t-figure) / var(--tight) var(--letter);
    color: var(--plan);
  }
  dd:first-of-type[data-was] {
    color: var(--ink);
  }
  dd + dd {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--letter);
    color: var(--found);
  }
`;

const Quiet = styled.div`
  flex: 1 1 420px;
  color: var(--ink-2);
`;

/** The first load state of the path that is searched: of one control alone, or of all together. */
function stateOf(setup: SetupView | undefined, control: string | null) {
  const paths = setup?.solved?.paths;
  const path = control === null ? paths?.at(-1) : paths?.find((p) => p.system === control);
  return path?.states[0];
}

function links(moment: Moment | null, load: string): [string, string][] {
  const system = Object.values(moment?.systems ?? {})[0];
  if (!moment || !system) return [];
  const stations = Object.entries(system.stations);
  const first = stations[0]?.[1];
  return [
    ['foot', written(force(moment.pedal_force_n))],
    ['rod', written(force(system.rod_force_n))],
    ['line pressure', first ? written(pressure(first.pressure_in_kpa)) : ''],
    ...stations.map(([name, s]): [string, string] => [
      name,
      `${written(pressure(s.pressure_kpa))}, ${written(torque(s.torque_per_wheel_nm))}`,
    ]),
    ['on the road', `${great(moment.front_brake_force_n).v} + ${written(great(moment.rear_brake_force_n))}`],
    ['stop, ' + load, `${decel(moment.decel_g)} g`],
  ];
}

export function Preview({ row, matching }: { row: Kept | null; matching: Matching }) {
  const { job, setup } = matching;
  const control = matching.search.control ?? null;
  const { mutate: tryOwn, data: own } = useTry(job.id);
  const { mutate, data, reset } = useTry(job.id);
  useEffect(() => tryOwn({ setup, edits: [] }), [setup, job.revision, tryOwn]);
  useEffect(() => {
    if (row === null || row.edits.length === 0) reset();
    else mutate({ setup, edits: row.edits });
  }, [row, setup, job.revision, mutate, reset]);
  const mine = row !== null && data ? data.setup : null;
  const before = stateOf(own?.setup, control);
  const load = before?.name ?? '';
  const now = links(stateOf(mine ?? own?.setup, control)?.at_stop ?? null, load);
  const was = links(before?.at_stop ?? null, load);
  if (now.length === 0) return null;
  return (
    <Own as="dl" aria-label={row === null ? `Force line, ${setup}` : 'Force line of the setup looked at'}>
      {now.map(([name, figure], i) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd data-was={mine === null || undefined}>{figure}</dd>
          <dd>{mine ? `${setup} ${was[i]?.[1] ?? ''}` : setup}</dd>
        </div>
      ))}
    </Own>
  );
}

/** All reasons for a setup when there are more than its row tells, and what to measure to be surer of it. */
export const Advice = ({ row }: { row: Kept | null }) => (
  <Quiet>
    {row && row.reasons.length > 2 && <p>{row.reasons.join('; ')}.</p>}
    {row?.doubt?.measure[0] && (
      <p>To be surer of it, measure {row.doubt.measure.map((m) => m.label.replace(': ', ', ')).join('; ')}.</p>
    )}
  </Quiet>
);
