/** The keys, and the switch that turns the single ones off. */
import { Button, Switch } from 'react-aria-components';
import styled from 'styled-components';
import { Link } from 'react-router';
import { Overlay, useOver } from './Over';
import { turnKeys, useKeysOn } from './keys';
import { UnitChoice } from '../ui/UnitToggle';

const List = styled(Overlay)`
  dl {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: var(--s4) var(--s14);
    align-items: baseline;
  }
  dt,
  dd {
    margin: 0;
  }
  kbd {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--letter);
    border: var(--r-hair) solid var(--ink-2);
    padding: 0 var(--s4);
    white-space: nowrap;
  }
  .react-aria-Switch {
    display: flex;
    align-items: center;
    gap: var(--s8);
    min-height: var(--s28);
    cursor: pointer;
  }
  .react-aria-Switch::before {
    content: '';
    width: var(--s14);
    height: var(--s14);
    border: var(--r-outline) solid var(--ink);
  }
  .react-aria-Switch[data-selected]::before {
    background: var(--ink);
  }
  .react-aria-Switch[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    justify-self: start;
    padding: 0 var(--s10);
  }
`;
const KEYS: readonly (readonly [string, string])[] = [
  ['/', 'find a stage, a plan, a link, an instrument or a field'],
  ['?', 'this list'],
  ['1 … 7', 'to a stage (those that are built)'],
  ['N', 'Measure: the next thing that is not known'],
  ['Enter', 'store a field and go to the next; open the working of a link'],
  ['Esc', 'give up what was typed; close a panel'],
  ['↑ ↓', 'in a size: the next standard size; in a length: a millimetre'],
  ['← →', 'on the push, a knee, a tape: one step; with Shift ten'],
  ['Del', 'Prove: strike out the stop that the ring stands on'],
  ['Ctrl Z', 'undo; with Shift redo'],
];

/** What figures are shown in, and what a bare number means; one press from every stage. */
export function Units({ onClose }: { onClose: () => void }) {
  const ref = useOver(onClose);
  return (
    <List ref={ref} aria-label="Units">
      <h2>Units</h2>
      <UnitChoice />
      <Button onPress={onClose}>Close</Button>
    </List>
  );
}

export function KeyList({ job, onClose }: { job: number; onClose: () => void }) {
  const on = useKeysOn();
  const ref = useOver(onClose);
  return (
    <List ref={ref} aria-label="Keys">
      <h2>Keys</h2>
      <dl>
        {KEYS.map(([key, what]) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <Switch isSelected={on} onChange={turnKeys}>
        single keys are on (they never act in a field)
      </Switch>
      <p>
        <Link to={`/jobs/${job}/questions`}>Questions people ask, and the words used here</Link>
      </p>
      <p>
        <a href={`/api/jobs/${job}/file`} download>
          Save this job as a file
        </a>
        , or <Link to={`/jobs/${job}/files`}>everything else that goes out, and a copy to lend</Link>
      </p>
      <p>
        <a href="/third-party.txt" target="_blank" rel="noreferrer">
          What Kobrix is built with, and its licences
        </a>
      </p>
      <Button onPress={onClose}>Close</Button>
    </List>
  );
}
