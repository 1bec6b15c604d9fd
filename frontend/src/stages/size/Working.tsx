/** The working of the figures of one link: the formula, the same with this setup's numbers, where they come from, what hangs on it. */
import { Link } from 'react-router';
import styled from 'styled-components';
import { useWorking } from '../../api/size';
import { useSheet } from '../../api/measure';
import type { Entry, WorkingStep } from '../../api/types';
import { Section, Tool } from './Panel';
import { TRAVEL_LINK } from './state';
import type { Reading } from './useSize';
import { drawnLines } from '../../chain/geometry';
import { linkNames } from '../../chain/words';
import { useEscape } from '../../ui/useEscape';

const Wide = styled(Section)`
  &&& {
    grid-column: 1 / -2;
  }
  .steps {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 330px), 1fr));
    gap: var(--s10) var(--s20);
    padding-top: var(--s6);
  }
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  .formula {
    font: var(--w-firm) var(--t-head) / var(--read) var(--letter);
  }
  sub {
    font-size: 0.75em;
    line-height: 0;
  }
  .numbers {
    font: var(--w-firm) var(--t-name) / var(--read) var(--letter);
    overflow-wrap: anywhere;
  }
  .numbers b {
    color: var(--plan);
    font-weight: var(--w-strong);
    white-space: nowrap;
  }
  .from {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0 var(--s8);
    color: var(--ink-2);
  }
  .from dt {
    font: var(--w-firm) var(--t-text) / var(--read) var(--letter);
    color: var(--ink);
    white-space: nowrap;
  }
  .from dd {
    margin: 0;
  }
  .from [data-assumed] {
    color: var(--caution);
  }
  a {
    color: inherit;
  }
`;

/** The link of each figure, by its place in the drawing. */
const LINK_OF: Record<WorkingStep['figure'], number> = {
  push: 0,
  ratio: 1,
  rod: 1,
  out: 2,
  inlet: 3,
  outlet: 4,
  clamp: 5,
  torque: 6,
  force: 7,
  decel: 8,
  load: 8,
  adhesion: 8,
  travel: TRAVEL_LINK,
  cause: TRAVEL_LINK,
};
const FIGURES: Record<WorkingStep['figure'], string> = {
  push: 'push',
  ratio: 'pedal ratio',
  rod: 'rod force',
  out: 'force behind the booster',
  inlet: 'line pressure',
  outlet: 'pressure behind the valves',
  clamp: 'clamp force',
  torque: 'torque of a wheel',
  force: 'brake force on the road',
  decel: 'deceleration',
  load: 'load on the axle',
  adhesion: 'adhesion used',
  travel: 'pedal travel',
  cause: '',
};
/** What a step works out: "clamp force, front"; a cause of travel is called by itself and by where it is. */
export function stepName({ figure, station, axle, where, cause }: WorkingStep): string {
  if (figure === 'load') return `load on the ${axle ?? ''} axle`;
  const details = figure === 'cause' ? [cause, where] : figure === 'adhesion' ? [axle] : [station];
  return [FIGURES[figure], ...details].filter(Boolean).join(', ').replaceAll('_', ' ');
}
const DIGITS: Record<string, number> = { N: 0, mm: 1, MPa: 2, 'N m': 0, g: 3, '1': 3 };
const written = (step: WorkingStep) =>
  `${step.value.toFixed(DIGITS[step.unit] ?? 2)}${step.unit === '1' ? '' : ` ${step.unit}`}`;

/** Signs with their indices set low: F_rod. */
const Formula = ({ text }: { text: string }) => (
  <>{text.split(/(_[\wηµ]+)/).map((part, i) => (i % 2 === 1 ? <sub key={i}>{part.slice(1)}</sub> : part))}</>
);

interface WorkingProps extends Pick<Reading, 'job' | 'setup' | 'solved' | 'load' | 'now'> {
  link: number;
  onLink: (link: number | null) => void;
}
export function Working({ job, setup, solved, load, now, link, onLink }: WorkingProps) {
  const asked = { setup: setup.key, path: solved.name, load };
  const working = useWorking(job.id, job.revision, asked, now.push);
  const sheet = useSheet(job.id, job.revision, setup.key);
  useEscape(() => onLink(null));
  const steps = working.data ?? [];
  const own = steps.filter((s) => LINK_OF[s.figure] === link);
  const entries = new Map<string, { entry: Entry; section: string }>(
    (sheet.data?.sections ?? []).flatMap((s) =>
      s.groups.flatMap((g) => g.entries.map((entry) => [entry.path, { entry, section: s.key }] as const)),
    ),
  );
  const at = (below: string) => entries.get(below.startsWith('vehicle') ? below : `${sheet.data?.root ?? ''}.${below}`);
  const names = linkNames(solved.parts.pedal.kind, drawnLines(solved).length > 1);
  const title = link === TRAVEL_LINK ? 'Pedal travel' : (names[link] ?? '');
  return (
    <Wide aria-label={`Working: ${title}`} tabIndex={-1}>
      <h2>
        {title} <em>the working of its figures, {setup.name}</em>
        <Tool onPress={() => onLink(null)}>Close, Esc</Tool>
      </h2>
      {working.isError && <p role="alert">{working.error.message}</p>}
      {own.length === 0 && !working.isPending && <p>Nothing is worked out here: what comes in goes on unchanged.</p>}
      <div className="steps">
        {own.map((step) => {
          const hangs = steps.filter((s) => s.uses.includes(step.id));
          return (
            <div key={step.id}>
              <h3>{stepName(step)}</h3>
              <p className="formula">
                <Formula text={step.formula} />
              </p>
              <p className="numbers">
                = {step.numbers} = <b>{written(step)}</b>
              </p>
              <dl className="from">
                {step.provenance.map((path) => {
                  const known = at(path);
                  if (!known) return null;
                  const { entry, section } = known;
                  return (
                    <div key={path} style={{ display: 'contents' }}>
                      <dt>{entry.text || entry.default?.text || 'not known yet'}</dt>
                      <dd data-assumed={entry.state === 'assumed' || undefined}>
                        <Link to={`/jobs/${job.id}/measure?plan=${encodeURIComponent(setup.key)}&part=${section}`}>
                          {entry.label}
                        </Link>
                        {entry.state === 'assumed'
                          ? `, assumed, ${(entry.default ?? entry.stand_in)?.standing ?? ''}`
                          : ''}
                        {entry.plus_minus ? `, ± ${entry.plus_minus.text}` : ''}
                      </dd>
                    </div>
                  );
                })}
                {step.uses
                  .map((id) => steps.find((s) => s.id === id))
                  .filter((s): s is WorkingStep => s !== undefined)
                  .slice(0, 4)
                  .map((s) => (
                    <div key={s.id} style={{ display: 'contents' }}>
                      <dt>{written(s)}</dt>
                      <dd>
                        <Tool onPress={() => onLink(LINK_OF[s.figure])}>{stepName(s)}</Tool>
                      </dd>
                    </div>
                  ))}
              </dl>
              <p>Source: {step.source}.</p>
              {hangs.length > 0 && (
                <p>
                  On it hangs:{' '}
                  {hangs.slice(0, 4).map((s, i) => (
                    <span key={s.id}>
                      {i > 0 && ', '}
                      <Tool onPress={() => onLink(LINK_OF[s.figure])}>
                        {stepName(s)} {written(s)}
                      </Tool>
                    </span>
                  ))}
                </p>
              )}
            </div>
          );
        })}
      </div>
    </Wide>
  );
}
