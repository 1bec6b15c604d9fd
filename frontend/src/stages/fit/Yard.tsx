/** In the yard: from where to where a part may be for every limit to hold, and what to do with the one in the hand. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { useYard, useYardPart, yardCardUrl, type Limits } from '../../api/fit';
import type { YardBand, YardPart } from '../../api/types';
import { ChanceBand } from '../../charts/ChanceBand';
import { Choose } from '../../ui/Choose';
import { DataTable } from '../../ui/DataTable';
import { Missing } from '../../page/Missing';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { useWidth } from '../../ui/useWidth';
import { areaOf, dimension, pressure, written, type Displayed } from '../../units/display';
import { percent, size } from '../../units/format';
import { usePreferred } from '../../units/preference';
import type { Fit } from './useFit';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .over {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    gap: var(--s4) var(--s12);
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s10);
    align-items: end;
  }
  .limits {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
    gap: var(--s4) var(--s18);
    align-items: end;
  }
  .limits > * {
    display: grid;
  }
  .bands {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
    gap: var(--s10) var(--s20);
  }
  output {
    border-top: var(--r-hair) solid var(--rule);
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s6) 0;
    font: var(--w-strong) var(--t-name) / var(--snug) var(--text);
  }
  output svg {
    vertical-align: var(--mark-drop);
    margin-right: var(--s6);
  }
`;
const VERDICT = { keep: 'good', keep_with_valve: 'caution', leave: 'danger' } as const;
const of = (share: number) => `${Math.round(share * 100)} of 100`;

function told(part: YardPart): string {
  const why = part.broken
    .slice(0, 2)
    .map((b) => `${b.words} in ${of(b.chance)}`)
    .join(', ');
  if (part.verdict === 'keep') return `Keep it: every limit holds in ${of(part.chance)}.`;
  if (part.verdict === 'keep_with_valve')
    return `Keep it with a valve to the rear, near ${written(pressure(part.knee_kpa ?? 0))}: ${of(part.valve_chance ?? 0)} hold, ${of(part.chance)} without. Set it lower, prove it on the road.`;
  return `Leave it: every limit holds in only ${of(Math.max(part.chance, part.valve_chance ?? 0))}. ${why === '' ? '' : `${why.charAt(0).toUpperCase()}${why.slice(1)}.`}`;
}

/** A value of a band in the units chosen. */
function ofBand({ what, unit }: YardBand, value: number): Displayed {
  if (what === 'side_area_cm2') return areaOf(value);
  if (what === 'friction_factor') return { v: size(value), unit };
  return dimension(value);
}

function saidOf(band: YardBand): string {
  const between = ([low = 0, high = 0]: readonly number[]) =>
    `${ofBand(band, low).v} to ${written(ofBand(band, high))}`;
  const keep = band.keep ? `keep ${between(band.keep)}` : 'none keeps every limit surely';
  const differs = band.with_valve && band.with_valve.join() !== band.keep?.join();
  return `${keep}${differs && band.with_valve ? `; with a valve ${between(band.with_valve)}` : ''}`;
}

function Band({ band, share }: { band: YardBand; share: number }) {
  const [ref, width] = useWidth<HTMLDivElement>(290);
  const said = saidOf(band);
  return (
    <div ref={ref}>
      <h3>{band.label}</h3>
      <p className="quiet">
        {said}; now {band.what === 'friction_factor' ? '1' : written(ofBand(band, band.now))}
      </p>
      <ChanceBand
        points={band.points}
        now={band.now}
        keep={band.keep}
        withValve={band.with_valve}
        share={share}
        width={width}
        height={86}
        description={`${band.label}: ${said}`}
        write={(v) => written(ofBand(band, v))}
      />
    </div>
  );
}

