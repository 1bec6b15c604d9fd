/** What to measure: the parts in the order of the work, how far each is, and what is worth taking next. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { CONDITION, type Measure } from './useMeasure';

const Nav = styled.nav`
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
    padding-bottom: var(--s6);
    border-bottom: var(--r-hair) solid var(--ink);
  }
  ol {
    list-style: none;
    padding: 0;
  }
  li button {
    width: 100%;
    border: 0;
    border-bottom: var(--r-hair) solid var(--rule);
    background: none;
    min-height: 34px;
    padding: 0 var(--s2) 0 var(--s6);
    display: grid;
    grid-template-columns: var(--s20) minmax(0, 1fr) auto;
    align-items: center;
    gap: var(--s4);
    text-align: left;
    font: var(--w-firm) var(--t-name) / var(--tight) var(--letter);
    border-left: var(--r-press) solid transparent;
  }
  li button[aria-current] {
    font-weight: var(--w-strong);
    border-left-color: var(--ink);
  }
  li button:hover {
    background: var(--sunk);
  }
  li span {
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
    color: var(--ink-2);
    white-space: nowrap;
  }
`;
export function Rail({ measure }: { measure: Measure }) {
  const { sheet, looked } = measure;
  const notes = sheet.condition.length;
  return (
    <Nav aria-label="What to measure">
      <h2>What to measure</h2>
      <ol>
        {sheet.sections.map((s) => (
          <li key={s.key}>
            <Button aria-current={s.key === looked ? 'true' : undefined} onPress={() => measure.onSection(s.key)}>
              <Mark state={s.state} size={14} />
              {s.title}
              <span>{s.total === 1 && s.kind === 'booster' ? 'none' : `${s.done} of ${s.total}`}</span>
            </Button>
          </li>
        ))}
        <li>
          <Button aria-current={looked === CONDITION ? 'true' : undefined} onPress={() => measure.onSection(CONDITION)}>
            <Mark
              state={notes === 0 ? 'empty' : sheet.condition.some((n) => n.level !== 'fine') ? 'doubt' : 'ready'}
              size={14}
            />
            Condition
            <span>{notes === 0 ? 'no notes' : notes === 1 ? '1 note' : `${notes} notes`}</span>
          </Button>
        </li>
      </ol>
    </Nav>
  );
}
