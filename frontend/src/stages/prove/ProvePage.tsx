/** Prove: did it get better, and was it the brakes or the tyres. */
import { useState } from 'react';
import styled from 'styled-components';
import type { StageProps } from '../../page/StagePage';
import { DossierLink } from '../../page/DossierLink';
import { WorkPage } from '../../page/WorkPage';
import { PressButton } from '../../ui/PressButton';
import { useWidth } from '../../ui/useWidth';
import { capital, counted } from '../../units/format';
import { Calibration } from './Calibration';
import { FirstDrive } from './FirstDrive';
import { Recording } from './Recording';
import { Row } from './Row';
import { SetsPanel } from './SetsPanel';
import { StopsPlot } from './StopsPlot';
import { StopsTable } from './StopsTable';
import { TypeStop } from './TypeStop';
import { useProve, type Prove } from './useProve';
import { ValveSetting } from './ValveSetting';
import { Verdict } from './Verdict';
import { inChosenUnits } from '../../units/sentences';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  .main,
  .side {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
  }
  .main > section + section,
  .side > section + section,
  &:not([data-wide]) > * + * {
    border-top: var(--r-hair) solid var(--ink);
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
  }
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s16);
    color: var(--ink-2);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  /* At the roadside a stop is typed first. */
  &:not([data-wide]) > .side {
    display: contents;
  }
  &:not([data-wide]) .first {
    order: -1;
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 400px;
  }
  &[data-wide] > .side {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
`;

function Plot({ prove, wide }: { prove: Prove; wide: boolean }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const [table, setTable] = useState(wide);
  const [asking, setAsking] = useState<string | null>(null);
  const onStrike = (key: string) => {
    setTable(true);
    setAsking(key);
  };
  const { view } = prove;
  return (
    <section aria-label="Stops" ref={ref}>
      <h2>
        Stops from {inChosenUnits(view.nominal)}
        <em>each stop a line, as recorded or as if it braked steadily; it lands on the ruler, below it its dot</em>
      </h2>
      {view.sets.length === 0 ? (
        <p>
          No set yet. Four stops as found, before it is taken apart: afterwards nobody can measure them any more. Add
          the set, then type each stop.
        </p>
      ) : (
        <>
          <StopsPlot view={view} width={width} on={prove.stop?.key ?? null} onStop={prove.onStop} onStrike={onStrike} />
          <p className="key">
            <span>ring: nothing locked</span>
            <span>filled: front locked</span>
            <span>hatched: rear locked</span>
            <span>tinted: where the model sees them, P5 to P95</span>
            <span>diamond: mean, 95 %</span>
          </p>
          <div>
            <PressButton className="noprint" data-plain="" aria-expanded={table} onPress={() => setTable(!table)}>
              {table ? 'Hide the stops' : `Every stop as a table`}
            </PressButton>{' '}
            <a href={`/api/jobs/${prove.job.id}/stops.csv`} download className="noprint">
              Save as CSV
            </a>
          </div>
          {table && <StopsTable prove={prove} asking={asking} onAsk={setAsking} />}
        </>
      )}
    </section>
  );
}

export function ProvePage({ job, view, stages }: StageProps<'prove'>) {
  const prove = useProve(job, view);
  const { steps } = prove;
  const stops = view.sets.reduce((n, s) => n + s.n, 0);
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="prove"
      title="Prove"
      said={`${counted(stops, 'stop counts', 'stops count')} in ${counted(view.sets.length, 'set', 'sets')}. The best of a few is luck; the mean is the answer.`}
      steps={steps}
      tools={<DossierLink job={job.id} setup={job.setups[1] ?? job.setups[0] ?? ''} />}
      cautions={view.cautions.join(' ')}
    >
      {(wide) => (
        <Body data-wide={wide || undefined}>
          <div className="main">
            <Plot prove={prove} wide={wide} />
            {view.rows.map((row) => (
              <section key={row.set} aria-label={`Row of stops: ${row.set}`}>
                <h2>
                  {capital(row.set)}
                  <em>one after another: heat, and whether the brakes fade</em>
                </h2>
                <Row row={row} />
              </section>
            ))}
            <section aria-label="First drive">
              <h2>
                First drive
                <em>
                  {view.first_drive.setup}: {view.first_drive.done} of {view.first_drive.steps.length} done
                </em>
              </h2>
              <FirstDrive prove={prove} />
            </section>
          </div>
          <div className="side">
            <section aria-label="Verdict">
              <h2>Verdict</h2>
              <Verdict view={view} />
            </section>
            <section aria-label="Type a stop" className="noprint first">
              <h2>Type a stop</h2>
              <TypeStop prove={prove} adjustable={view.valve !== null} />
            </section>
            <section aria-label="Read a recording" className="noprint">
              <h2>
                Read a recording
                <em>CSV of a logger or a spreadsheet, GPX, NMEA</em>
              </h2>
              <Recording prove={prove} />
            </section>
            {view.calibrations.length > 0 && (
              <section aria-label="What the stops teach">
                <h2>
                  What the stops teach
                  <em>Size and its chances follow once it is taken over</em>
                </h2>
                {view.calibrations.map((own) => (
                  <Calibration key={own.setup} own={own} prove={prove} />
                ))}
              </section>
            )}
            <section aria-label="Valve or bar" className="noprint">
              <h2>
                Valve or bar
                <em>what can be set, and where it stands</em>
              </h2>
              <ValveSetting prove={prove} />
            </section>
            <section aria-label="Sets" className="noprint">
              <h2>Sets</h2>
              <SetsPanel prove={prove} />
            </section>
          </div>
        </Body>
      )}
    </WorkPage>
  );
}