interface InHandProps {
  fit: Fit;
  limits: Limits;
  stations: readonly string[];
}
function InHand({ fit, limits, stations }: InHandProps) {
  const [station, setStation] = useState(stations[stations.length - 1] ?? '');
  const [typed, setTyped] = useState({ pistons: '', rotor: '', friction: '' });
  const { length } = usePreferred();
  const { mutate, data, error, isPending } = useYardPart(fit.job.id, fit.view.setup, limits);
  const some = Object.values(typed).some((t) => t.trim() !== '');
  const field = (key: keyof typeof typed, label: string, hint: string) => (
    <PlainField value={typed[key]} onChange={(text) => setTyped({ ...typed, [key]: text })}>
      <Label>{label}</Label>
      <Input placeholder={hint} autoComplete="off" />
    </PlainField>
  );
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          mutate({ station, ...typed, preferred: length });
        }}
      >
        <Choose
          label="for"
          value={station}
          options={stations.map((s) => ({ id: s, label: s }))}
          onChange={setStation}
        />
        {field('pistons', 'pistons of one side', '38 mm')}
        {field('rotor', 'rotor diameter', 'as planned')}
        {field('friction', 'pad friction', 'as planned')}
        <PressButton type="submit" data-first="" isDisabled={!some || isPending}>
          Keep it or leave it?
        </PressButton>
      </form>
      {error && <p role="alert">{error.message}</p>}
      {data && (
        <output>
          <Mark state={VERDICT[data.verdict]} size={18} />
          {told(data)}
        </output>
      )}
    </>
  );
}

export function Yard({ fit }: { fit: Fit }) {
  const [open, setOpen] = useState(false);
  const [limits, setLimits] = useState<Limits>({});
  const [table, setTable] = useState(false);
  const { job, view } = fit;
  const { data, error } = useYard(job.id, job.revision, view.setup, limits, open);
  return (
    <Box>
      <div className="over">
        <h2>
          In the yard: what a part must be
          <em>{data?.chance_now !== null && data ? `as planned, every limit holds in ${of(data.chance_now)}` : ''}</em>
        </h2>
        <a href={yardCardUrl(job.id, view.setup)} download className="noprint">
          Card for the phone, one file
        </a>
      </div>
      {!open && (
        <p>
          How far a used caliper, rotor or pad may differ from the plan before a limit no longer holds.{' '}
          <PressButton data-first="" onPress={() => setOpen(true)}>
            Work it out
          </PressButton>
        </p>
      )}
      {open && error && <p role="alert">{error.message}</p>}
      {open && !data && !error && <p role="status">Trying plausible vehicles.</p>}
      {data && data.needs > 0 && <Missing job={fit.job.id} what="Nothing can be said yet" n={data.needs} />}
      {data && data.needs === 0 && (
        <>
          <InHand fit={fit} limits={limits} stations={data.stations} />
          <div className="limits">
            {data.limits.map((limit) => (
              <Field
                key={limit.key}
                label={limit.words}
                value={limit.text}
                onCommit={(text) => {
                  setLimits({ ...limits, [limit.key]: text });
                  return Promise.resolve();
                }}
              />
            ))}
          </div>
          <div className="noprint">
            <PressButton data-plain="" onPress={() => setTable(!table)}>
              {table ? 'plots' : 'table'}
            </PressButton>
          </div>
          {table ? (
            <DataTable
              caption="Bands"
              head={['what', 'now', 'keep', 'with a valve']}
              rows={data.bands.map((b) => [
                `${b.label}, ${ofBand(b, b.now).unit}`,
                ofBand(b, b.now).v,
                ...[b.keep, b.with_valve].map((pair) => pair?.map((v) => ofBand(b, v).v).join(' to ') ?? 'none'),
              ])}
            />
          ) : (
            <div className="bands">
              {data.bands.map((band) => (
                <Band key={`${band.what} ${band.station ?? ''}`} band={band} share={data.keep_share} />
              ))}
            </div>
          )}
          <p className="quiet">
            The line is the chance that every limit holds, dashed with a valve to the rear; tinted where{' '}
            {percent(data.keep_share)} hold. One part changed at a time, {data.trials} plausible vehicles each.
          </p>
        </>
      )}
    </Box>
  );
}
