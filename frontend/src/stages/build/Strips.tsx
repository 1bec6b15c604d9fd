/** The whole job at a glance: a strip for each place, a box for each step in its order, a rivet where a step is signed. */
import styled from 'styled-components';
import type { DayView, WorkStep } from '../../api/types';
import { capital } from '../../units/format';
import type { Build } from './useBuild';

const Box = styled.div`
  display: grid;
  gap: var(--s4);
  .strip {
    display: grid;
    grid-template-columns: 108px minmax(0, 1fr);
    gap: var(--s8);
    align-items: center;
  }
  .strip > span {
    font: var(--w-strong) var(--t-name) / var(--tight) var(--letter);
  }
  .strip small {
    display: block;
    font: var(--w-firm) var(--t-note) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
  }
  button {
    position: relative;
    border: var(--r-hair) solid var(--ink);
    background: none;
    color: inherit;
    min-width: var(--s24);
    min-height: var(--s24);
    padding: 0 var(--s5);
    font: var(--w-firm) var(--t-note) / var(--one) var(--text);
    cursor: pointer;
  }
  button[data-done] {
    background: var(--ink);
    color: var(--paper);
  }
  button[data-now] {
    border: var(--r-heavy) solid var(--plan);
    color: var(--plan);
    font-weight: var(--w-strong);
  }
  button[data-part] {
    border-style: dashed;
    border-color: var(--caution);
    color: var(--caution);
  }
  button[data-on] {
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: 1px;
  }
  i {
    display: inline-block;
    width: 7px;
    height: 7px;
    border-radius: 50%;
    border: 1.4px solid currentColor;
    margin-left: var(--s4);
    vertical-align: 1px;
  }
  i[data-done] {
    background: currentColor;
  }
  @media (max-width: 700px) {
    .strip {
      grid-template-columns: minmax(0, 1fr);
      gap: var(--s2);
    }
    .strip small {
      display: inline;
      padding-left: var(--s6);
    }
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
`;

function Strip({ place, steps, build }: { place: string; steps: readonly WorkStep[]; build: Build }) {
  const done = steps.filter((s) => s.done !== null).length;
  return (
    <div className="strip">
      <span>
        {capital(place)}
        <small>
          {done} of {steps.length}
        </small>
      </span>
      <ol>
        {steps.map((step) => (
          <li key={step.key}>
            <button
              type="button"
              data-done={step.done !== null || undefined}
              data-now={(build.view.now === step.key && step.done === null) || undefined}
              data-part={step.part !== '' || undefined}
              data-on={build.step?.key === step.key || undefined}
              aria-pressed={build.step?.key === step.key}
              aria-label={`${step.short}, ${step.where}${step.critical ? ', signed for' : ''}: ${step.done !== null ? 'done' : step.part !== '' ? `waits for ${step.part}` : 'open'}`}
              title={step.text}
              onClick={() => build.onLook(step.key)}
            >
              {step.short}
              {step.critical && <i data-done={step.done !== null || undefined} aria-hidden="true" />}
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}

export function Strips({ day, build }: { day: DayView; build: Build }) {
  const places = [...new Set(day.steps.map((s) => s.place))];
  return (
    <Box>
      {places.map((place) => {
        const steps = day.steps.filter((s) => s.place === place);
        return <Strip key={place} place={steps[0]?.where ?? place} steps={steps} build={build} />;
      })}
    </Box>
  );
}
