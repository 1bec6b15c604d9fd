/** Beside the drawing: the entry being made, how it is taken, how sure it is, and what hangs on it. */
import { useId } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { capital } from '../../units/format';
import type { Entry, SensitiveEntry } from '../../api/types';
import { percent } from '../../ui/ChanceBar';
import { PlainField } from '../../ui/PlainField';
import { useDraft } from '../../ui/useDraft';
import { Plain } from '../../page/EntryField';
import { Tape } from './Tape';
import { rankedOf, type Measure } from './useMeasure';
import { inChosenUnits } from '../../units/sentences';
import { force, lengthOf, written, type Displayed } from '../../units/display';

const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  align-content: start;
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  h2::first-letter {
    text-transform: uppercase;
  }
  > p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
  }
  > p b {
    font-weight: var(--w-strong);
    color: var(--ink);
  }
  .pair {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s10) var(--s18);
    align-items: end;
  }
`;
const Wrong = styled.p`
  &&& {
    color: var(--danger);
    font-weight: var(--w-strong);
  }
`;

const INCHES = /["']|in|\//;
const pair = (values: readonly number[] | null, as: (value: number) => Displayed) =>
  values ? `${as(values[0] ?? 0).v} to ${written(as(values[1] ?? 0))}` : '';

/** What an entry does on its own, from one end of its range to the other. */
export function effect(sensitive: SensitiveEntry, entry: Entry): string {
  const moves = (values: readonly number[] | null, least: number) =>
    values !== null && Math.abs((values[0] ?? 0) - (values[1] ?? 0)) >= least;
  const effects = [
    moves(sensitive.push_n, 1) ? `the push goes from ${pair(sensitive.push_n, force)}` : '',
    moves(sensitive.travel_mm, 0.5) ? `the pedal goes from ${pair(sensitive.travel_mm, (mm) => lengthOf(mm))}` : '',
  ].filter(Boolean);
  const ends = `Between ${round(sensitive.least)} and ${round(sensitive.most)} ${entry.unit}`.trim();
  return effects.length === 0 ? `${ends} it hardly matters.` : `${ends} ${effects.join(' and ')}.`;
}
const round = (n: number) => parseFloat(n.toPrecision(4)).toString();

export function EntryPanel({ measure }: { measure: Measure }) {
  const { here, sheet, sensitivity } = measure;
  const title = useId();
  if (!here) return null;
  const ranked = rankedOf(sheet, sensitivity).find((r) => r.entry.path === here.path);
  const isLength = here.unit === 'mm' && here.kind === 'quantity';
  const value = here.value ?? here.default?.value ?? null;
  const usual = here.default ?? here.stand_in;
  return (
    <Panel aria-labelledby={title}>
      <h2 id={title}>{here.label}</h2>
      {here.how && <p>{here.how}</p>}
      {isLength && value !== null && value > 0 && (
        <Tape
          key={here.path}
          label={here.label}
          mm={value}
          plusMinus={here.plus_minus?.value ?? 0}
          inches={INCHES.test(here.text) || (here.text === '' && measure.preferred.length === 'in')}
          least={here.least ?? 0}
          most={here.most ?? 1000}
          onTake={(text) => void measure.onType(here, text).catch(() => undefined)}
        />
      )}
      <div className="pair">
        {here.kind === 'quantity' && here.state === 'measured' && !here.exact && (
          <OffBy key={here.path} entry={here} measure={measure} />
        )}
        {here.state === 'measured' && (here.exact || here.usual_doubt) && (
          <Plain onPress={() => measure.onExact(here, !here.exact)}>
            {here.exact ? 'Not exact after all' : 'It is exact'}
          </Plain>
        )}
        {usual && !here.unsure && here.state !== 'assumed' && (
          <Plain onPress={() => measure.onUnknown(here)}>Don’t know: take {usual.text}</Plain>
        )}
      </div>
      {here.state === 'assumed' && usual && (
        <p>
          <b>Assumed: {here.text || usual.text}.</b> {capital(usual.source)} ({usual.standing}).
        </p>
      )}
      {here.kind === 'quantity' && here.allowed && (
        <p>
          Allowed {here.allowed}
          {here.why ? `: ${here.why}` : ''}.
        </p>
      )}
      {here.exact && <p>Exact, as you say: nothing is drawn around it.</p>}
      {here.usual_doubt && <p>Typed without a ±, so its usual doubt holds: {here.usual_doubt.text} (our estimate).</p>}
      {ranked && <p>{effect(ranked.sensitive, here)}</p>}
      <Settles measure={measure} path={here.path} />
      {here.needed && (
        <p>
          <b>Needed</b> for {here.needed === 'decel' ? 'the push and the stop' : 'the pedal’s travel'}.
        </p>
      )}
    </Panel>
  );
}
/** What measuring this entry would settle of the findings of its setup. */
function Settles({ measure, path }: { measure: Measure; path: string }) {
  const { sheet, verdicts } = measure;
  const own = path.startsWith('vehicle') ? path : path.slice(sheet.root.length + 1);
  const told = (verdicts?.setups.find((s) => s.key === sheet.setup)?.findings ?? []).flatMap((f) => {
    const settle = f.settle.find((s) => s.paths.includes(own));
    return settle && f.chance !== null ? [{ finding: f, settle, chance: f.chance }] : [];
  });
  if (told.length === 0) return null;
  return (
    <>
      {told.slice(0, 2).map(({ finding, settle, chance }) => (
        <p key={finding.id}>
          <b>Worth {settle.minutes} minutes:</b> {inChosenUnits(finding.sentence)} Measured, {percent(chance)} becomes{' '}
          {percent(settle.low)} or {percent(settle.high)}.
        </p>
      ))}
    </>
  );
}
function OffBy({ entry, measure }: { entry: Entry; measure: Measure }) {
  const draft = useDraft(entry.plus_minus?.text ?? '', (text) => measure.onTolerance(entry, text));
  return (
    <>
      <PlainField value={draft.text} onChange={draft.type} isInvalid={draft.refused !== null}>
        <Label>it may be off by ±</Label>
        <Input
          autoComplete="off"
          placeholder={entry.usual_doubt ? `usually ${entry.usual_doubt.text}` : 'taken as exact'}
          onBlur={() => draft.refused !== null || void draft.commit()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void draft.commit();
            if (event.key === 'Escape') draft.giveUp();
          }}
        />
      </PlainField>
      {draft.refused && <Wrong role="alert">{draft.refused}</Wrong>}
    </>
  );
}
