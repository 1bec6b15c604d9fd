/** How far the measuring is: what each answer still needs, and which doubt is worth a tape. */
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { Plain } from '../../page/EntryField';
import { effect } from './EntryPanel';
import { mostSensitive, type Measure } from './useMeasure';
import { force, lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.section`
  &:first-child {
    border-top: 0;
    padding-top: 0;
  }
  display: grid;
  gap: var(--s6);
  border-top: var(--r-hair) solid var(--rule);
  padding-top: var(--s8);
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  > p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  ul {
    list-style: none;
    padding: 0;
    display: grid;
    gap: var(--s2);
    max-height: 190px;
    overflow-y: auto;
  }
  ul button {
    border: 0;
    background: none;
    padding: 0;
    text-align: left;
    text-decoration: underline;
    text-underline-offset: var(--s3);
    min-height: var(--s22);
  }
  dl {
    display: grid;
    gap: var(--s4);
  }
  dt {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  dd {
    margin: 0;
    font: var(--w-strong) var(--t-figure) / var(--snug) var(--letter);
  }
  dd span {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  @media (pointer: coarse) {
    ul button {
      min-height: var(--target);
    }
  }
`;

/** What follows at once from the entries of the section. */
export function Follows({ measure }: { measure: Measure }) {
  const lines = measure.section?.derived ?? [];
  if (lines.length === 0) return null;
  return (
    <Box aria-label="What follows from these">
      <dl>
        {lines.map((l) => (
          <div key={l.label}>
            <dt>{inChosenUnits(l.label)}</dt>
            <dd>
              {inChosenUnits(l.text)}
              {l.note && <span>{inChosenUnits(l.note)}</span>}
            </dd>
          </div>
        ))}
      </dl>
    </Box>
  );
}

const MOST = 6;
export function Standing({ measure }: { measure: Measure }) {
  const { sheet, sensitivity } = measure;
  const { decel, travel } = sheet.needs;
  const most = mostSensitive(sheet, sensitivity, false);
  const next = mostSensitive(sheet, sensitivity, true);
  const open = decel.length > 0 ? decel : travel;
  return (
    <Box aria-labelledby="standing">
      <h2 id="standing">
        <Mark state={decel.length > 0 ? 'begun' : travel.length > 0 ? 'begun' : 'ready'} size={15} />{' '}
        {decel.length > 0
          ? `${decel.length} more for a push and a stop`
          : travel.length > 0
            ? `The push is known. ${travel.length} more for travel`
            : 'Enough for push, stop and travel'}
      </h2>
      {open.length > 0 && (
        <ul>
          {open.slice(0, MOST).map((m) => (
            <li key={m.path}>
              <Plain style={{ border: 0 }} onPress={() => measure.onGo(m.section, m.path)}>
                {m.label}
              </Plain>
            </li>
          ))}
          {open.length > MOST && <li>and {open.length - MOST} more</li>}
        </ul>
      )}
      {sensitivity?.push_n && (
        <p>
          With every assumed value and ± in its range: {force(sensitivity.push_n.p5).v} to{' '}
          {written(force(sensitivity.push_n.p95))}
          {sensitivity.travel_mm &&
            `, ${lengthOf(sensitivity.travel_mm.p5).v} to ${written(lengthOf(sensitivity.travel_mm.p95))}`}{' '}
          at {sensitivity.decel_g.toFixed(2)} g (nine of ten).
        </p>
      )}
      {most && most.entry.guess && (
        <p>
          <b>Moves them most, and cannot be measured here:</b> {most.section.title.toLowerCase()}, {most.entry.label}.{' '}
          {effect(most.sensitive, most.entry)}
        </p>
      )}
      {next && (
        <>
          <p>
            <b>Worth measuring next:</b> {next.section.title.toLowerCase()}, {next.entry.label}.{' '}
            {effect(next.sensitive, next.entry)}
          </p>
          <span>
            <Plain onPress={() => measure.onGo(next.section.key, next.entry.path)}>Measure it</Plain>
          </span>
        </>
      )}
    </Box>
  );
}
