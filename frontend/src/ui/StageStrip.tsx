/** The seven stages in order, each with its state; those not built yet are plain and unlinked. */
import { memo } from 'react';
import styled from 'styled-components';
import { Mark, type Progress } from './Mark';

export const STAGES = ['Measure', 'Size', 'Fit', 'Build', 'Bleed', 'Bed', 'Prove'] as const;

const Strip = styled.ol`
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  list-style: none;
  padding: 0;
  li {
    border-left: var(--r-hair) solid var(--ink);
    padding: var(--s5) 0 0 var(--s10);
  }
  li:last-child {
    border-right: var(--r-hair) solid var(--ink);
  }
  b {
    font: var(--w-strong) var(--t-head) / var(--tight) var(--letter);
    display: block;
  }
  span {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    display: flex;
    gap: var(--s5);
    align-items: center;
  }
  li[aria-current] {
    background: var(--ink);
    color: var(--paper);
  }
  li[aria-current] span {
    color: var(--paper);
  }
  li[aria-current] .mo {
    stroke: var(--ink);
  }
`;

export const StageStrip = memo(function StageStrip({ progress }: { progress: Progress }) {
  return (
    <Strip aria-label="Stages">
      {STAGES.map((name) => (
        <li key={name} aria-current={name === 'Size' ? 'step' : undefined}>
          <b>{name}</b>
          <span>
            {name === 'Size' ? (
              <>
                <Mark state={progress} size={14} />
                {progress}
              </>
            ) : (
              'later'
            )}
          </span>
        </li>
      ))}
    </Strip>
  );
});
