/** A file of a logger: its columns put right, the stops in it looked at, and those kept that a person wants. */
import { useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { useKeep, useLook, type Said } from '../../api/recordings';
import type { RecordedStop, RecordingView } from '../../api/types';
import { Line, Path, Words, poly } from '../../drawings/ink';
import { Choose } from '../../ui/Choose';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import { onRoad, pressure, speedOf, written } from '../../units/display';
import { capital, counted, decel } from '../../units/format';
import type { Prove } from './useProve';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  .column {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 84px;
    gap: var(--s4) var(--s8);
    align-items: end;
  }
  .column b {
    display: block;
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    overflow-wrap: anywhere;
  }
`;
const MANY = 10;

/** The stops of a recording, speed over way. */
function Lines({ stops, on, width = 368 }: { stops: readonly RecordedStop[]; on: readonly number[]; width?: number }) {
  const far = Math.max(1, ...stops.flatMap((s) => s.curve_m)) * 1.04;
  const fast = Math.max(1, ...stops.flatMap((s) => s.curve_kmh));
  const x = (m: number) => 34 + (m / far) * (width - 44);
  const y = (v: number) => 108 - (v / fast) * 92;
  return (
    <svg
      viewBox={`0 0 ${width} 130`}
      role="img"
      aria-label={`Speed over way: ${stops.map((s) => said(s)).join('; ')}`}
    >
      <Line a={[34, 108]} b={[width - 10, 108]} as="edge" />
      {[0, 0.5, 1].map((share) => (
        <Words key={share} x={30} y={y(fast * share) + 4} at="end">
          {Math.round(fast * share)}
        </Words>
      ))}
      {[0.25, 0.5, 0.75, 1].map((share) => (
        <Words key={share} x={x((far * share) / 1.04)} y={124} at="middle">
          {Math.round((far * share) / 1.04)} m
        </Words>
      ))}
      {stops.map((s) => (
        <Path key={s.number} d={poly(s.curve_m.map((m, i) => [x(m), y(s.curve_kmh[i] ?? 0)] as const))} as={on.includes(s.number) ? 'plan-thin' : 'found'} />
      ))}
    </svg>
  ); // prettier-ignore
}
const said = (stop: RecordedStop) =>
  stop.distance_m === null || stop.speed_kmh === null
    ? stop.reason
    : [
        `${written(onRoad(stop.distance_m))} from ${written(speedOf(stop.speed_kmh, 1))}`,
        stop.time_s === null ? '' : `in ${stop.time_s.toFixed(2)} s`,
        stop.mfdd_g === null ? '' : `MFDD ${decel(stop.mfdd_g)} g`,
        stop.front_kpa === null ? '' : `front up to ${written(pressure(stop.front_kpa))}`,
        stop.rear_kpa === null ? '' : `rear up to ${written(pressure(stop.rear_kpa))}`,
        stop.questioned ? 'speed, way and time disagree: look at the columns' : '',
        stop.speed_off ? 'more than 10 % off the nominal speed: shown, not counted' : '',
        stop.reason,
      ]
        .filter(Boolean)
        .join(', ');
const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;

interface ColumnsProps {
  view: RecordingView;
  onSay: (at: number, role: string, unit: string) => void;
}
function Columns({ view, onSay }: ColumnsProps) {
  const [all, setAll] = useState(view.needs !== '');
  const shown = view.columns.map((c, at) => ({ ...c, at })).filter((c) => all || c.role !== 'none');
  return (
    <>
      <ul aria-label="Columns">
        {shown.map((c) => (
          <li key={c.at} className="column">
            <span>
              <b>{c.head}</b>
              {c.first.filter(Boolean).join(', ')}
            </span>
            <Choose
              label="is the"
              value={c.role}
              options={view.roles.map((r) => ({ id: r.role, label: r.words }))}
              onChange={(role) => onSay(c.at, role, view.roles.find((r) => r.role === role)?.units[0] ?? '')}
            />
            {c.role !== 'none' && (
              <Choose
                label={c.guessed ? 'in? not said' : 'in'}
                value={c.unit}
                options={(view.roles.find((r) => r.role === c.role)?.units ?? []).map((u) => ({ id: u, label: u }))}
                onChange={(unit) => onSay(c.at, c.role, unit)}
              />
            )}
          </li>
        ))}
      </ul>
      {view.columns.length > shown.length || all ? (
        <PressButton data-plain="" onPress={() => setAll(!all)}>
          {all ? 'only the columns that are used' : `all ${view.columns.length} columns`}
        </PressButton>
      ) : null}
    </>
  );
}

export function Recording({ prove }: { prove: Prove }) {
  const { view } = prove;
  const look = useLook(prove.job.id);
  const { keep, simulate } = useKeep(prove.job.id);
  const [file, setFile] = useState<File | null>(null);
  const [columns, setColumns] = useState<Said>({});
  const [off, setOff] = useState<readonly number[]>([]);
  const [chosen, setChosen] = useState('');
  const stopping = useRef<AbortController | null>(null);
  const names = view.sets.map((s) => s.name);
  const set = names.includes(chosen) ? chosen : (names[names.length - 1] ?? '');
  const seen = look.data;
  const stops = seen?.stops ?? [];
  const good = stops.filter((s) => s.distance_m !== null && s.reason === '');
  const wanted = good.map((s) => s.number).filter((n) => !off.includes(n));
  function read(next: File, said: Said) {
    stopping.current?.abort();
    stopping.current = new AbortController();
    setFile(next);
    setColumns(said);
    setOff([]);
    keep.reset();
    look.mutate({ file: next, said, signal: stopping.current.signal });
  }
  if (names.length === 0) return <p>First a set: the stops of a recording go into one.</p>;
  const problem = look.error ?? keep.error ?? simulate.error;
  return (
    <Box>
      <div className="row">
        <FileTrigger
          acceptedFileTypes={['.csv', '.txt', '.tsv', '.gpx', '.nmea', '.log', 'text/csv', 'text/plain']}
          onSelect={(files) => files?.[0] && read(files[0], {})}
        >
          <PressButton>{file === null ? 'Choose a file' : 'Another file'}</PressButton>
        </FileTrigger>
        <Choose label="into the set" value={set} options={names.map((id) => ({ id, label: id }))} onChange={setChosen} />
        <PressButton data-plain="" isDisabled={simulate.isPending} onPress={() => simulate.mutate(set)}>
          simulated meter: one stop
        </PressButton>
      </div>
      {look.isPending && (
        <p role="status">
          Reading {file?.name}.{' '}
          <PressButton data-plain="" onPress={() => stopping.current?.abort()}>
            Stop
          </PressButton>
        </p>
      )}
      {problem && problem.name !== 'AbortError' && <p role="alert">{problem.message}</p>}
      {seen && !look.isPending && file && (
        <>
          <p>
            {file.name}: {counted(seen.rows, 'row', 'rows')}
            {seen.seconds !== null && `, ${clock(seen.seconds)} long, up to ${written(speedOf(seen.fastest_kmh ?? 0))}`}
            {seen.dropped > 0 && `; ${counted(seen.dropped, 'line says', 'lines say')} nothing and was left out`}.
          </p>
          {seen.needs !== '' && <p role="alert">{seen.needs}</p>}
          <Columns key={file.name} view={seen} onSay={(at, role, unit) => read(file, { ...columns, [at]: [role, unit] })} />
          {seen.needs === '' && stops.length === 0 && (
            <p>
              No stop from {written(speedOf(seen.trigger_kmh))} or more to rest is in it. Is the unit of the speed right?
            </p>
          )}
          {good.length > 0 && <Lines stops={good.slice(0, MANY)} on={wanted} />}
          <ul aria-label="Stops in the recording">
            {stops.map((s) => (
              <li key={s.number}>
                {s.distance_m === null || s.reason !== '' ? (
                  <>
                    At {clock(s.at_s)}: {s.reason}.
                  </>
                ) : (
                  <Tick
                    on={!off.includes(s.number)}
                    onChange={(on) => setOff(on ? off.filter((n) => n !== s.number) : [...off, s.number])}
                  >
                    {`At ${clock(s.at_s)}: ${said(s)}`}
                  </Tick>
                )}
              </li>
            ))}
          </ul>
          {wanted.length > 0 && (
            <div className="row">
              <PressButton
                data-go=""
                isDisabled={keep.isPending || keep.isSuccess}
                onPress={() => keep.mutate({ file, said: columns, set, stops: wanted })}
              >
                Keep {counted(wanted.length, 'stop', 'stops')} in {set}
              </PressButton>
              <span role="status">
                {keep.isSuccess && `${capital(counted(wanted.length, 'stop', 'stops'))} kept. Say of each what locked, or strike it out, in the table.`}
              </span>
            </div>
          )}
        </>
      )}
    </Box>
  ); // prettier-ignore
}
