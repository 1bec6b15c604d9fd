/** The stand test, the gate before the first drive: a scale on the pedal, gauges at the bleed screws and a ruler against the plan. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { useRun, useSimulatedGauges } from '../../api/bleed';
import type { StandView } from '../../api/types';
import { StandPlot, type Reading } from '../../charts/StandPlot';
import { Missing } from '../../page/Missing';
import { Choose } from '../../ui/Choose';
import { HoldButton } from '../../ui/HoldButton';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { signsAs, useSigner } from '../../ui/signer';
import { useWidth } from '../../ui/useWidth';
import { RowsTable } from '../../ui/RowsTable';
import { force, perKilopascal, perNewton, pressure } from '../../units/display';
import { counted, moment } from '../../units/format';
import { usePreferred } from '../../units/preference';
import type { Bleed } from './useBleed';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s10);
  form,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  tr[data-out] td {
    text-decoration: line-through;
    color: var(--ink-2);
  }
  .verdict {
    list-style: none;
    margin: 0;
    padding: 0;
    border: var(--r-outline) solid var(--ink);
  }
  .verdict li {
    display: flex;
    gap: var(--s10);
    align-items: center;
    padding: var(--s6) var(--s10);
    border-top: var(--r-hair) solid var(--rule);
    color: var(--ink-2);
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  .verdict b {
    font: var(--w-strong) var(--t-figure) / var(--tight) var(--letter);
    min-width: 116px;
  }
  .verdict li[data-on] {
    background: var(--ink);
    color: var(--paper);
  }
  .verdict svg {
    flex: none;
  }
  .verdict li[data-on] .mark-line {
    stroke: var(--paper);
  }
  .plots {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s6);
  }
`;
const VERDICTS = [
  ['drive_slowly', 'Drive slowly', 'as planned, within the doubt', 'good'],
  ['look_again', 'Look again', 'air, a stuck part, a wrong bore', 'caution'],
  ['do_not_drive', 'Do not drive', 'a circuit dead, or near the floor', 'danger'],
] as const;

function Pushes({ stand, bleed }: { stand: StandView; bleed: Bleed }) {
  if (stand.pushes.length === 0)
    return <p className="quiet">No push yet. Five do: 2, 5, 10, 20 and 35 kg on the scale.</p>;
  return (
    <RowsTable>
      <caption className="visually-hidden">Pushes of run {stand.run}</caption>
      <thead>
        <tr>
          <th scope="col">push</th>
          {stand.has_front && <th scope="col">front gauge</th>}
          {stand.has_rear && <th scope="col">rear gauge</th>}
          <th scope="col">ruler</th>
          <th scope="col">
            <span className="visually-hidden">what to do</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {stand.pushes.map((p) => (
          <tr key={p.key} data-out={p.struck !== null || undefined}>
            <td>
              {p.force}
              {p.simulated && ', simulated'}
            </td>
            {stand.has_front && <td>{p.front}</td>}
            {stand.has_rear && <td>{p.rear}</td>}
            <td>{p.travel}</td>
            <td>
              {p.struck === null && (
                <PressButton
                  data-plain=""
                  aria-label={`Strike out the push of ${p.force}`}
                  onPress={() =>
                    void bleed.record(`push of ${p.force} struck out`, 'struck', { of: p.key, why: 'read wrong' })
                  }
                >
                  strike out
                </PressButton>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </RowsTable>
  );
}

const EMPTY = { force: '', front: '', rear: '', travel: '' };
function TypePush({ stand, bleed, run }: { stand: StandView; bleed: Bleed; run: number }) {
  const [typed, setTyped] = useState(EMPTY);
  const [refused, setRefused] = useState('');
  const { pressure: unit } = usePreferred();
  const gauges = useSimulatedGauges(bleed.job.id);
  const field = (key: keyof typeof EMPTY, label: string, hint: string) => (
    <PlainField value={typed[key]} onChange={(text) => setTyped({ ...typed, [key]: text })}>
      <Label>{label}</Label>
      <Input placeholder={hint} autoComplete="off" />
    </PlainField>
  );
  /** What is read off a bathroom scale is a mass; a gauge is read in the unit that is chosen. */
  const asForce = (text: string) =>
    text
      .trim()
      .replace(/^([\d.,\s/]+)(kg)?$/i, '$1 kgf')
      .replace(/\s*kg$/i, ' kgf');
  const asPressure = (text: string) => (/^[\d.,\s]+$/.test(text.trim()) ? `${text.trim()} ${unit}` : text.trim());
  const base = { setup: bleed.view.setup, run, ...(stand.systems.length > 1 ? { system: stand.system } : {}) };
  async function keep() {
    setRefused('');
    try {
      await bleed.record(`push of ${typed.force}`, 'push', {
        ...base,
        force: asForce(typed.force),
        ...(typed.front.trim() === '' ? {} : { front_kpa: asPressure(typed.front) }),
        ...(typed.rear.trim() === '' ? {} : { rear_kpa: asPressure(typed.rear) }),
        ...(typed.travel.trim() === '' ? {} : { travel_mm: typed.travel }),
      });
      setTyped(EMPTY);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  async function simulate() {
    setRefused('');
    try {
      const told = await gauges.mutateAsync({
        setup: bleed.view.setup,
        system: stand.system,
        force: asForce(typed.force),
        seed: stand.pushes.length + 1,
      });
      await bleed.record(`simulated push of ${typed.force}`, 'push', {
        ...base,
        force: told.force,
        simulated: true,
        ...(told.front_kpa === null ? {} : { front_kpa: told.front_kpa }),
        ...(told.rear_kpa === null ? {} : { rear_kpa: told.rear_kpa }),
        ...(told.travel_mm === null ? {} : { travel_mm: told.travel_mm }),
      });
      setTyped(EMPTY);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <>
      <form
        className="noprint"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        {field('force', 'scale on the pad', '20 kg')}
        {stand.has_front && field('front', 'front gauge', `30 ${unit}`)}
        {stand.has_rear && field('rear', 'rear gauge', `30 ${unit}`)}
        {field('travel', 'ruler', '71 mm')}
        <PressButton type="submit" data-go="" isDisabled={typed.force.trim() === ''}>
          Keep this push
        </PressButton>
        <PressButton
          data-plain=""
          isDisabled={typed.force.trim() === '' || gauges.isPending}
          onPress={() => void simulate()}
        >
          simulated gauges
        </PressButton>
      </form>
      {refused !== '' && <p role="alert">{refused}</p>}
    </>
  );
}

function Plots({ stand }: { stand: StandView }) {
  const [ref, width] = useWidth<HTMLDivElement>(520);
  const of = (key: 'front_kpa' | 'rear_kpa' | 'travel_mm', as: Reading['as']): Reading[] =>
    stand.pushes.flatMap((p) =>
      p[key] === null
        ? []
        : [{ key: `${p.key} ${key}`, force: p.force_n, value: p[key], quiet: p.simulated || p.struck !== null, as }],
    );
  const push = (n: number) => String(Math.round(n * perNewton()));
  const unit = force(0).unit;
  return (
    <div className="plots" ref={ref}>
      <StandPlot
        bands={[
          { points: stand.rear, as: 'found-area' },
          { points: stand.front, as: 'tint' },
        ]}
        readings={[...of('front_kpa', 'ring'), ...of('rear_kpa', 'square')]}
        unit={`pressure, ${pressure(0).unit}`}
        write={(kpa) => String(parseFloat((kpa * perKilopascal()).toFixed(1)))}
        push={push}
        pushUnit={unit}
        width={width}
        height={250}
        description={`Pressure over the push: ${counted(of('front_kpa', 'ring').length, 'front reading', 'front readings')}, ${counted(of('rear_kpa', 'square').length, 'rear reading', 'rear readings')} on what the plan predicts`}
      />
      {stand.travel.length > 0 && (
        <StandPlot
          bands={[{ points: stand.travel, as: 'tint' }]}
          readings={of('travel_mm', 'ring')}
          unit="ruler, mm"
          write={(mm) => String(Math.round(mm))}
          push={push}
          pushUnit={unit}
          width={width}
          height={250}
          description={`Pedal travel over the push: ${counted(of('travel_mm', 'ring').length, 'reading', 'readings')} on what the plan predicts`}
        />
      )}
      <p className="quiet">Ring: front gauge and ruler. Square: rear gauge. Tinted: P5 to P95 of plausible vehicles.</p>
    </div>
  );
}

function Verdict({ stand }: { stand: StandView }) {
  return (
    <>
      <div role="status">
        <ul className="verdict">
          {VERDICTS.map(([id, title, words, mark]) => (
            <li key={id} data-on={stand.verdict === id || undefined}>
              <Mark state={mark} size={18} />
              <b>{title}</b>
              <span>
                {stand.verdict === id && stand.reasons.length > 0 ? inChosenUnits(stand.reasons.join('; ')) : words}
              </span>
            </li>
          ))}
        </ul>
      </div>
      {stand.travel_sentence !== '' && <p>{inChosenUnits(stand.travel_sentence)}</p>}
    </>
  );
}

function Fitted({ stand, bleed }: { stand: StandView; bleed: Bleed }) {
  if (stand.fitted.length === 0) return null;
  /** In the units that a person reads. */
  const said = (value: number, unit: string, named = true): string => {
    const shown = unit === 'kPa' ? pressure(value) : unit === 'N' ? force(value) : { v: value.toFixed(2), unit };
    return named && shown.unit !== '' ? `${shown.v} ${shown.unit}` : shown.v;
  };
  return (
    <RowsTable>
      <caption className="visually-hidden">What the test fitted</caption>
      <thead>
        <tr>
          <th scope="col">fitted</th>
          <th scope="col">between</th>
          <th scope="col">planned</th>
          <th scope="col">
            <span className="visually-hidden">accept</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {stand.fitted.map((f) => (
          <tr key={f.name}>
            <td>
              {f.off && <Mark state="caution" size={14} />} {f.words} {said(f.value, f.unit)}
            </td>
            <td>
              {said(f.low, f.unit, false)} to {said(f.high, f.unit)}
            </td>
            <td>{f.plan === null ? '' : said(f.plan, f.unit)}</td>
            <td>
              {f.edits.length > 0 && (
                <PressButton
                  data-plain=""
                  onPress={() => void bleed.onJob(`stand test: ${f.accept}`, f.edits).catch(() => undefined)}
                >
                  {f.accept}: take it
                </PressButton>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </RowsTable>
  );
}

function Sign({ stand, bleed }: { stand: StandView; bleed: Bleed }) {
  const by = useSigner();
  if (stand.signed !== null) {
    return (
      <p>
        <Mark state="ready" size={16} /> Signed for the first drive at walking pace, {moment(stand.signed.at)}
        {stand.signed.by !== '' && `, ${stand.signed.by}`}.{' '}
        <PressButton
          data-plain=""
          onPress={() =>
            void bleed.record('stand test taken back', 'struck', { of: stand.signed?.key ?? '', why: 'opened again' })
          }
        >
          it was opened again
        </PressButton>
      </p>
    );
  }
  if (stand.verdict !== 'drive_slowly') return null;
  return (
    <>
      <PlainField value={by} onChange={signsAs} maxLength={60}>
        <Label>who signs</Label>
        <Input autoComplete="name" placeholder="initials" />
      </PlainField>
      <HoldButton
        disabled={by.trim() === ''}
        onHeld={() =>
          void bleed.record('stand test signed', 'signed', {
            setup: bleed.view.setup,
            step: 'stand_test',
            by: by.trim(),
          })
        }
      >
        Hold to sign: gauges out, screws shut and looked at twice; first drive at walking pace
      </HoldButton>
    </>
  );
}

export function Stand({ bleed }: { bleed: Bleed }) {
  const last = bleed.view.stand;
  const [asked, setAsked] = useState<number | null>(null);
  const { job, view } = bleed;
  const older = asked !== null && asked !== last.run && last.runs.includes(asked);
  const other = useRun(job.id, job.revision, job.recorded, view.setup, older ? asked : null);
  const fresh = asked !== null && !last.runs.includes(asked);
  const stand: StandView = older && other.data ? other.data : fresh ? { ...last, run: asked, pushes: [], verdict: null, reasons: [], fitted: [], travel_sentence: '' } : last; // prettier-ignore
  const next = Math.max(...last.runs) + 1;
  if (stand.needs > 0) return <Missing job={job.id} what="No pressure can be predicted yet" n={stand.needs} />;
  return (
    <Box>
      <div className="row noprint">
        {last.runs.length > 1 || fresh ? (
          <Choose
            label="run"
            value={String(stand.run)}
            options={[...new Set([...last.runs, stand.run])].map((r) => ({ id: String(r), label: `run ${r}` }))}
            onChange={(id) => setAsked(Number(id))}
          />
        ) : null}
        {last.pushes.length > 0 && !fresh && (
          <PressButton onPress={() => setAsked(next)}>Another run, bled again</PressButton>
        )}
      </div>
      <Verdict stand={stand} />
      <TypePush stand={stand} bleed={bleed} run={stand.run} />
      <Pushes stand={stand} bleed={bleed} />
      {stand.refused !== '' && <p role="alert">{stand.refused}</p>}
      <Fitted stand={stand} bleed={bleed} />
      <Sign stand={stand} bleed={bleed} />
      <Plots stand={stand} />
    </Box>
  );
}
